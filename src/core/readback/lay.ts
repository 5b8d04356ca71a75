import { equal } from "../kernel";
import { afterEdits, PlanEdits, type Change, type Device, type Interface, type PlanIndex } from "../plan";
import type { IdSource } from "../planners";
import { isFirstLeg, settleGateways } from "../runbook";
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

/** A leg as it was read; null where the plan has nothing that it could be in. */
function legFor(laying: Laying, read: LegReading, taken: ReadonlySet<string>): Interface | null {
  const { index, asIs, device, ids } = laying;
  const segment = segmentOf(laying, read);
  const find = (legs: readonly Interface[]) =>
    legs.find((leg) => !taken.has(leg.id) && isSame(leg, read, segment));
  const known = find(asIs.interfacesOf(device.id));
  if (known !== undefined && known.line !== null) return known;
  const addresses = {
    addresses4: [...(read.addresses4 ?? known?.addresses4 ?? [])],
    addresses6: [...(read.addresses6 ?? known?.addresses6 ?? [])],
  };
  if (known !== undefined) return { ...known, ...addresses };
  const planned = find(index.interfacesOf(device.id));
  if (planned !== undefined && planned.line !== null) return planned;
  const own = planned?.segment ?? segment;
  if (own === null) return null;
  return {
    ...NEW_LEG,
    id: planned?.id ?? ids(),
    device: device.id,
    port: planned?.port ?? read.port,
    segment: own,
    name: planned?.name ?? read.name.slice(0, 80),
    mac: planned?.mac ?? null,
    ...addresses,
  };
}

const FIRST_VID = 1;

/** All addresses of a device are those that were read; what came out of the box stays until they are. */
function layLegs(edits: PlanEdits, laying: Laying, legs: readonly LegReading[]): string[] {
  const { asIs, device } = laying;
  const kept = new Set<string>();
  const missed: string[] = [];
  for (const read of legs) {
    const leg = legFor(laying, read, kept);
    if (leg === null) {
      if (read.vid !== FIRST_VID || !asIs.interfacesOf(device.id).some(isFirstLeg))
        missed.push(
          `${read.name}: the plan has no segment ${read.vid === null ? "of that name" : `in VLAN ${read.vid}`} ` +
            `on ${device.name}; its address was left out.`,
        );
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
  const isOff = ports.every(({ enabled }) => !enabled) && asIs.interfacesOf(device.id).some(isFirstLeg);
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
