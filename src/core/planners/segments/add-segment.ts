import { readPrefix, type Prefix4 } from "../../address";
import {
  BLANK_SEGMENT,
  BLANK_ZONE,
  vid as asVid,
  type PlanEdits,
  type Plan,
  type Segment,
  type Vid,
} from "../../plan";
import { indexOf, planOf } from "../drafted";
import { mainDomain, markFor, nextFreeVid, nextSubnet, poolFor, tapeFor } from "../addressing/conventions";
import type { EditContext, IdSource, Refusal } from "../planner";
import { gatewayIn } from "../addressing/static-block";
import { usualGateway } from "../addressing/usual-gateway";

export interface AddSegment {
  readonly name: string;
  readonly vid: string;
  readonly prefix: string;
  readonly zone: string;
}

/** The zone of that name, made when there is none. */
export function zoneNamed(edits: PlanEdits, ids: IdSource, name: string): string {
  const known = edits.all("zone").find((zone) => zone.name.toLowerCase() === name.toLowerCase());
  return known?.id ?? edits.put("zone", { ...BLANK_ZONE, id: ids(), name }).id;
}

function readVid(plan: Plan, domain: string, text: string): { vid: Vid } | { refusal: string } {
  if (text.trim() === "") {
    const free = nextFreeVid(plan, domain);
    return free === null
      ? { refusal: "All VLAN IDs from 2 to 4094 are in use; remove a VLAN first." }
      : { vid: free };
  }
  const number = /^\d{1,5}$/.test(text.trim()) ? asVid(Number(text.trim())) : null;
  return number === null
    ? { refusal: `"${text}" is not a VLAN ID; write a whole number from 1 to 4094.` }
    : { vid: number };
}

function subnetFor(plan: Plan, vid: Vid, text: string): { prefix: Prefix4 } | { refusal: string } {
  if (text.trim() === "") {
    const free = nextSubnet(plan, vid);
    return free === null
      ? { refusal: "The site's blocks have no free /24 left; add a block or write the subnet yourself." }
      : { prefix: free };
  }
  const prefix = readPrefix(text);
  return prefix?.family === 4
    ? { prefix }
    : { refusal: `"${text}" is not an IPv4 subnet such as 10.24.20.0/24; the host part must be zero.` };
}

/**
 * A segment with its VLAN and zone, and, where the site has a gateway, the gateway's leg and a scope with a
 * pool.
 */
export function addSegment({ edits, ids }: EditContext, wanted: AddSegment): Refusal {
  const name = wanted.name.trim();
  if (name === "" || name.length > 80) return "Give the segment a name of 1 to 80 characters.";
  const before = planOf(edits);
  const domain = mainDomain(before) ?? edits.put("domain", { id: ids(), name: "Main" }).id;
  const number = readVid(before, domain, wanted.vid);
  if ("refusal" in number) return number.refusal;
  const subnet = subnetFor(before, number.vid, wanted.prefix);
  if ("refusal" in subnet) return subnet.refusal;
  const zone = zoneNamed(edits, ids, wanted.zone.trim() === "" ? name : wanted.zone.trim());
  const vlan = edits.put("vlan", { id: ids(), domain, vid: number.vid, name, purpose: "segment" });
  const segment: Segment = {
    ...BLANK_SEGMENT,
    id: ids(),
    zone,
    vlan: vlan.id,
    name,
    mark: markFor(before, name),
    tape: tapeFor(before),
    prefixes4: [subnet.prefix],
  };
  edits.put("segment", segment);
  const gateway = usualGateway(edits);
  if (gateway !== undefined) giveGateway(edits, ids, segment.id, gateway.id);
  return null;
}

/**
 * Gives a segment the device's leg as its gateway (the one it has there, else a new one), and a scope served
 * there when it has none.
 */
export function giveGateway(edits: PlanEdits, ids: IdSource, segmentId: string, device: string): void {
  const segment = edits.need("segment", segmentId);
  const prefix = segment.prefixes4[0];
  if (prefix === undefined) return;
  const own = edits.all("interface").find((leg) => leg.segment === segmentId && leg.device === device);
  const address = own?.addresses4[0] ?? gatewayIn(edits.plan.site.conventions, prefix);
  const leg =
    own !== undefined
      ? edits.put("interface", { ...own, addresses4: own.addresses4.length > 0 ? own.addresses4 : [address] })
      : edits.put("interface", {
          id: ids(),
          device,
          port: null,
          segment: segmentId,
          line: null,
          name: segment.name,
          mac: null,
          addresses4: [address],
          addresses6: [],
          relayTo: null,
          translates: "asUsual",
        });
  edits.patch("segment", segmentId, {
    gatewayInterface: leg.id,
    dns: segment.dns.length > 0 ? segment.dns : [address],
  });
  const served = edits.all("scope").some((scope) => scope.segment === segmentId);
  const pool = served ? null : poolFor(indexOf(edits), edits.need("segment", segmentId));
  if (pool === null) return;
  edits.put("scope", {
    id: ids(),
    segment: segmentId,
    serverDevice: device,
    serverHost: null,
    family: 4,
    pools: [pool],
    exclusions: [],
    leaseSeconds: 28_800,
    options: [],
  });
}
