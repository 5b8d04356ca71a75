import { must } from "../kernel";
import type { Operation } from "./operations";
import {
  asOrder,
  BLIND,
  isByHand,
  placeAfter,
  standAt,
  standsFor,
  stepCost,
  type Node,
  type Order,
  type Site,
  type Taken,
} from "./order";
import { isCabled } from "./reach";
import type { State } from "./states";

/** Nodes by cost, the cheapest first. */
class Queue {
  readonly #byCost = new Map<number, Node[]>();

  add(node: Node): void {
    const same = this.#byCost.get(node.cost);
    if (same === undefined) this.#byCost.set(node.cost, [node]);
    else same.push(node);
  }

  take(): Node | null {
    if (this.#byCost.size === 0) return null;
    const cost = Math.min(...this.#byCost.keys());
    const nodes = must(this.#byCost.get(cost), "nodes of that cost");
    const node = must(nodes.pop(), "no empty list is kept");
    if (nodes.length === 0) this.#byCost.delete(cost);
    return node;
  }
}

/** What one operation leads to from a node, for each port at which it can be done and looked at. */
function* branches(site: Site, node: Node, operation: Operation): Generator<Node> {
  const state = site.states.after(node.state, operation);
  if (state === null) return;
  const { device } = operation;
  const before = isByHand(operation)
    ? ["by hand" as const]
    : [...standsFor(site, node.state, device, node.at)];
  for (const stand of before.length === 0 ? [null] : before) {
    const at = placeAfter(node.at, stand);
    const stays = at === null ? null : site.states.way(state, at, device);
    const after =
      at !== null && stays !== null ? [standAt(at, stays)] : [...standsFor(site, state, device, at)];
    const cost = node.cost + stepCost(site, node.at, stand);
    for (const seen of after.length === 0 ? [null] : after)
      yield {
        state,
        at: placeAfter(at, seen),
        cost: cost + stepCost(site, at, seen),
        from: node,
        taken: { operation, before: stand, after: seen, regains: null, state },
      };
    if (after.some((seen) => seen !== null && !isCabled(site.spots, seen.port))) continue;
    const taken: Taken = { operation, before: stand, after: "next", regains: null, state };
    yield* regaining(site, { state, at, cost: cost + BLIND, from: node, taken }, device);
  }
}

/** What brings a device back that the operation before has cut off: one operation on another one. */
function* regaining(site: Site, node: Node, lost: string): Generator<Node> {
  for (const operation of site.states.next(node.state)) {
    const { device } = operation;
    const state = device === lost || isByHand(operation) ? null : site.states.after(node.state, operation);
    if (state === null) continue;
    for (const before of standsFor(site, node.state, device, node.at))
      for (const after of standsFor(site, state, device, placeAfter(node.at, before)))
        for (const stand of standsFor(site, state, lost, placeAfter(node.at, after)))
          if (stand !== null)
            yield {
              state,
              at: stand.port,
              cost:
                node.cost +
                stepCost(site, node.at, before) +
                stepCost(site, placeAfter(node.at, before), after) +
                stepCost(site, placeAfter(node.at, after), stand),
              from: node,
              taken: { operation, before, after, regains: { device: lost, stand }, state },
            };
  }
}

/** The cheapest order of all, every state and port tried once (Dijkstra); null where no order does it all. */
export function cheapest(site: Site, start: State): Order | null {
  const queue = new Queue();
  const seen = new Set<string>();
  queue.add({ state: start, at: null, cost: 0, from: null, taken: null });
  for (let node = queue.take(); node !== null; node = queue.take()) {
    const key = `${node.state.key} ${node.at ?? ""}`;
    if (seen.has(key)) continue;
    seen.add(key);
    if (node.state.count === site.states.operations.length)
      return asOrder(start, node, { isExhaustive: true, looked: seen.size });
    for (const operation of site.states.next(node.state))
      for (const next of branches(site, node, operation)) queue.add(next);
  }
  return null;
}
