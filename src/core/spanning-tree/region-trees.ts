import type { Device, PlanIndex } from "../plan";
import type { Fabric } from "../fabric";
import { bridgeIn, treePortOf, type NamedTree, type Taking } from "./taking-part";
import { spanningTree, type Tree, type TreeBridge } from "./tree";

/**
 * The trees inside each region (section 13.10): only where all of a LAN is in the region; at its edge they do
 * as the common tree does, whose root port is their master port.
 */
export function regionTrees(index: PlanIndex, fabric: Fabric, common: Common): Map<string, NamedTree> {
  const regionOf = new Map(common.bridges.map((bridge) => [bridge.id, bridge.region]));
  const onLan = new Map<number, Set<string | null>>();
  for (const { lan, port } of common.taking)
    onLan.set(lan, (onLan.get(lan) ?? new Set()).add(regionOf.get(port.device) ?? null));
  const isInside = ({ lan }: Taking): boolean => onLan.get(lan)?.size === 1;
  const found = new Map<string, NamedTree>();
  for (const region of new Set([...regionOf.values()].filter((key) => key !== null))) {
    const devices = fabric.devices.filter((device) => regionOf.get(device.id) === region);
    const ports = common.taking.filter(({ port }) => regionOf.get(port.device) === region);
    const [first] = devices;
    for (const { number } of first?.tree.instances ?? []) {
      const inner = spanningTree(
        devices.map((device) => bridgeIn(index, device, priorityOfInstance(device, number))),
        ports.filter(isInside).map((taking) => treePortOf(index, taking, String(taking.lan))),
      );
      const edge = ports.filter((taking) => !isInside(taking)).map(({ port }) => port.id);
      found.set(`${region} ${number}`, {
        key: `region ${region} ${number}`,
        title: `${first?.tree.region === "" ? "Region" : `Region ${first?.tree.region}`}, tree ${number}`,
        tree: { ...inner, ports: withEdge(inner, common.tree, edge) },
      });
    }
  }
  return found;
}

/** What the common tree has come to: the bridges and ports that are in it, and how it stands. */
export interface Common {
  readonly bridges: readonly TreeBridge[];
  readonly taking: readonly Taking[];
  readonly tree: Tree;
}

/** A bridge's priority in an instance: as set there, else the usual one; the instance's number is added. */
const priorityOfInstance = (device: Device, number: number): number =>
  (device.tree.instances.find((instance) => instance.number === number)?.priority ?? 32_768) + number;

/** The inner tree's ports, and those at the region's edge as the common tree has them. */
function withEdge(inner: Tree, common: Tree, edge: readonly string[]): Tree["ports"] {
  const states = new Map(inner.ports);
  for (const id of edge) {
    const state = common.ports.get(id);
    if (state !== undefined) states.set(id, state.role === "root" ? { ...state, role: "master" } : state);
  }
  return states;
}
