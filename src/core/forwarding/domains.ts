import { must } from "../kernel";
import type { Derived, PlanIndex } from "../plan";
import { classify, egressTag, FABRIC } from "../fabric";
import { JOINS, type Joins } from "./joins";

/**
 * The broadcast domains in which it does not matter at which device a frame is sent: everybody who hears one
 * of them hears all.
 */
export class Domains {
  readonly #joins: Joins;
  /** The bridge ports of every wire that joins some. */
  readonly #between: readonly (readonly number[])[];
  /** By VLAN ID, whether no cable passes it one way only. */
  readonly #bothWays = new Map<number, boolean>();

  constructor(index: PlanIndex) {
    this.#joins = index.derived(JOINS);
    this.#between = this.#joins.fabric.wires.flatMap(({ bridgePorts }) =>
      bridgePorts.length > 1 ? [bridgePorts] : [],
    );
  }

  /**
   * A number that all devices of one such domain have in common; null where a VLAN leaks into another, or a
   * cable passes it one way only, or nothing carries it.
   */
  at(device: string, vid: number): number | null {
    const { fabric, nodes, crossings } = this.#joins;
    const [number, column] = [fabric.deviceNumber.get(device), nodes.number.get(vid)];
    if (crossings.length > 0 || number === undefined || column === undefined) return null;
    return this.#passesBothWays(vid) ? nodes.sets.rootOf(number * nodes.vids.length + column) : null;
  }

  #passesBothWays(vid: number): boolean {
    const known = this.#bothWays.get(vid);
    if (known !== undefined) return known;
    const isEven = this.#between.every((ports) =>
      ports.every((a) => ports.every((b) => a >= b || this.#passes(a, b, vid) === this.#passes(b, a, vid))),
    );
    this.#bothWays.set(vid, isEven);
    return isEven;
  }

  /** Whether a frame of the VLAN that leaves one port is taken in at another. */
  #passes(from: number, to: number, vid: number): boolean {
    const { fabric, tree } = this.#joins;
    const tag = egressTag(must(fabric.ports[from], "a compiled port"), vid);
    if (tag === undefined || tree.discards(from, vid) || tree.discards(to, vid)) return false;
    return classify(must(fabric.ports[to], "a compiled port"), tag) === vid;
  }
}

/** The broadcast domains of a plan, looked at as they are asked for. */
export const DOMAINS: Derived<Domains> = {
  reads: FABRIC.reads,
  make: (index) => new Domains(index),
};
