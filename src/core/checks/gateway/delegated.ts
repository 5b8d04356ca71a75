import {
  asPrefix6,
  containsAddress,
  containsPrefix,
  formatAddress,
  formatPrefix,
  offsetIn,
  parsePrefix,
  prefixesOverlap,
  prefixOf,
  step,
  type Address,
  type Prefix6,
} from "../../address";
import { must } from "../../kernel";
import { nameOf, PlanEdits, type Line, type PlanIndex, type RuleSide } from "../../plan";
import { renumber, type Move } from "../../planners";
import { counted, listed, type Repair } from "../../repairs";
import { linesInOrder } from "../../routing";
import { check, type Found } from "../check";

/** What is routed on the internet, as assigned so far (RFC 4291 section 2.4); unique-local ranges are not. */
const GLOBAL = must(parsePrefix("2000::/3"), "the global range");

/** The prefixes that the lines have now, in the order of failover. */
const delegatedBy = ({ plan }: PlanIndex): { readonly line: Line; readonly prefix: Prefix6 }[] =>
  linesInOrder(plan.line.values()).flatMap((line) =>
    line.delegated.prefix === null ? [] : [{ line, prefix: line.delegated.prefix }],
  );

interface OutsideData {
  readonly segment: string;
  readonly prefix: string;
  readonly lines: readonly string[];
}

/** The same subnet, counted from the start of its own block, in another block of that length. */
function inBlock(prefix: Prefix6, block: Prefix6): Prefix6 | null {
  const own = asPrefix6(prefixOf(prefix.network, block.length));
  const network =
    own === null || prefix.length < block.length
      ? null
      : step<Address>(block.network, offsetIn(own, prefix.network));
  return network === null ? null : asPrefix6(prefixOf(network, prefix.length));
}

/** Whether a subnet is routed on the internet and lies in none of some prefixes. */
const isOutside = (prefix: Prefix6, all: readonly Prefix6[]): boolean =>
  containsPrefix(GLOBAL, prefix) && !all.some((prefix6) => containsPrefix(prefix6, prefix));

/**
 * All subnets that lie in no line's prefix any more, moved into that of one line; none where two of them, or
 * one of them and one that is there already, would meet.
 */
function movesInto({ plan }: PlanIndex, block: Prefix6, stays: readonly Prefix6[]): Move[] {
  const all = [...plan.segment.values()].flatMap(({ id, prefixes6 }) =>
    prefixes6.map((prefix) => ({ id, prefix })),
  );
  const moves = all.flatMap(({ id, prefix: from }) => {
    const to = isOutside(from, stays) ? inBlock(from, block) : null;
    return to === null ? [] : [{ segment: id, from, to }];
  });
  const taken = all.filter(({ prefix }) => !isOutside(prefix, stays)).map(({ prefix }) => prefix);
  const meets = ({ to }: { readonly to: Prefix6 }, at: number) =>
    [...taken, ...moves.slice(0, at).map((move) => move.to)].some((other) => prefixesOverlap(other, to));
  return moves.some(meets) ? [] : moves;
}

/** Moves what lies outside into what a line delegates now. */
function moveInto(index: PlanIndex, block: Prefix6, stays: readonly Prefix6[]): Repair[] {
  const moves = movesInto(index, block, stays);
  const edit: Repair["edit"] = (edits) => renumber(edits, moves);
  // An address without a place in its new subnet refuses the whole: then it is not offered.
  if (moves.length === 0 || edit(new PlanEdits(index.plan), () => "") !== null) return [];
  return [
    {
      label:
        `Move ${counted(moves.length, "IPv6 subnet", "IPv6 subnets")} into ${formatPrefix(block)}, ` +
        "with the addresses in them and the exceptions for them",
      planner: "renumber",
      args: { moves: moves.length, into: formatPrefix(block) },
      edit,
    },
  ];
}

export const outsideDelegated = check<OutsideData>({
  code: "outside-delegated",
  severity: "stop",
  family: "gateway",
  title: "An IPv6 subnet lies outside what the lines delegate",
  why:
    "The provider sends what is for its prefix, and only that: answers to any other address never come back. " +
    "A prefix that has changed leaves a whole site like this.",
  reads: ["segment", "line"],
  find: (index) => {
    const all = delegatedBy(index);
    if (all.length === 0) return [];
    return [...index.plan.segment.values()]
      .filter(({ tunnel }) => tunnel === null)
      .flatMap((segment) =>
        segment.prefixes6
          .filter((own) =>
            isOutside(
              own,
              all.map(({ prefix }) => prefix),
            ),
          )
          .map((own): Found<OutsideData> => {
            const prefix = formatPrefix(own);
            const lines = all.map(({ line }) => line.id);
            return {
              subjects: [{ kind: "segment", id: segment.id }],
              data: { segment: segment.id, prefix, lines },
              apart: prefix,
            };
          }),
      );
  },
  describe: ({ segment, prefix, lines }, index) =>
    `${nameOf(index, "segment", segment)} has ${prefix}, and ` +
    `${listed(
      lines.map((id) => {
        const now = index.plan.line.get(id)?.delegated.prefix ?? null;
        return `${nameOf(index, "line", id)} delegates ${now === null ? "nothing" : formatPrefix(now)}`;
      }),
    )}.`,
  repairs: ({ lines }, index) => {
    const all = delegatedBy(index);
    const stays = all.map(({ prefix }) => prefix);
    return all
      .filter(({ line }) => lines.includes(line.id))
      .flatMap(({ prefix }) => moveInto(index, prefix, stays));
  },
});

