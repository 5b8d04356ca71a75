import type { Mac } from "../address";
import { DisjointSet, equal } from "../kernel";
import type { Change, Derived, Device, PlanIndex, Port } from "../plan";
import { FABRIC, sharedWires, type Fabric, egressTag } from "../fabric";
import { costOfPort } from "./costs";
import { regionKey, treeByVid } from "./region";
import { spanningTree, type Tree, type TreeBridge, type TreePort, type TreePortState } from "./tree";

/** Stands for a MAC address nobody has entered: higher than any there is. */
const UNKNOWN = 2 ** 48;

/**
 * A device's bridge address (IEEE 802.1Q section 14.2.5) as far as the plan knows it: the one entered, else
 * the lowest of its interfaces; null when none is known.
 */
export function bridgeAddress(index: PlanIndex, device: Device): Mac | null {
  const [lowest] = index
    .interfacesOf(device.id)
    .flatMap((leg) => leg.mac ?? [])
    .sort();
  return device.bridgeMac ?? lowest ?? null;
}

function addressOf(index: PlanIndex, device: Device): number {
  const known = bridgeAddress(index, device);
  return known === null ? UNKNOWN : Number.parseInt(known.replaceAll(":", ""), 16);
}

/** One tree of the plan: the common one, one of a region's, or one VLAN's. */
export interface NamedTree {
  /** "common", "region … 2", "VLAN 20". */
  readonly key: string;
  readonly title: string;
  readonly tree: Tree;
}

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
  /** The numbers of ports that `discards` goes by. */
  readonly portNumber: Fabric["portNumber"];
}

const isForwarding = ({ role }: TreePortState): boolean => role !== "alternate" && role !== "backup";

/**
 * LANs: wires, joined through gear that knows VLANs and runs no tree. It is taken to pass the protocol's
 * frames on, as an unmanaged switch does.
 */
function lansOf(
  fabric: Fabric,
  runs: readonly boolean[],
): { readonly lans: DisjointSet; readonly joined: boolean } {
  const lans = new DisjointSet(fabric.wires.length);
  let joined = false;
  for (const [number, ports] of fabric.bridgePortsOf.entries()) {
    const [first, ...others] =
      runs[number] === true ? [] : ports.flatMap((port) => fabric.wireOf[port] ?? []);
    if (first !== undefined)
      for (const other of others) {
        lans.join(first, other);
        joined = true;
      }
  }
  return { lans, joined };
}

interface Taking {
  readonly number: number;
  readonly port: Port;
  readonly lan: number;
  readonly device: number;
}

/**
 * The bridge ports that hear another of the trees' ports; one with nothing but end devices behind it takes no
 * part in the choice.
 */
function takingPart(fabric: Fabric, runs: readonly boolean[]): Taking[] {
  const { lans, joined } = lansOf(fabric, runs);
  // Where no gear passes the protocol's frames on, a LAN is a wire, and a wire with one bridge port has
  // nobody to hear.
  const ports = joined
    ? fabric.bridgePortsOf.flat()
    : sharedWires(fabric).flatMap((wire) => fabric.wires[wire]?.bridgePorts ?? []);
  const own = ports.flatMap((number): Taking[] => {
    const [device, port] = [fabric.deviceOf[number] ?? 0, fabric.ports[number]];
    return runs[device] !== true || port === undefined
      ? []
      : [{ number, port, lan: lans.rootOf(fabric.wireOf[number] ?? 0), device }];
  });
  const count = new Map<number, number>();
  for (const { lan } of own) count.set(lan, (count.get(lan) ?? 0) + 1);
  return own.filter(({ lan }) => (count.get(lan) ?? 0) > 1);
}

