import type { PlanIndex } from "../plan";
import { TREE, treeIn, type PlanTree } from "../spanning-tree";
import { carriedVids, joinNodes, JOINS } from "../forwarding";
import { FABRIC } from "../fabric";
import { concerned, concernedBy, everybody, type Concerned } from "./concerned";
import { cutOff, rootsIn, type Gone, type Standing } from "./cut-off";
import { cutsOf, gearFabric, planWithout, without, type Cuts } from "./fabric-without";
import { darkAfter, type Dark, type Failure } from "./kinds";
import { lookIn, NO_NETWORK, placedHosts, servedIn, type Has, type Placed, type Served } from "./look";
import type { State } from "./state";
import { isInStorm, stormIn } from "./storm";

/** Who loses what when something fails: hosts by id, only those that had it before. */
export interface Loss {
  readonly failures: readonly Failure[];
  /** What it hangs on is dark or cut. */
  readonly cutOff: readonly string[];
  /** Connected, but not to its gateway. */
  readonly noGateway: readonly string[];
  /** Its DHCP server does not hear it: it goes on until its lease ends. */
  readonly noAddress: readonly string[];
  readonly noInternet: readonly string[];
  /** Ports that stood by and take over. */
  readonly takeOver: readonly string[];
  /** VLANs in which frames go round from then on: nothing works in them any more. */
  readonly storms: readonly number[];
}

/** Hosts that are cut off or without their gateway: what failures are ranked by. */
export const lostCount = ({ cutOff, noGateway }: Loss): number => cutOff.length + noGateway.length;

/** Hosts that lose anything at all: only a failure with none of them does no harm. */
export const harmedCount = ({ cutOff, noGateway, noAddress, noInternet }: Loss): number =>
  new Set([...cutOff, ...noGateway, ...noAddress, ...noInternet]).size;

/** A port of a tree that stood by: the tree's key and the port. */
type StandBy = readonly [tree: string, port: string];

const standBys = ({ named }: PlanTree): StandBy[] =>
  named.flatMap(({ key, tree }) =>
    [...tree.ports].flatMap(([id, { role }]): StandBy[] =>
      role === "alternate" || role === "backup" ? [[key, id]] : [],
    ),
  );

/** The ports that stood by and forward now, each as often as there are trees in which it does. */
function takingOver(before: readonly StandBy[], { named }: PlanTree): string[] {
  const trees = new Map(named.map(({ key, tree }) => [key, tree]));
  return before.flatMap(([key, id]) => {
    const role = trees.get(key)?.ports.get(id)?.role;
    return role === undefined || role === "alternate" || role === "backup" ? [] : [id];
  });
}

const NOTHING: Dark = { devices: new Set(), cables: new Set(), lines: new Set() };

/** Tries failures on a plan, one after another. What is the same for all of them is worked out once. */
export class FailureStudy {
  readonly #index: PlanIndex;
  readonly #base: State;
  readonly #standing: Standing;
  readonly #cuts: Cuts;
  readonly #hosts: readonly Placed[];
  readonly #served: Served;
  readonly #had: readonly Has[];
  readonly #concerned: Concerned;
  readonly #standBys: readonly StandBy[];

