import type { Mac } from "../address";
import { FABRIC, type Fabric } from "../fabric";
import type { PlanIndex, Port } from "../plan";
import { bridgeAddress, TREE } from "../spanning-tree";

/** Something that is heard at a port: what it is about, and what it comes to. */
export type WireLine = readonly [about: string, value: string];

/** What lines are about. */
export const ABOUT = {
  untagged: "Untagged frames",
  vlan: (vid: number) => `VLAN ${vid}`,
  addresses: (vid: number | null) => (vid === null ? "Addresses untagged" : `Addresses in VLAN ${vid}`),
  root: "Tree root",
  pvid: "PVID that it names",
  voice: "Voice VLAN that it names",
} as const;
/** What is not there: the value of whatever no line is about. */
export const NOT_THERE = "none";
export const TAGGED = "tagged";
export const THERE = "there";

/** A port as gear that knows VLANs has it; null for others: whatever comes may come there. */
export function vlanPort(index: PlanIndex, id: string): Fabric["ports"][number] | null {
  const fabric = index.derived(FABRIC);
  const number = fabric.portNumber.get(id);
  const device = index.plan.device.get(index.plan.port.get(id)?.device ?? "");
  return device?.bridging === "vlan" && number !== undefined ? (fabric.ports[number] ?? null) : null;
}

const domainOf = (index: PlanIndex, port: Port): string | null =>
  index.plan.device.get(port.device)?.domain ?? null;

/** The VLAN of frames without a tag that leave a port. */
const untaggedVid = ({ untagged, pvid }: Pick<Port, "untagged" | "pvid">): number | null =>
  untagged.find((vid) => vid === pvid) ?? untagged[0] ?? null;

/** The segment that a tag stands for at a port; null for none of the plan. */
export function segmentAt(index: PlanIndex, id: string, vid: number | null) {
  const port = index.plan.port.get(id);
  const own = vlanPort(index, id);
  if (port === undefined) return null;
  const number = vid ?? (own === null ? null : untaggedVid(own));
  return number === null ? null : (index.segmentOn(domainOf(index, port), number) ?? null);
}

/** Gear by the address that its messages name it by. */
export function gearByMac(index: PlanIndex): ReadonlyMap<Mac, string> {
  return new Map(
    [...index.plan.device.values()].flatMap((device): [Mac, string][] => {
      const mac = bridgeAddress(index, device);
      return mac === null ? [] : [[mac, device.name]];
    }),
  );
}

/** A root by its priority and its name; without a name where nobody knows its address. */
export const rootText = (priority: number, name: string | null): string =>
  name === null ? `priority ${priority}` : `priority ${priority}, ${name}`;

/** Which root gear names by the plan; null where it takes part in no tree. */
export function plannedRoot(index: PlanIndex, { device }: Port): string | null {
  const own = index.plan.device.get(device);
  const root = index.derived(TREE).rootOf.get(device);
  if (own === undefined || own.bridging !== "vlan" || own.tree.kind === "none" || root === undefined)
    return null;
  const gear = index.plan.device.get(root.id);
  const isKnown = gear !== undefined && bridgeAddress(index, gear) !== null;
  return rootText(root.priority, isKnown ? gear.name : null);
}

/**
 * What should be heard at a port, line by line: the tags that leave there, whose addresses they bring, which
 * root is named, what is said to neighbours. Where a port is off, or knows no VLANs, lines are missing.
 */
export function wireLines(index: PlanIndex, id: string): WireLine[] {
  const own = vlanPort(index, id);
  if (own === null || !own.enabled) return [];
  const port = index.plan.port.get(id);
  const root = port === undefined ? null : plannedRoot(index, port);
  const untagged = untaggedVid(own);
  const addresses = [null, ...own.tagged].flatMap((vid): WireLine[] => {
    const segment = vid === null && untagged === null ? null : segmentAt(index, id, vid);
    return segment === null ? [] : [[ABOUT.addresses(vid), segment.name]];
  });
  return [
    ...(untagged === null ? [] : [[ABOUT.untagged, THERE] as const]),
    ...own.tagged
      .filter((vid) => !own.untagged.includes(vid))
      .map((vid) => [ABOUT.vlan(vid), TAGGED] as const),
    ...addresses,
    ...(root === null ? [] : [[ABOUT.root, root] as const]),
    [ABOUT.pvid, String(own.pvid ?? NOT_THERE)],
    ...(port?.voicePolicy ? [[ABOUT.voice, String(port.voicePolicy.vid)] as const] : []),
  ];
}

/** What the plan says of a subject at a port. */
export const plannedAbout = (lines: readonly WireLine[], about: string): string =>
  lines.find(([name]) => name === about)?.[1] ?? NOT_THERE;
