import { equal } from "../kernel";
import { afterEdits, PlanEdits, type Change, type Device, type Interface, type PlanIndex } from "../plan";
import type { IdSource } from "../planners";
import { isFirstLeg, isUnpowered, settleGateways } from "../runbook";
import type { LegReading, Reading } from "./reading";

/** Where a reading is laid: the plan, what is known to be on the devices, and the device that was read. */
export interface Laying {
  readonly index: PlanIndex;
  readonly asIs: PlanIndex;
  readonly device: Device;
  readonly ids: IdSource;
}

/** What a reading makes of what is known of a device. */
export interface Laid {
  readonly asIs: PlanIndex;
  readonly changes: readonly Change[];
  /** What of it has no place in the plan, in sentences. */
  readonly missed: readonly string[];
}

const NEW_LEG: Pick<Interface, "line" | "mac" | "relayTo" | "translates"> = {
  line: null,
  mac: null,
  relayTo: null,
  translates: "asUsual",
};

/** The segment that a leg is in by its VLAN; null where the plan has none there. */
const segmentOf = ({ index, device }: Laying, { vid }: LegReading): string | null =>
  vid === null ? null : (index.segmentOn(device.domain, vid)?.id ?? null);

/** Whether a leg of the plan or of the device is the one that was read. */
function isSame(leg: Interface, read: LegReading, segment: string | null): boolean {
  if (isFirstLeg(leg)) return equal(leg.addresses4, read.addresses4);
  if (read.port !== null) return leg.port === read.port;
  if (leg.port !== null) return false;
  return segment === null ? leg.name === read.name : leg.segment === segment;
}

/** A leg of the device or of the plan that is the one that was read; undefined where there is none yet. */
const matching = (
  legs: readonly Interface[],
  read: LegReading,
  segment: string | null,
  taken: ReadonlySet<string>,
) => legs.find((leg) => !taken.has(leg.id) && isSame(leg, read, segment));

/** A leg that the device did not have, as it is planned but for its addresses; null where it has no segment. */
function newLeg(
  { device, ids }: Laying,
  read: LegReading,
  planned: Interface | undefined,
  segment: string | null,
) {
  const own = planned?.segment ?? segment;
  if (own === null) return null;
  const base = planned ?? { id: ids(), port: read.port, name: read.name.slice(0, 80), mac: null };
  const { id, port, name, mac } = base;
  return { ...NEW_LEG, id, port, name, mac, device: device.id, segment: own, addresses4: [], addresses6: [] };
}

/** A leg as it was read; null where the plan has nothing that it could be in. */
function legFor(laying: Laying, read: LegReading, taken: ReadonlySet<string>): Interface | null {
  const { index, asIs, device } = laying;
  const segment = segmentOf(laying, read);
  const known = matching(asIs.interfacesOf(device.id), read, segment, taken);
  const planned =
    known === undefined ? matching(index.interfacesOf(device.id), read, segment, taken) : undefined;
  const line = [known, planned].find((leg) => leg !== undefined && leg.line !== null);
  if (line !== undefined) return line;
  const leg: Interface | null = known ?? newLeg(laying, read, planned, segment);
  return leg === null
    ? null
    : {
        ...leg,
        addresses4: [...(read.addresses4 ?? leg.addresses4)],
        addresses6: [...(read.addresses6 ?? leg.addresses6)],
      };
}

const FIRST_VID = 1;

const noSegment = (device: Device, { name, vid }: LegReading): string =>
  `${name}: the plan has no segment ${vid === null ? "of that name" : `in VLAN ${vid}`} on ${device.name}; ` +
  "its address was left out.";

/** All addresses of a device are those that were read; what came out of the box stays until they are. */
function layLegs(edits: PlanEdits, laying: Laying, legs: readonly LegReading[]): string[] {
  const { asIs, device } = laying;
  const kept = new Set<string>();
  const missed: string[] = [];
  for (const read of legs) {
    const leg = legFor(laying, read, kept);
    if (leg === null) {
      if (read.vid !== FIRST_VID || !asIs.interfacesOf(device.id).some(isFirstLeg))
        missed.push(noSegment(device, read));
      continue;
    }
    kept.add(leg.id);
    edits.put("interface", leg);
  }
  const isElsewhere = kept.size > 0;
  for (const leg of asIs.interfacesOf(device.id))
    if (!kept.has(leg.id) && leg.line === null && (isElsewhere || !isFirstLeg(leg)))
      edits.remove("interface", leg.id);
  return missed;
}

/** The list of VLANs that somebody keeps of the device: as it was read. */
function layVlans(edits: PlanEdits, { index, asIs, device, ids }: Laying, read: Reading["vlans"]): void {
  const planned = index.groups("deviceVlansByDevice").get(device.id) ?? [];
  if (read === null || planned.length === 0) return;
  const known = [...(asIs.groups("deviceVlansByDevice").get(device.id) ?? [])];
  for (const entry of known)
    if (!read.some(({ vid }) => vid === entry.vid)) edits.remove("deviceVlan", entry.id);
  for (const { vid, name } of read) {
    const own = known.find((entry) => entry.vid === vid) ?? planned.find((entry) => entry.vid === vid);
    edits.put("deviceVlan", { id: own?.id ?? ids(), device: device.id, vid, name: name.slice(0, 80) });
  }
}

/** What can be read is powered: a port that nothing is said of is on. */
function layPorts(edits: PlanEdits, { asIs, device }: Laying, reading: Reading): void {
  const ports = asIs.portsOf(device.id);
  const isOff = isUnpowered(asIs, device.id);
  for (const { id } of ports) {
    const read = reading.ports.get(id) ?? {};
    edits.patch("port", id, { ...(isOff ? { enabled: true } : {}), ...read });
  }
}

/**
 * Lays what was read on what is known of the device; what was not read stays as it is known. Null where that
 * would be no state of the site.
 */
export function layReading(laying: Laying, reading: Reading): Laid | null {
  const edits = new PlanEdits(laying.asIs.plan);
  layPorts(edits, laying, reading);
  layVlans(edits, laying, reading.vlans);
  const missed = reading.legs === null ? [] : layLegs(edits, laying, reading.legs);
  if (reading.legs !== null) settleGateways(edits, laying.index.plan);
  const asIs = afterEdits(laying.asIs, edits);
  return asIs === null ? null : { asIs, changes: edits.changes(), missed: [...reading.missed, ...missed] };
}
