import { byNaturalText, must } from "../kernel";
import { FABRIC } from "../fabric";
import { JOINS } from "../forwarding";
import { afterEdits, PlanEdits, type Device, type PlanIndex, type Port } from "../plan";
import { counted, type Repair } from "../repairs";
import { LOOPS, TREE } from "../spanning-tree";
import { portsInTrees } from "./tree-load";

/** One switch that goes over to multiple trees, and what its change does to the ports of all. */
export interface MigrationStep {
  readonly device: Device;
  /** Ports that forwarded some VLAN before the step and do not after it. */
  readonly blocks: readonly Port[];
  /** Ports that forward some VLAN after the step and did not before it. */
  readonly opens: readonly Port[];
}

/** The way from rapid to multiple trees. */
export interface Migration {
  readonly steps: readonly MigrationStep[];
  /** Whether no state in between has a loop or a split that neither the first nor the last has. */
  readonly isClean: boolean;
  /** What nobody can know here: switches with one tree per VLAN. */
  readonly unknown: readonly Device[];
  /** The region that all become. */
  readonly region: Pick<Device["tree"], "region" | "revision" | "instances">;
  readonly repair: Repair;
}

/** So many orders are tried before the last one tried is taken. */
const MOST_STATES = 400;

type Region = Migration["region"];

const goOver = (edits: PlanEdits, device: string, { region, revision, instances }: Region): void => {
  const { tree } = edits.need("device", device);
  const kept = new Map(tree.instances.map((instance) => [instance.number, instance.priority]));
  edits.patch("device", device, {
    tree: {
      ...tree,
      kind: "multiple",
      region,
      revision,
      instances: instances.map((instance) => ({
        ...instance,
        priority: kept.get(instance.number) ?? instance.priority,
      })),
    },
  });
};

function stateWith(index: PlanIndex, devices: readonly string[], region: Region): PlanIndex {
  if (devices.length === 0) return index;
  const edits = new PlanEdits(index.plan);
  for (const device of devices) goOver(edits, device, region);
  return must(afterEdits(index, edits), "trees can be set");
}

/**
 * What is wrong with a state: wires that close a loop, and which parts each VLAN falls into, as texts to
 * compare.
 */
function faultsOf(index: PlanIndex): Set<string> {
  const fabric = index.derived(FABRIC);
  const { nodes } = index.derived(JOINS);
  const found = new Set<string>();
  for (const { ports, vids } of index.derived(LOOPS))
    for (const vid of vids) found.add(`loop ${[...ports].sort().join(" ")} ${vid}`);
  for (const [at, vid] of nodes.vids.entries()) {
    const width = nodes.vids.length;
    const members = fabric.devices.flatMap((_, device) =>
      (fabric.bridgePortsOf[device] ?? []).some((port) => {
        const own = fabric.ports[port];
        return own !== undefined && [...own.untagged, ...own.tagged].some((carried) => carried === vid);
      })
        ? [device]
        : [],
    );
    const [first] = members;
    if (first === undefined) continue;
    const root = nodes.sets.rootOf(first * width + at);
    for (const device of members)
      if (nodes.sets.rootOf(device * width + at) !== root) found.add(`split ${vid} ${device}`);
  }
  return found;
}

/** Whether a port forwards every VLAN it carries, by its id. */
function forwarding(index: PlanIndex): Map<string, boolean> {
  const { discards, portNumber } = index.derived(TREE);
  return new Map(
    [...portsInTrees(index)].flatMap((id): [string, boolean][] => {
      const port = index.plan.port.get(id);
      const number = portNumber.get(id);
      if (port === undefined || number === undefined) return [];
      const vids = [...port.untagged, ...port.tagged];
      return [[id, vids.every((vid) => !discards(number, vid))]];
    }),
  );
}

