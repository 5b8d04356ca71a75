import { formatAddress, type Address } from "../../address";
import { equal } from "../../kernel";
import { nameOf, segmentHolding, type Line, type Pin, type PlanIndex } from "../../plan";
import { linesBeside, pinsText } from "../../planners";
import type { Repair } from "../../repairs";
import { noticesLoss } from "../../routing";
import { check, type Found } from "../check";
import { reserve } from "./forwards";

interface LineData {
  readonly line: string;
}

const subjectsOf = (...lines: readonly Line[]) => lines.map(({ id }) => ({ kind: "line" as const, id }));
const foundAt = (line: Line): Found<LineData> => ({ subjects: subjectsOf(line), data: { line: line.id } });

/** The orders of failover with more than one line, each once. */
function orders(index: PlanIndex): Line[][] {
  const seen = new Set<string>();
  return [...index.plan.line.values()].flatMap((line) => {
    if (seen.has(line.id)) return [];
    const beside = linesBeside(index, line.id);
    for (const { id } of beside) seen.add(id);
    return beside.length > 1 ? [beside] : [];
  });
}

const setLine = (label: string, line: Line, fields: Partial<Line>): Repair => ({
  label,
  planner: "set-line",
  args: { line: line.id },
  edit: (edits) => edits.patch("line", line.id, fields),
});

interface ShareData {
  readonly first: string;
  readonly sum: number;
}

export const lineShares = check<ShareData>({
  code: "line-shares",
  severity: "warn",
  family: "gateway",
  title: "The shares of the lines do not add up to 100 %",
  why: "What each line carries is then the device's own guess, not what was planned.",
  reads: ["line", "interface"],
  find: (index) =>
    orders(index).flatMap((lines): Found<ShareData>[] => {
      const sharing = lines.filter(({ share }) => share > 0);
      const sum = sharing.reduce((all, { share }) => all + share, 0);
      const [first] = lines;
      const fits = sharing.length === 0 || (first !== undefined && first.share > 0 && sum === 100);
      return fits || first === undefined
        ? []
        : [{ subjects: subjectsOf(...lines), data: { first: first.id, sum } }];
    }),
  describe: ({ first, sum }, index) => {
    const name = nameOf(index, "line", first);
    return index.plan.line.get(first)?.share === 0
      ? `Other lines have shares of ${sum} % together, and ${name}, the first in the order, has none: ` +
          "it carries everything."
      : `The shares of ${linesBeside(index, first)
          .filter(({ share }) => share > 0)
          .map((line) => `${line.name} (${line.share} %)`)
          .join(", ")} add up to ${sum} %.`;
  },
  repairs: ({ first }, index) => {
    const lines = linesBeside(index, first);
    const line = index.plan.line.get(first);
    const others = lines.reduce((all, { id, share }) => all + (id === first ? 0 : share), 0);
    const none: Repair = {
      label: "Take all shares off: the first line that works carries everything",
      planner: "set-line",
      args: { lines: lines.map(({ id }) => id) },
      edit: (edits) => {
        for (const { id, share } of lines) if (share > 0) edits.patch("line", id, { share: 0 });
      },
    };
    const rest =
      line === undefined || others === 0 || others >= 100
        ? []
        : [setLine(`Give ${line.name} the ${100 - others} % that are left`, line, { share: 100 - others })];
    return [...rest, none];
  },
});

/** Addresses at the provider's that a line can be asked by: its name servers, else its router. */
function targetsOf({ dns, nextHop4 }: Line): Address[] {
  if (dns.length > 0) return dns.slice(0, 2);
  return nextHop4 === null ? [] : [nextHop4];
}

export const lineLossUnseen = check<LineData>({
  code: "line-loss-unseen",
  severity: "warn",
  family: "gateway",
  title: "The loss of a line is not noticed",
  why: "The gateway goes on sending into it, and the next line in the order never takes over.",
  reads: ["line", "interface"],
  find: (index) =>
    orders(index).flatMap((lines) =>
      // The last in the order has none behind it that could take over, unless it shares.
      lines
        .filter((line, at) => !noticesLoss(line) && (at < lines.length - 1 || line.share > 0))
        .map(foundAt),
    ),
  describe: ({ line }, index) => {
    const own = index.plan.line.get(line);
    const name = nameOf(index, "line", line);
    return own?.watch.by === "target"
      ? `${name} is watched by targets, and none is named.`
      : `${name} is watched by its cable, which the provider's box keeps up when the line behind it is gone.`;
  },
  repairs: ({ line }, index) => {
    const own = index.plan.line.get(line);
    const targets = own === undefined ? [] : targetsOf(own);
    return own === undefined || targets.length === 0
      ? []
      : [
          setLine(`Watch ${targets.map(formatAddress).join(", ")} by ${own.name}`, own, {
            watch: { ...own.watch, by: "target", targets: [...targets] },
          }),
        ];
  },
});

interface TargetData extends LineData {
  readonly target: Address;
}

