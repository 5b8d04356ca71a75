import { equal } from "../kernel";
import type { Change, Derived, Device, Interface, PlanIndex, Port } from "../plan";
import { FABRIC, type Fabric } from "../fabric";
import { addressNumber, UNKNOWN_ADDRESS } from "./bridge-address";
import { regionKey, treeByVid } from "./region";
import { regionTrees, type Common } from "./region-trees";
import { bridgeIn, isForwarding, takingPart, treePortOf, type NamedTree, type Taking } from "./taking-part";
import { spanningTree, type Tree } from "./tree";
import { vlanTrees } from "./vlan-trees";

/** The trees of the plan's gear; as a tree itself it is the common one. */
export interface PlanTree extends Tree {
  readonly named: readonly NamedTree[];
  /** Devices whose identifier is not settled, since their MAC address is not known. */
  readonly unknownAddress: ReadonlySet<string>;
  /** Ports shut by a BPDU guard: they hear gear that takes part in a tree. */
  readonly shut: ReadonlySet<string>;
  /**
   * Pairs of ports at one LAN whose gear runs kinds of tree that do not know one another: not simulated, both
   * forward.
   */
  readonly mixed: readonly (readonly [a: Port, b: Port])[];
  /** Whether a bridge port (by its number in the fabric) neither sends nor takes frames of a VLAN. */
  readonly discards: (port: number, vid: number) => boolean;
  /** Whether any port discards anything. */
  readonly anywhere: boolean;
  /** The numbers of ports that `discards` goes by, and the wires that they were at. */
  readonly portNumber: Fabric["portNumber"];
  readonly wires: Fabric["wires"];
}

/**
 * The trees that a fabric comes to; a failure study asks it of fabrics with parts gone. In passes: who takes
 * part, the common tree, each region's, each VLAN's, and what of it each port discards.
 */
export function treeIn(index: PlanIndex, fabric: Fabric): PlanTree {
  const runs = fabric.devices.map((device) => device.bridging === "vlan" && device.tree.kind !== "none");
  const all = takingPart(fabric, runs);
  const shut = new Set(all.filter(({ port }) => port.guards.bpduGuard).map(({ port }) => port.id));
  const taking = all.filter(({ port }) => !shut.has(port.id));
  const isPerVlan = (device: number) => fabric.devices[device]?.tree.kind === "perVlan";
  const common = commonTree(
    index,
    fabric.devices.filter((_, i) => runs[i] === true && !isPerVlan(i)),
    taking.filter(({ device }) => !isPerVlan(device)),
  );
  const regions = regionTrees(index, fabric, common);
  const vlans = vlanTrees(
    index,
    fabric,
    taking.filter(({ device }) => isPerVlan(device)),
  );
  const discarding = discardingAll(fabric, all, shut, common.tree);
  const byVid = discardingByVid(fabric, taking, common, { regions, vlans });
  return {
    ...common.tree,
    shut,
    mixed: mixedPairs(taking, isPerVlan),
    unknownAddress: new Set(
      fabric.devices
        .filter((device, i) => runs[i] === true && addressNumber(index, device) === UNKNOWN_ADDRESS)
        .map((device) => device.id),
    ),
    named: [
      { key: "common", title: "Common tree", tree: common.tree },
      ...regions.values(),
      ...vlans.values(),
    ],
    discards:
      byVid.size === 0
        ? (port) => discarding[port] === 1
        : (port, vid) => byVid.get(port)?.get(vid) ?? discarding[port] === 1,
    portNumber: fabric.portNumber,
    wires: fabric.wires,
    anywhere: byVid.size > 0 || discarding.includes(1),
  };
}

function commonTree(index: PlanIndex, devices: readonly Device[], taking: readonly Taking[]): Common {
  const bridges = devices.map((device) =>
    bridgeIn(index, device, device.tree.priority, device.tree.kind === "multiple" ? regionKey(device) : null),
  );
  const ports = taking.map((taking) => treePortOf(index, taking, String(taking.lan)));
  return { bridges, taking, tree: spanningTree(bridges, ports) };
}

/** By port number, 1 where it neither sends nor takes whatever no tree of a region or a VLAN says. */
function discardingAll(
  fabric: Fabric,
  all: readonly Taking[],
  shut: ReadonlySet<string>,
  tree: Tree,
): Uint8Array {
  const discarding = new Uint8Array(fabric.ports.length);
  for (const { port, number } of all) {
    const state = tree.ports.get(port.id);
    if (shut.has(port.id) || (state !== undefined && !isForwarding(state))) discarding[number] = 1;
  }
  return discarding;
}