/** The trees that a fabric comes to; a failure study asks it of fabrics with parts gone. */
export function treeIn(index: PlanIndex, fabric: Fabric): PlanTree {
  const runs = fabric.devices.map((device) => device.bridging === "vlan" && device.tree.kind !== "none");
  const all = takingPart(fabric, runs);
  const shut = new Set(all.filter(({ port }) => port.guards.bpduGuard).map(({ port }) => port.id));
  const taking = all.filter(({ port }) => !shut.has(port.id));
  const kindOf = (device: number) => (fabric.devices[device]?.tree.kind === "perVlan" ? "perVlan" : "common");
  const bridgeOf = (device: Device, priority: number, region: string | null): TreeBridge => ({
    id: device.id,
    priority,
    address: addressOf(index, device),
    region,
  });
  const portOf = ({ port }: Taking, lan: string): TreePort => ({
    id: port.id,
    bridge: port.device,
    lan,
    priority: port.treePriority,
    number: port.position,
    cost: costOfPort(index, port),
    restrictedRole: port.guards.restrictedRole,
  });

  const common = taking.filter(({ device }) => kindOf(device) === "common");
  const bridges = fabric.devices.flatMap((device, i): TreeBridge[] =>
    runs[i] === true && kindOf(i) === "common"
      ? [bridgeOf(device, device.tree.priority, device.tree.kind === "multiple" ? regionKey(device) : null)]
      : [],
  );
  const tree = spanningTree(
    bridges,
    common.map((one) => portOf(one, String(one.lan))),
  );
  const regions = regionTrees(
    fabric,
    common,
    bridges,
    tree,
    (device, priority) => bridgeOf(device, priority, null),
    portOf,
  );
  const vlans = vlanTrees(
    fabric,
    taking.filter(({ device }) => kindOf(device) === "perVlan"),
    (device, priority) => bridgeOf(device, priority, null),
    portOf,
  );

  const discarding = new Uint8Array(fabric.ports.length);
  for (const { port, number } of all)
    if (shut.has(port.id) || [tree.ports.get(port.id) ?? []].flat().some((state) => !isForwarding(state)))
      discarding[number] = 1;
  const byVid = new Map<number, Map<number, boolean>>();
  const settle = (number: number, vid: number, discards: boolean) => {
    const own = byVid.get(number) ?? new Map<number, boolean>();
    own.set(vid, discards);
    byVid.set(number, own);
  };
  for (const { number, port, device: at } of common) {
    const device = fabric.devices[at];
    if (device?.tree.kind !== "multiple") continue;
    const region = regionKey(device);
    for (const [vid, instance] of treeByVid(device)) {
      const state = regions.get(`${region} ${instance}`)?.tree.ports.get(port.id);
      if (state !== undefined) settle(number, vid, !isForwarding(state));
    }
  }
  for (const [vid, { tree: own }] of vlans)
    for (const { number, port } of taking) {
      const state = own.ports.get(port.id);
      if (state !== undefined) settle(number, vid, !isForwarding(state));
    }
  return {
    ...tree,
    shut,
    mixed: mixedPairs(taking, kindOf),
    unknownAddress: new Set(
      fabric.devices
        .filter((device, i) => runs[i] === true && addressOf(index, device) === UNKNOWN)
        .map((device) => device.id),
    ),
    named: [{ key: "common", title: "Common tree", tree }, ...regions.values(), ...vlans.values()],
    discards: (port, vid) => byVid.get(port)?.get(vid) ?? discarding[port] === 1,
    portNumber: fabric.portNumber,
    anywhere: byVid.size > 0 || discarding.includes(1),
  };
}

/**
 * The trees inside each region (section 13.10): only where all of a LAN is in the region; at its edge they do
 * as the common tree does, whose root port is their master port.
 */
function regionTrees(
  fabric: Fabric,
  common: readonly Taking[],
  bridges: readonly TreeBridge[],
  tree: Tree,
  bridgeOf: (device: Device, priority: number) => TreeBridge,
  portOf: (one: Taking, lan: string) => TreePort,
): Map<string, NamedTree> {
  const regionOf = new Map(bridges.map((bridge) => [bridge.id, bridge.region]));
  const onLan = new Map<number, Set<string | null>>();
  for (const { lan, port } of common)
    onLan.set(lan, (onLan.get(lan) ?? new Set()).add(regionOf.get(port.device) ?? null));
  const isInside = ({ lan, port }: Taking): boolean =>
    onLan.get(lan)?.size === 1 && regionOf.get(port.device) !== null;
  const found = new Map<string, NamedTree>();
  for (const region of new Set([...regionOf.values()].filter((key) => key !== null))) {
    const devices = fabric.devices.filter((device) => regionOf.get(device.id) === region);
    const [first] = devices;
    for (const { number } of first?.tree.instances ?? []) {
      const own = devices.map((device) =>
        bridgeOf(
          device,
          (device.tree.instances.find((one) => one.number === number)?.priority ?? 32_768) + number,
        ),
      );
      const ports = common.filter(({ port }) => regionOf.get(port.device) === region);
      const inner = spanningTree(
        own,
        ports.filter(isInside).map((one) => portOf(one, String(one.lan))),
      );
      const states = new Map(inner.ports);
      for (const one of ports)
        if (!isInside(one)) {
          const state = tree.ports.get(one.port.id);
          if (state !== undefined)
            states.set(one.port.id, state.role === "root" ? { ...state, role: "master" } : state);
        }
      found.set(`${region} ${number}`, {
        key: `region ${region} ${number}`,
        title: `${first?.tree.region === "" ? "Region" : `Region ${first?.tree.region}`}, tree ${number}`,
        tree: { ...inner, ports: states },
      });
    }
  }
  return found;
}