function stepOf(index: PlanIndex, device: Device, before: PlanIndex, after: PlanIndex): MigrationStep {
  const [was, is] = [forwarding(before), forwarding(after)];
  const changed = (open: boolean): Port[] =>
    [...is].flatMap(([id, now]) =>
      now === open && was.get(id) === !open ? (index.plan.port.get(id) ?? []) : [],
    );
  return { device, blocks: changed(false), opens: changed(true) };
}

interface Search {
  readonly index: PlanIndex;
  readonly region: Region;
  readonly allowed: ReadonlySet<string>;
  /** Sets of switches from which there is no clean way on. */
  readonly dead: Set<string>;
  left: number;
}

const isClean = (search: Search, state: PlanIndex): boolean =>
  [...faultsOf(state)].every((fault) => search.allowed.has(fault));

/** An order of the rest whose states are all clean; null where there is none, or the search was called off. */
function cleanOrder(search: Search, done: readonly string[], rest: readonly string[]): string[] | null {
  if (rest.length === 0) return [];
  const key = [...done].sort().join(" ");
  if (search.dead.has(key)) return null;
  for (const next of rest) {
    if (search.left === 0) return null;
    search.left -= 1;
    const now = [...done, next];
    if (!isClean(search, stateWith(search.index, now, search.region))) continue;
    const others = cleanOrder(
      search,
      now,
      rest.filter((step) => step !== next),
    );
    if (others !== null) return [next, ...others];
  }
  search.dead.add(key);
  return null;
}

/**
 * The region that the site's switches become: that of one that is multiple already, else one with no
 * instances.
 */
function regionFor({ plan }: PlanIndex): Region {
  const known = [...plan.device.values()].find(
    ({ tree, bridging }) => bridging === "vlan" && tree.kind === "multiple",
  );
  const { region, revision, instances } = known?.tree ?? {
    region: plan.site.name.slice(0, 32).trim(),
    revision: 1,
    instances: [],
  };
  return { region, revision, instances: instances.map((instance) => ({ ...instance, priority: 32_768 })) };
}

/**
 * The way from rapid to multiple trees: an order of the switches in which no state in between has a loop or a
 * split that neither the first nor the last state has (IEEE 802.1Q clause 13), where one is found. From the
 * root outwards is tried first. Null where no switch runs a rapid tree that could run multiple ones.
 */
export function migration(index: PlanIndex): Migration | null {
  const { hopsOf } = index.derived(TREE);
  const devices = [...index.plan.device.values()].filter(({ bridging }) => bridging === "vlan");
  const going = devices
    .filter(({ tree, abilities }) => tree.kind === "rapid" && abilities.trees.includes("multiple"))
    .sort((a, b) => (hopsOf.get(a.id) ?? 0) - (hopsOf.get(b.id) ?? 0) || byNaturalText(a.name, b.name));
  if (going.length === 0) return null;
  const ids = going.map(({ id }) => id);
  const region = regionFor(index);
  const search: Search = {
    index,
    region,
    allowed: new Set([...faultsOf(index), ...faultsOf(stateWith(index, ids, region))]),
    dead: new Set(),
    left: MOST_STATES,
  };
  const found = cleanOrder(search, [], ids);
  const order = found ?? ids;
  const states = order.map((_, at) => stateWith(index, order.slice(0, at + 1), region));
  return {
    steps: order.flatMap((id, at) => {
      const [device, after] = [index.plan.device.get(id), states[at]];
      return device === undefined || after === undefined
        ? []
        : [stepOf(index, device, at === 0 ? index : (states[at - 1] ?? index), after)];
    }),
    isClean: found !== null,
    unknown: devices.filter(({ tree }) => tree.kind === "perVlan"),
    region,
    repair: {
      label: `Plan multiple trees on ${counted(going.length, "switch", "switches")}`,
      planner: "go-to-multiple-trees",
      args: { order, region: region.region },
      edit: (edits) => {
        for (const id of order) goOver(edits, id, region);
      },
    },
  };
}