interface SmallData {
  readonly line: string;
  readonly length: number;
  readonly wanted: number;
}

export const delegatedTooSmall = check<SmallData>({
  code: "delegated-too-small",
  severity: "warn",
  family: "gateway",
  title: "A delegated prefix has fewer subnets than there are segments with IPv6",
  why: "Every segment whose clients make their own addresses needs a /64 of its own (RFC 4862).",
  reads: ["segment", "line"],
  find: (index) => {
    const wanted = [...index.plan.segment.values()].filter(
      ({ tunnel, advertise }) => tunnel === null && advertise !== "none",
    ).length;
    return [...index.plan.line.values()].flatMap((line): Found<SmallData>[] => {
      const { length } = line.delegated;
      return length === null || wanted <= 2 ** (64 - length)
        ? []
        : [{ subjects: [{ kind: "line", id: line.id }], data: { line: line.id, length, wanted } }];
    });
  },
  describe: ({ line, length, wanted }, index) =>
    `${nameOf(index, "line", line)} delegates a /${length}: ` +
    `${counted(2 ** (64 - length), "subnet", "subnets")} of /64, ` +
    `and ${counted(wanted, "segment advertises", "segments advertise")} IPv6. ` +
    "Ask the provider for a shorter one.",
  repairs: () => [],
});

interface HangsData {
  readonly line: string;
  readonly what: readonly string[];
}

const inside = (prefix: Prefix6, address: Address): boolean => containsAddress(prefix, address);

/** What of the plan has addresses of a prefix in it that do not follow by themselves, in words. */
function hangingOn(index: PlanIndex, prefix: Prefix6): string[] {
  const { plan } = index;
  const named = (side: RuleSide) => side.at === "prefix" && containsPrefix(prefix, side.prefix);
  const typed = [...plan.host.values()].filter(
    ({ manner, ipv6 }) => manner === "typed" && ipv6 !== null && inside(prefix, ipv6),
  );
  const exceptions = [...plan.exception.values()].filter(({ from, to }) => named(from) || named(to));
  const rules = [...plan.rule.values()].filter(({ from, to }) => from.some(named) || to.some(named));
  const servers = [...new Set([...plan.segment.values()].flatMap(({ dns }) => dns))].filter((address) =>
    inside(prefix, address),
  );
  return [
    ...typed.map(({ name }) => `the static address of ${name}`),
    ...exceptions.map(({ name }) => `the exception ${name}`),
    ...(rules.length === 0 ? [] : [counted(rules.length, "rule on a device", "rules on devices")]),
    ...servers.map((address) => `the name server ${formatAddress(address)}`),
  ];
}

export const hangsOnPrefix = check<HangsData>({
  code: "hangs-on-prefix",
  severity: "warn",
  family: "gateway",
  title: "Something is written down by a prefix that the provider may change",
  why:
    "One day the line comes back with another prefix (RFC 8978): what clients make for themselves follows, " +
    "and what was typed in is lost. Addresses of the site's own (RFC 4193) stay.",
  reads: ["line", "host", "exception", "rule", "segment"],
  find: (index) =>
    delegatedBy(index).flatMap(({ line, prefix }): Found<HangsData>[] => {
      const what = line.delegated.keeps ? [] : hangingOn(index, prefix);
      return what.length === 0
        ? []
        : [{ subjects: [{ kind: "line", id: line.id }], data: { line: line.id, what } }];
    }),
  describe: ({ line, what }, index) => {
    const prefix = index.plan.line.get(line)?.delegated.prefix ?? null;
    const most = what.slice(0, 4);
    const more = what.length > most.length ? [`${what.length - most.length} more`] : [];
    return (
      `${nameOf(index, "line", line)} may change ` +
      `${prefix === null ? "its prefix" : formatPrefix(prefix)}, ` +
      `and ${listed([...most, ...more])} ${what.length === 1 ? "lies" : "lie"} in it.`
    );
  },
  repairs: ({ line }, index) => [
    {
      label: `Note that ${nameOf(index, "line", line)} always gives the same prefix, as the provider says`,
      planner: "set-line",
      args: { line, keeps: true },
      edit: (edits) =>
        edits.patch("line", line, { delegated: { ...edits.need("line", line).delegated, keeps: true } }),
    },
  ],
});
