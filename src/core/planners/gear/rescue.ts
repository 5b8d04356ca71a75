import {
  containsAddress,
  formatAddress,
  freeRanges,
  lengthForHosts,
  usableRange,
  type Ipv4,
} from "../../address";
import { must } from "../../kernel";
import {
  BLANK_SEGMENT,
  type Device,
  type PlanEdits,
  type PlanIndex,
  type Port,
  type Segment,
  type Vlan,
} from "../../plan";
import { freeRuns, mainDomain, markFor, smallSubnet, tapeFor } from "../addressing/conventions";
import { addLeg } from "../addressing/legs";
import { planOf } from "../drafted";
import type { EditContext, Refusal } from "../planner";
import { makeWayBack } from "../ports/port-roles";
import { zoneNamed } from "../segments/add-segment";

/** Laptops at a time, beside the gear itself. */
const LAPTOPS = 2;
const NAME = "Rescue";

const vlanOf = (edits: PlanEdits, domain: string | null): Vlan | undefined =>
  edits
    .all("vlan")
    .filter((vlan) => vlan.domain === domain && vlan.purpose === "wayBack")
    .sort((a, b) => a.vid - b.vid)[0];

/** A port that nothing is at, and that is easiest to spare: one that is off, else the last one. */
function portToSpare(edits: PlanEdits, { id }: Device): Port | undefined {
  const cabled = new Set(edits.all("link").flatMap(({ a, b }) => [a, b]));
  const routed = new Set(edits.all("interface").flatMap(({ port }) => port ?? []));
  const used = new Set(
    edits.all("host").flatMap(({ attachment }) => (attachment.at === "port" ? [attachment.port] : [])),
  );
  return edits
    .all("port")
    .filter(
      (port) =>
        port.device === id &&
        port.medium !== "fibre" &&
        port.lag === null &&
        ![cabled, routed, used].some((taken) => taken.has(port.id)),
    )
    .sort((a, b) => Number(a.enabled) - Number(b.enabled) || b.position - a.position)[0];
}

/** The port of a device that is kept as its rescue port; undefined where there is none. */
function rescuePort(edits: PlanEdits, { id, domain }: Device): Port | undefined {
  const vid = vlanOf(edits, domain)?.vid;
  return edits.all("port").find((port) => port.device === id && port.enabled && port.pvid === (vid ?? -1));
}

/** The small network of a domain's rescue ports, made where there is none; a sentence where none fits. */
function rescueSegment({ edits, ids }: EditContext, domain: string): Segment | string {
  const vlan = must(vlanOf(edits, domain), "a rescue port has a VLAN");
  const known = edits.all("segment").find((segment) => segment.vlan === vlan.id);
  if (known !== undefined) return known;
  const gear = edits.all("device").filter((device) => device.domain === domain).length;
  const length = lengthForHosts(gear + LAPTOPS);
  const prefix = smallSubnet(planOf(edits), length);
  if (prefix === null)
    return `The site's blocks have no free /${length} left for a rescue network; add a block in the survey.`;
  const plan = planOf(edits);
  // Domains are never linked, so their rescue networks share no zone either.
  const name =
    domain === mainDomain(plan) ? NAME : `${NAME} ${edits.need("domain", domain).name}`.slice(0, 80);
  return edits.put("segment", {
    ...BLANK_SEGMENT,
    id: ids(),
    zone: zoneNamed(edits, ids, name),
    vlan: vlan.id,
    name,
    mark: markFor(plan, name),
    tape: tapeFor(plan),
    prefixes4: [prefix],
  });
}

/** Whether a device has an address in a safety network: that one is recorded here and never linked. */
const isOfSafety = (edits: PlanEdits, id: string): boolean =>
  edits
    .all("interface")
    .some(
      ({ device, segment }) =>
        device === id && segment !== null && edits.get("segment", segment)?.purpose === "safety",
    );

/** The lowest address of a segment that nobody has; null where it is full. */
function lowestFree(edits: PlanEdits, segment: Segment): Ipv4 | null {
  const [prefix] = segment.prefixes4;
  if (prefix === undefined) return null;
  const taken = edits
    .all("interface")
    .flatMap((leg) => leg.addresses4)
    .filter((ipv4) => containsAddress(prefix, ipv4));
  const [run] = freeRanges(
    usableRange(prefix),
    taken.map((ipv4) => ({ first: ipv4, last: ipv4 })),
  );
  return run === undefined || typeof run.first === "bigint" ? null : run.first;
}

/**
 * A way back into a device in one act: a port kept aside, in a VLAN of its own that leads nowhere, a small
 * network there that meets nobody, and an address of the device in it. What is there already stays.
 */
export function rescueNetwork(context: EditContext, id: string): Refusal {
  const { edits } = context;
  const device = edits.get("device", id);
  if (device === undefined) return "The device is gone; choose another one.";
  const { domain, name } = device;
  if (device.bridging !== "vlan" || domain === null)
    return `${name} knows no VLANs: keep a port of the switch next to it aside instead.`;
  if (isOfSafety(edits, id))
    return `${name} is in a safety network, which has no link to any other: keep a port in that network aside.`;
  const port = rescuePort(edits, device) ?? portToSpare(edits, device);
  if (port === undefined)
    return `${name} has no port to spare; unplug something, or keep a port of the switch next to it aside.`;
  if (rescuePort(edits, device) === undefined) {
    const refusal = makeWayBack(context, [port.id]);
    if (refusal !== null) return refusal;
  }
  const segment = rescueSegment(context, domain);
  if (typeof segment === "string") return segment;
  if (edits.all("interface").some((leg) => leg.device === id && leg.segment === segment.id)) return null;
  const address = lowestFree(edits, segment);
  // What it asks of others goes on leaving from where it did.
  const [first] = context.index.interfacesOf(id).filter(({ addresses4 }) => addresses4.length > 0);
  if (device.asksFrom === null && first !== undefined) edits.patch("device", id, { asksFrom: first.id });
  return address === null
    ? `${segment.name} has no address left for ${name}; enlarge it under Numbering.`
    : addLeg(context, id, segment.id, formatAddress(address));
}

/** The way back into a device that is planned: its port, its address there, and one for the laptop. */
export interface RescueWay {
  readonly port: Port;
  readonly address: Ipv4;
  readonly laptop: Ipv4;
  readonly length: number;
}

/** The rescue port of a device with its small network; null where the two are not both there. */
export function rescueWayOf(index: PlanIndex, { id, domain }: Device): RescueWay | null {
  for (const port of index.portsOf(id)) {
    const vlan = port.pvid === null || !port.enabled ? undefined : index.vlanOf(domain, port.pvid);
    if (vlan?.purpose !== "wayBack") continue;
    const segment = index.segmentOn(domain, vlan.vid);
    const leg = index.interfacesOf(id).find((leg) => segment !== undefined && leg.segment === segment.id);
    const [address, prefix] = [leg?.addresses4[0], segment?.prefixes4[0]];
    const last = segment === undefined ? undefined : freeRuns(index, segment).at(-1)?.last;
    if (address !== undefined && prefix !== undefined && typeof last === "number")
      return { port, address, laptop: last, length: prefix.length };
  }
  return null;
}