/**
 * One tree for each VLAN: independent, their messages inside the VLAN; the VLAN's number is added to the
 * priority.
 */
function vlanTrees(
  fabric: Fabric,
  taking: readonly Taking[],
  bridgeOf: (device: Device, priority: number) => TreeBridge,
  portOf: (one: Taking, lan: string) => TreePort,
): Map<number, NamedTree> {
  const members = new Map<number, Taking[]>();
  for (const one of taking)
    for (const vid of [...one.port.untagged, ...one.port.tagged]) {
      const list = members.get(vid);
      if (list === undefined) members.set(vid, [one]);
      else if (list.at(-1) !== one) list.push(one);
    }
  const found = new Map<number, NamedTree>();
  for (const [vid, own] of [...members].sort(([a], [b]) => a - b)) {
    const devices = [...new Set(own.map(({ device }) => device))].flatMap(
      (number) => fabric.devices[number] ?? [],
    );
    const bridges = devices.map((device) =>
      bridgeOf(
        device,
        (device.tree.perVlan.find((one) => one.vid === vid)?.priority ?? device.tree.priority) + vid,
      ),
    );
    const ports = own.map((one) => portOf(one, `${one.lan} ${egressTag(one.port, vid) ?? "untagged"}`));
    const lans = new Map<string, number>();
    for (const { lan } of ports) lans.set(lan, (lans.get(lan) ?? 0) + 1);
    found.set(vid, {
      key: `VLAN ${vid}`,
      title: `VLAN ${vid}`,
      tree: spanningTree(
        bridges,
        ports.filter(({ lan }) => (lans.get(lan) ?? 0) > 1),
      ),
    });
  }
  return found;
}

function mixedPairs(taking: readonly Taking[], kindOf: (device: number) => string): [Port, Port][] {
  const first = new Map<number, Taking>();
  const pairs: [Port, Port][] = [];
  for (const one of taking) {
    const other = first.get(one.lan);
    if (other === undefined) first.set(one.lan, one);
    else if (kindOf(other.device) !== kindOf(one.device)) pairs.push([other.port, one.port]);
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
const deviceTreePart = ({ bridging, tree }: Device): unknown => [bridging, tree];

/**
 * Edits of membership, names and what is plugged in leave the trees as they are, except where each VLAN has
 * its own.
 */
function follow(previous: PlanTree, index: PlanIndex, changes: readonly Change[]): PlanTree | null {
  const perVlan = previous.named.some(({ key }) => key.startsWith("VLAN"));
  for (const { kind, before, after } of changes) {
    if (kind === "host") continue;
    if (
      kind === "port" &&
      !perVlan &&
      before !== null &&
      after !== null &&
      equal(treePart(before as Port), treePart(after as Port))
    )
      continue;
    if (
      kind === "device" &&
      before !== null &&
      after !== null &&
      equal(deviceTreePart(before as Device), deviceTreePart(after as Device))
    )
      continue;
    if (TREE.reads.includes(kind)) return null;
  }
  // The numbers of ports have to be the ones that the trees were worked out with.
  return index.derived(FABRIC).portNumber === previous.portNumber ? previous : null;
}

/** The trees of a plan's gear. */
export const TREE: Derived<PlanTree> = {
  reads: FABRIC.reads,
  make: (index) => treeIn(index, index.derived(FABRIC)),
  follow,
};