  constructor(index: PlanIndex) {
    const fabric = index.derived(FABRIC);
    const tree = index.derived(TREE);
    const { nodes, crossings } = index.derived(JOINS);
    this.#index = index;
    this.#base = { index, fabric, tree, nodes };
    this.#standing = {
      gear: gearFabric(fabric),
      tree,
      vids: carriedVids(fabric),
      crossings,
      roots: rootsIn(fabric, tree),
    };
    this.#cuts = cutsOf(index, fabric);
    this.#hosts = placedHosts(this.#base);
    this.#served = servedIn(this.#base);
    this.#had = this.#hosts.map(lookIn(this.#base, NOTHING, this.#served));
    this.#concerned = concernedBy(this.#base, this.#hosts, this.#served);
    this.#standBys = standBys(tree);
  }

  /** Whether taking something out of the fabric is enough; else the plan is compiled anew without it. */
  #isSimple({ devices, cables }: Dark): boolean {
    return (
      [...devices].every((id) => !this.#cuts.plain.has(id)) &&
      [...cables].every((id) => this.#cuts.alone.has(id) || !this.#cuts.wireOfCable.has(id))
    );
  }

  #stateWithout(dark: Dark): State {
    if (dark.devices.size === 0 && dark.cables.size === 0) return this.#base;
    if (!this.#isSimple(dark)) {
      const index = planWithout(this.#index, dark);
      return {
        index,
        fabric: index.derived(FABRIC),
        tree: index.derived(TREE),
        nodes: index.derived(JOINS).nodes,
      };
    }
    const wires = new Set([...dark.cables].flatMap((id) => this.#cuts.wireOfCable.get(id) ?? []));
    const fabric = without(this.#standing.gear, dark.devices, wires);
    const tree = treeIn(this.#index, fabric);
    return { index: this.#index, fabric, tree, nodes: joinNodes(fabric, tree, this.#standing.vids).nodes };
  }

  /** The one thing between gear that is dark; null when it is none, more, or not simple. */
  #goneBy(dark: Dark): Gone | null {
    const [device] = dark.devices;
    const [cable] = dark.cables;
    if (dark.devices.size + dark.cables.size !== 1 || dark.lines.size > 0 || !this.#isSimple(dark))
      return null;
    const number = this.#base.fabric.deviceNumber.get(device ?? "");
    if (number !== undefined) return { device: number };
    const wire = this.#cuts.wireOfCable.get(cable ?? "");
    return wire === undefined ? null : { wire };
  }

  /** Who loses what when all of these fail at once. */
  fail(failures: readonly Failure[]): Loss {
    const dark = darkAfter(this.#index, failures);
    const gone = this.#goneBy(dark);
    const isStrand = failures.some(({ what }) => what === "strand");
    const split = gone === null || isStrand ? null : cutOff(this.#standing, gone);
    if (split === null) return this.failAnew(failures);
    const { devices } = this.#base.fabric;
    const gear = [...split.devices].flatMap((number) => devices[number]?.id ?? []);
    const who = concerned(this.#concerned, [...dark.devices, ...gear]);
    const look = lookIn({ ...this.#base, split }, dark, this.#served);
    // What is cut off has no way round, and the rest stays as it is: nothing that stood by takes over.
    return { ...this.#lossOf(failures, this.#hosts, who, look), takeOver: [], storms: [] };
  }

  /** The same by settling the whole network anew, which is slow: what `fail` is held to. */
  failAnew(failures: readonly Failure[]): Loss {
    const dark = darkAfter(this.#index, failures);
    const state = this.#stateWithout(dark);
    const isAnew = state.index !== this.#index;
    const hosts = isAnew ? placedHosts(state) : this.#hosts;
    const look = lookIn(state, dark, isAnew ? servedIn(state) : this.#served);
    const takeOver = state === this.#base ? [] : takingOver(this.#standBys, state.tree);
    const storm = stormIn(state, failures);
    const has = (placed: Placed): Has => (isInStorm(state, storm, placed.spot) ? NO_NETWORK : look(placed));
    const loss = this.#lossOf(failures, hosts, everybody(hosts), has);
    return { ...loss, takeOver, storms: storm.map(({ vid }) => vid) };
  }

  #lossOf(
    failures: readonly Failure[],
    hosts: readonly Placed[],
    who: readonly number[],
    look: (placed: Placed) => Has,
  ): Omit<Loss, "takeOver" | "storms"> {
    const cutOff: string[] = [];
    const noGateway: string[] = [];
    const noAddress: string[] = [];
    const noInternet: string[] = [];
    for (const i of who) {
      const [placed, had] = [hosts[i], this.#had[i]];
      if (placed === undefined || had === undefined) continue;
      const { id } = placed.host;
      const has = look(placed);
      if (had.on && !has.on) {
        cutOff.push(id);
        continue;
      }
      if (had.gateway && !has.gateway) noGateway.push(id);
      if (had.address && !has.address) noAddress.push(id);
      if (had.internet && !has.internet) noInternet.push(id);
    }
    return { failures, cutOff, noGateway, noAddress, noInternet };
  }
}
