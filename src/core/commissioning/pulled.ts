import { must, putInto } from "../kernel";
import { afterEdits, nameOf, PlanEdits, type Link, type PlanIndex } from "../plan";
import { TREE } from "../spanning-tree";
import type { Fact } from "./fact";
import type { Pulled, SiteTest } from "./tests";

/** The ports that a line's cable is in. */
const portsOfLine = (index: PlanIndex, line: string): string[] =>
  [...index.plan.interface.values()].flatMap((leg) =>
    leg.line === line && leg.port !== null ? [leg.port] : [],
  );

/** The site while something is pulled out. */
export function withoutPulled(index: PlanIndex, { what, id }: Pulled): PlanIndex {
  const edits = new PlanEdits(index.plan);
  if (what === "link" && edits.get("link", id) !== undefined) edits.remove("link", id);
  if (what === "line")
    for (const port of portsOfLine(index, id)) edits.patch("port", port, { enabled: false });
  if (what === "servers")
    for (const server of index.plan.signIn.get(id)?.servers ?? [])
      if (edits.get("host", server) !== undefined)
        edits.patch("host", server, { attachment: { at: "unplaced" } });
  return edits.changes().length === 0 ? index : must(afterEdits(index, edits), "what is pulled out can be");
}

/** A test, or why there is none. */
export type Tried = { readonly test: SiteTest } | { readonly fact: string; readonly why: string };

export const spareFact = (link: string): string => `spare ${link}`;
export const failoverFact = (line: string): string => `failover ${line}`;

/** Gear at the two ends of a cable. */
const endsOf = (index: PlanIndex, { a, b }: Link): readonly [string, string] => [
  index.plan.port.get(a)?.device ?? "",
  index.plan.port.get(b)?.device ?? "",
];

/**
 * Cables without which the gear at their ends still hangs together: those that lie on some ring of bridges of
 * a tree, or are one with others (found by one walk, as the edges that are no bridges of the graph).
 */
export function cablesOnRings(index: PlanIndex): Link[] {
  const { rootOf } = index.derived(TREE);
  const isOneWithOthers = ({ a, b }: Link) =>
    [a, b].every((port) => (index.plan.port.get(port)?.lag ?? null) !== null);
  const links = [...index.plan.link.values()].filter(
    (link) => isOneWithOthers(link) || endsOf(index, link).every((end) => rootOf.has(end)),
  );
  const around = new Map<string, { readonly link: Link; readonly to: string }[]>();
  for (const link of links) {
    const [a, b] = endsOf(index, link);
    for (const [from, to] of [
      [a, b],
      [b, a],
    ] as const)
      putInto(around, from, { link, to });
  }
  const alone = bridgesOf(around);
  return links.filter(({ id }) => !alone.has(id));
}

/** The edges of a graph without which it falls apart, by the cables' ids (Tarjan), walked without recursion. */
function bridgesOf(
  around: ReadonlyMap<string, readonly { readonly link: Link; readonly to: string }[]>,
): Set<string> {
  const [order, low] = [new Map<string, number>(), new Map<string, number>()];
  const found = new Set<string>();
  for (const start of around.keys()) {
    if (order.has(start)) continue;
    const stack: { readonly at: string; readonly by: string; next: number }[] = [
      { at: start, by: "", next: 0 },
    ];
    order.set(start, order.size);
    low.set(start, order.size - 1);
    for (let top = stack.at(-1); top !== undefined; top = stack.at(-1)) {
      const edge = around.get(top.at)?.[top.next];
      top.next += 1;
      if (edge === undefined) {
        stack.pop();
        const above = stack.at(-1);
        if (above !== undefined) {
          const own = low.get(top.at) ?? 0;
          if (own > (order.get(above.at) ?? 0)) found.add(top.by);
          low.set(above.at, Math.min(low.get(above.at) ?? 0, own));
        }
      } else if (edge.link.id !== top.by) {
        const known = order.get(edge.to);
        if (known === undefined) {
          order.set(edge.to, order.size);
          low.set(edge.to, order.size - 1);
          stack.push({ at: edge.to, by: edge.link.id, next: 0 });
        } else low.set(top.at, Math.min(low.get(top.at) ?? 0, known));
      }
    }
  }
  return found;
}

/** Lines that another could take over from. */
export const linesWithOthers = (index: PlanIndex) => {
  const lines = [...index.plan.line.values()].filter(({ id }) => portsOfLine(index, id).length > 0);
  return lines.length < 2 ? [] : lines;
};

/** What has to go on when something is pulled out. */
export const pulledFacts = (index: PlanIndex): Fact[] => [
  ...cablesOnRings(index).map(({ id }): Fact => ({
    id: spareFact(id),
    kind: "spare",
    words: `It goes on without ${nameOf(index, "link", id)}`,
    shownOn: null,
  })),
  ...linesWithOthers(index).map(({ id, name }): Fact => ({
    id: failoverFact(id),
    kind: "failover",
    words: `The internet is there without ${name}`,
    shownOn: null,
  })),
];