export const lineTargetInside = check<TargetData>({
  code: "line-target-inside",
  severity: "warn",
  family: "gateway",
  title: "A target that a line is watched by lies inside",
  why: "It goes on answering when the line is gone, so the next one never takes over.",
  reads: ["line", "segment", "interface"],
  find: (index) =>
    [...index.plan.line.values()].flatMap((line) =>
      line.watch.by === "link"
        ? []
        : line.watch.targets
            .filter((target) => isInside(index, target))
            .map((target): Found<TargetData> => ({
              subjects: subjectsOf(line),
              data: { line: line.id, target },
              apart: formatAddress(target),
            })),
    ),
  describe: ({ line, target }, index) =>
    `${nameOf(index, "line", line)} is watched by ${formatAddress(target)}, which is ` +
    `${segmentHolding(index.plan, target)?.name ?? "an address of our own gear"}: it answers without the line.`,
  repairs: ({ line, target }, index) => {
    const own = index.plan.line.get(line);
    return own === undefined
      ? []
      : [
          setLine(`Take ${formatAddress(target)} off the targets of ${own.name}`, own, {
            watch: { ...own.watch, targets: own.watch.targets.filter((address) => address !== target) },
          }),
        ];
  },
});

const isInside = (index: PlanIndex, address: Address): boolean =>
  segmentHolding(index.plan, address) !== null || index.groups("interfacesByAddress").has(address);

interface PinData {
  readonly kept: string;
  readonly other: string;
  readonly pin: Pin;
}

const samePin = (a: Pin, b: Pin): boolean => equal({ ...a, orElse: "" }, { ...b, orElse: "" });

export const linePinsClash = check<PinData>({
  code: "line-pins-clash",
  severity: "warn",
  family: "gateway",
  title: "The same is pinned to two lines",
  why: "It goes by the one that comes first in the order; what was meant with the other is not said.",
  reads: ["line", "interface", "segment", "host"],
  find: (index) =>
    orders(index).flatMap((lines) =>
      lines.flatMap((other, at) =>
        other.pins.flatMap((pin, place): Found<PinData>[] => {
          const kept = lines.slice(0, at).find(({ pins }) => pins.some((other) => samePin(other, pin)));
          return kept === undefined
            ? []
            : [
                {
                  subjects: subjectsOf(kept, other),
                  data: { kept: kept.id, other: other.id, pin },
                  apart: String(place),
                },
              ];
        }),
      ),
    ),
  describe: ({ kept, other, pin }, index) =>
    `${pinsText(index, [{ ...pin, orElse: "next" }])} is pinned to ${nameOf(index, "line", kept)} and to ` +
    `${nameOf(index, "line", other)}.`,
  repairs: ({ kept, other, pin }, index) =>
    [kept, other].flatMap((id): Repair[] => {
      const line = index.plan.line.get(id);
      const beside = id === kept ? other : kept;
      return line === undefined
        ? []
        : [
            setLine(`Pin it to ${nameOf(index, "line", beside)} only`, line, {
              pins: line.pins.filter((other) => !samePin(other, pin)),
            }),
          ];
    }),
});

interface PinnedHost extends LineData {
  readonly host: string;
}

export const linePinMoves = check<PinnedHost>({
  code: "line-pin-moves",
  severity: "warn",
  family: "gateway",
  title: "A device that is pinned to a line has no fixed address",
  why: "The gateway knows senders by their address: with another one it goes by any line.",
  reads: ["line", "host"],
  find: ({ plan }) =>
    [...plan.line.values()].flatMap((line) =>
      line.pins.flatMap((pin): Found<PinnedHost>[] => {
        const host = pin.what === "host" ? plan.host.get(pin.host) : undefined;
        return host === undefined || (host.manner !== "dynamic" && host.ipv4 !== null)
          ? []
          : [
              {
                subjects: [...subjectsOf(line), { kind: "host", id: host.id }],
                data: { line: line.id, host: host.id },
              },
            ];
      }),
    ),
  describe: ({ line, host }, index) =>
    `${nameOf(index, "host", host)} is pinned to ${nameOf(index, "line", line)} and gets its address by DHCP ` +
    "without a reservation.",
  repairs: ({ host, line }, index) => {
    const own = index.plan.line.get(line);
    return [
      ...reserve(index, host),
      ...(own === undefined
        ? []
        : [
            setLine(`Take ${nameOf(index, "host", host)} off the pins of ${own.name}`, own, {
              pins: own.pins.filter((pin) => pin.what !== "host" || pin.host !== host),
            }),
          ]),
    ];
  },
});

/** Lines by which something comes in at an address that may move, and no name follows it. */
export const lineWithoutName = check<LineData>({
  code: "line-without-name",
  severity: "note",
  family: "gateway",
  title: "What is forwarded is asked by an address that may move",
  why: "A name that follows the line (dynamic DNS) is what is told to those who ask from outside.",
  reads: ["line", "forward"],
  find: ({ plan }) => {
    const forwarded = new Set([...plan.forward.values()].map(({ line }) => line));
    return [...plan.line.values()]
      .filter(
        (line) =>
          forwarded.has(line.id) &&
          line.addressing !== "fixed" &&
          line.carrierNat !== "yes" &&
          line.dynamicName.name === "",
      )
      .map(foundAt);
  },
  describe: ({ line }, index) =>
    `${nameOf(index, "line", line)} gets its outside address by ` +
    `${index.plan.line.get(line)?.addressing === "login" ? "login" : "DHCP"}, things are forwarded from it, ` +
    "and no name follows it.",
  repairs: () => [],
});