/** What the trees of regions and VLANs say of a port and a VLAN. */
type DiscardingByVid = ReadonlyMap<number, ReadonlyMap<number, boolean>>;

function discardingByVid(
  fabric: Fabric,
  taking: readonly Taking[],
  common: Common,
  {
    regions,
    vlans,
  }: { readonly regions: ReadonlyMap<string, NamedTree>; readonly vlans: ReadonlyMap<number, NamedTree> },
): DiscardingByVid {
  const byVid = new Map<number, Map<number, boolean>>();
  const settle = ({ number, port }: Taking, vid: number, tree: Tree | undefined) => {
    const state = tree?.ports.get(port.id);
    if (state === undefined) return;
    const own = byVid.get(number) ?? new Map<number, boolean>();
    byVid.set(number, own.set(vid, !isForwarding(state)));
  };
  for (const taking of common.taking) {
    const device = fabric.devices[taking.device];
    if (device?.tree.kind !== "multiple") continue;
    const region = regionKey(device);
    for (const [vid, instance] of treeByVid(device))
      settle(taking, vid, regions.get(`${region} ${instance}`)?.tree);
  }
  for (const [vid, { tree }] of vlans) for (const taken of taking) settle(taken, vid, tree);
  return byVid;
}

function mixedPairs(taking: readonly Taking[], isPerVlan: (device: number) => boolean): [Port, Port][] {
  const first = new Map<number, Taking>();
  const pairs: [Port, Port][] = [];
  for (const taken of taking) {
    const other = first.get(taken.lan);
    if (other === undefined) first.set(taken.lan, taken);
    else if (isPerVlan(other.device) !== isPerVlan(taken.device)) pairs.push([other.port, taken.port]);
  }
  return pairs;
}

const treePart = ({
  device,
  label,
  position,
  speedMbps,
  optic,
  medium,
  lag,
  enabled,
  treePriority,
  treeCost,
  guards,
}: Port): unknown => [
  device,
  label,
  position,
  speedMbps,
  optic,
  medium,
  lag,
  enabled,
  treePriority,
  treeCost,
  guards.bpduGuard,
  guards.restrictedRole,
];
const deviceTreePart = ({ bridging, tree, bridgeMac }: Device): unknown => [bridging, tree, bridgeMac];

/** Whether a port hears no other gear: no tree's frames come or go there, whatever is set at it. */
function isAlone({ wires }: PlanTree, fabric: Fabric, port: Port): boolean {
  const number = fabric.portNumber.get(port.id);
  const wire = number === undefined ? undefined : fabric.wires[fabric.wireOf[number] ?? -1];
  return fabric.wires === wires && wire !== undefined && wire.bridgePorts.length < 2;
}

/** Whether a leg is inside its device, and says nothing of a MAC address, as far as it is there. */
const isSilent = (leg: Interface | null): boolean => leg === null || (leg.port === null && leg.mac === null);

/** Whether an edit leaves the trees as they are, where no VLAN has one of its own. */
function leavesTrees(previous: PlanTree, index: PlanIndex, change: Change): boolean {
  const { kind, before, after } = change;
  if (kind === "host" || !TREE.reads.includes(kind)) return true;
  if (kind === "interface") return isSilent(before) && isSilent(after);
  if (before === null || after === null) return false;
  if (kind === "device") return equal(deviceTreePart(before), deviceTreePart(after));
  return (
    kind === "port" &&
    before.device === after.device &&
    (equal(treePart(before), treePart(after)) || isAlone(previous, index.derived(FABRIC), after))
  );
}

/**
 * Edits of membership, names, addresses and what is plugged in leave the trees as they are, except where each
 * VLAN has its own.
 */
function follow(previous: PlanTree, index: PlanIndex, changes: readonly Change[]): PlanTree | null {
  const perVlan = previous.named.some(({ key }) => key.startsWith("VLAN"));
  const isSame = (change: Change) =>
    !(perVlan && change.kind === "port") && leavesTrees(previous, index, change);
  // The numbers of ports have to be the ones that the trees were worked out with.
  return changes.every(isSame) && index.derived(FABRIC).portNumber === previous.portNumber ? previous : null;
}

/** The trees of a plan's gear. */
export const TREE: Derived<PlanTree> = {
  reads: FABRIC.reads,
  make: (index) => treeIn(index, index.derived(FABRIC)),
  follow,
};
