import {
  asPrefix4,
  containsAddress,
  containsPrefix,
  formatPrefix,
  subnetsOf,
  summarise,
  supernetOf,
  step,
  usableRange,
  type Address,
  type AddressRange,
  type Prefix,
  type Prefix4,
} from "../../address";
import {
  type PlanIndex,
  type Plan,
  type Segment,
  type Vid,
  PlanEdits,
  type Scope,
  type Interface,
} from "../../plan";
import { giveGateway } from "../segments/add-segment";
import { markFor, nextFreeVid, tapeFor } from "./conventions";
import type { EditContext, Refusal } from "../planner";
import { removeSegment } from "../site/remove";
import { gatewayIn } from "./static-block";

/** The two halves of a segment's subnet; a sentence when it can't be split, or the name is none. */
function halvesOf(
  { name: own, prefixes4 }: Segment,
  name: string,
): { lower: Prefix4; upper: Prefix4 } | string {
  const [prefix] = prefixes4;
  if (prefix === undefined) return `${own} has no IPv4 subnet to split.`;
  if (prefix.length >= 30)
    return (
      `${formatPrefix(prefix)} is too small to split; two ` +
      "halves of it could hold no device beside a gateway."
    );
  if (name.trim() === "" || name.trim().length > 80)
    return "Give the new segment a name of 1 to 80 characters.";
  const [lower = null, upper = null] = [...subnetsOf(prefix, prefix.length + 1)].map(asPrefix4);
  return lower === null || upper === null ? `${formatPrefix(prefix)} can't be split.` : { lower, upper };
}

/** Moves the hosts and further legs of the half that goes; returns how many hosts moved. */
function moveUsers(edits: PlanEdits, segment: Segment, to: string, goes: Prefix4): number {
  let moved = 0;
  for (const host of edits.all("host")) {
    if (host.segment !== segment.id || host.ipv4 === null || !containsAddress(goes, host.ipv4)) continue;
    edits.patch("host", host.id, { segment: to });
    moved += 1;
  }
  for (const leg of edits.all("interface")) {
    if (leg.segment !== segment.id || leg.id === segment.gatewayInterface) continue;
    if (leg.addresses4.some((address) => containsAddress(goes, address)))
      edits.patch("interface", leg.id, { segment: to });
  }
  return moved;
}

/** What a scope offers and leaves out of a subnet. */
const scopeWithin = ({ pools, exclusions }: Scope, prefix: Prefix4) => ({
  pools: pools.flatMap((range) => cutTo(prefix, range)),
  exclusions: exclusions.flatMap((range) => cutTo(prefix, range)),
});

/**
 * Splits a segment's subnet in two halves. The lower stays; the upper becomes a segment of its own in the
 * same zone, with the devices whose fixed addresses lie in it, the next free VLAN ID and, where there is a
 * gateway, a leg and a pool. The ports of those devices keep their VLAN: which sockets belong to which half
 * only a person knows, and the findings name them.
 */
// eslint-disable-next-line complexity -- each thing that a segment may lack is asked once
export function splitSegment({ edits, ids }: EditContext, segmentId: string, name: string): Refusal {
  const segment = edits.need("segment", segmentId);
  const halves = halvesOf(segment, name);
  if (typeof halves === "string") return halves;
  const { lower, upper } = halves;
  const gateway =
    segment.gatewayInterface === null ? undefined : edits.get("interface", segment.gatewayInterface);
  const vlan = segment.vlan === null ? undefined : edits.get("vlan", segment.vlan);
  const number = vlan === undefined ? null : nextFreeVid(edits.plan, vlan.domain);
  if (vlan !== undefined && number === null)
    return "All VLAN IDs from 2 to 4094 are in use; remove a VLAN first.";
  // The gateway of the whole may lie in the upper half (gateway last): it keeps its address and the halves
  // change their names.
  const stays =
    gateway?.addresses4.some((address) => containsAddress(upper, address)) === true ? upper : lower;
  const goes = stays === lower ? upper : lower;
  const newVlan =
    vlan === undefined || number === null
      ? null
      : edits.put("vlan", {
          id: ids(),
          domain: vlan.domain,
          vid: number,
          name: name.trim(),
          purpose: "segment",
        });
  const made = edits.put("segment", {
    ...segment,
    id: ids(),
    name: name.trim(),
    mark: markFor(edits.plan, name),
    tape: tapeFor(edits.plan),
    prefixes4: [goes],
    prefixes6: [],
    gatewayInterface: null,
    dns: segment.dns.filter((address) => address !== gateway?.addresses4[0]),
    planned: 0,
    vlan: newVlan?.id ?? null,
    management: false,
  });
  edits.patch("segment", segmentId, { prefixes4: [stays, ...segment.prefixes4.slice(1)] });
  const moved = moveUsers(edits, segment, made.id, goes);
  edits.patch("segment", made.id, { planned: moved });
  edits.patch("segment", segmentId, { planned: Math.max(0, segment.planned - moved) });
  for (const scope of edits
    .all("scope")
    .filter((scope) => scope.segment === segmentId && scope.family === 4)) {
    edits.patch("scope", scope.id, scopeWithin(scope, stays));
    // What was offered and left out in the half that goes is so there, by the same server.
    const gone = scopeWithin(scope, goes);
    const ownGateway = gateway === undefined ? null : gatewayIn(edits.plan.site.conventions, goes);
    const pools = ownGateway === null ? gone.pools : gone.pools.flatMap((pool) => without(pool, ownGateway));
    if (pools.length > 0) edits.put("scope", { ...scope, ...gone, pools, id: ids(), segment: made.id });
  }
  if (gateway !== undefined) giveGateway(edits, ids, made.id, gateway.device);
  return null;
}

/** A range without one address of it: what is before and after. */
function without({ first, last }: AddressRange, address: Address): AddressRange[] {
  if (typeof first !== typeof address || address < first || address > last) return [{ first, last }];
  const [before, after] = [step<Address>(address, -1), step<Address>(address, 1)];
  return [
    ...(before !== null && address > first ? [{ first, last: before }] : []),
    ...(after !== null && address < last ? [{ first: after, last }] : []),
  ];
}

/** The part of a range that is usable in a subnet. */
function cutTo(prefix: Prefix, range: AddressRange): AddressRange[] {
  const usable = usableRange(prefix);
  const first = range.first > usable.first ? range.first : usable.first;
  const last = range.last < usable.last ? range.last : usable.last;
  return typeof first === typeof usable.first && first <= last ? [{ first, last }] : [];
}

/** Whether two subnets are the halves of one, and that one. */
function wholeOf(a: Prefix4, b: Prefix4): Prefix4 | null {
  const whole = a.length === b.length ? asPrefix4(supernetOf(a, a.length - 1)) : null;
  return whole !== null && containsPrefix(whole, b) && a.network !== b.network ? whole : null;
}

/** The segments that can be merged into one: those whose subnet is the other half. */
export const mergePartners = (index: PlanIndex, segment: Segment): Segment[] => {
  const own = segment.prefixes4[0];
  return own === undefined
    ? []
    : [...index.plan.segment.values()].filter(
        (other) =>
          other.id !== segment.id &&
          other.prefixes4[0] !== undefined &&
          wholeOf(own, other.prefixes4[0]) !== null,
      );
};

/** Hosts, wireless names and further legs of the segment that goes. */
function moveIntoMerged(edits: PlanEdits, into: Segment, gone: Segment): void {
  for (const host of edits.all("host"))
    if (host.segment === gone.id) edits.patch("host", host.id, { segment: into.id });
  for (const ssid of edits.all("ssid")) {
    if (ssid.segment !== gone.id && !ssid.moreSegments.includes(gone.id)) continue;
    const more = new Set(ssid.moreSegments.map((segment) => (segment === gone.id ? into.id : segment)));
    edits.patch("ssid", ssid.id, {
      segment: ssid.segment === gone.id ? into.id : ssid.segment,
      moreSegments: [...more].filter((extra) => extra !== ssid.segment || ssid.segment !== gone.id),
    });
  }
  for (const leg of edits.all("interface"))
    if (leg.segment === gone.id && leg.id !== gone.gatewayInterface)
      edits.patch("interface", leg.id, { segment: into.id });
}

/** Whoever asked the gateway that goes for names asks the one that stays. */
function nameOtherGateway(edits: PlanEdits, goneGateway: Interface | undefined, into: Segment): void {
  const old = goneGateway?.addresses4[0];
  const stays = into.gatewayInterface === null ? undefined : edits.get("interface", into.gatewayInterface);
  const [replacement] = stays?.addresses4 ?? [];
  if (old === undefined || replacement === undefined) return;
  for (const segment of edits.all("segment"))
    if (segment.dns.includes(old))
      edits.patch("segment", segment.id, {
        dns: [...new Set(segment.dns.map((d) => (d === old ? replacement : d)))],
      });
}

/**
 * Merges another segment, whose subnet is the other half, into this one: its devices, wireless names, pools
 * and the ports on its VLAN come along, its gateway address, VLAN and scope go. Every fixed address stays as
 * it is.
 */
export function mergeSegments(
  { edits }: Pick<EditContext, "edits">,
  intoId: string,
  goneId: string,
): Refusal {
  const [into, gone] = [edits.need("segment", intoId), edits.need("segment", goneId)];
  const [a, b] = [into.prefixes4[0], gone.prefixes4[0]];
  const whole = a === undefined || b === undefined ? null : wholeOf(a, b);
  if (whole === null)
    return `${into.name} and ${gone.name} are not the two halves of one subnet, so they can't be merged.`;
  if (into.zone !== gone.zone)
    return (
      `${gone.name} is in another zone than ${into.name}; a merge would ` +
      "take the wall between them away. Put them into one zone first."
    );
  const goneGateway =
    gone.gatewayInterface === null ? undefined : edits.get("interface", gone.gatewayInterface);
  moveIntoMerged(edits, into, gone);
  const refusal = mergeScopes(edits, intoId, goneId);
  if (refusal !== null) return refusal;
  repaint(edits, gone.vlan, into.vlan);
  nameOtherGateway(edits, goneGateway, into);
  const [prefixes4, prefixes6] = [
    [whole, ...into.prefixes4.slice(1), ...gone.prefixes4.slice(1)],
    [...into.prefixes6, ...gone.prefixes6],
  ];
  if (prefixes4.length > 8 || prefixes6.length > 8)
    return `${into.name} and ${gone.name} have more than 8 further subnets between them; take some away first.`;
  edits.patch("segment", intoId, { prefixes4, prefixes6, planned: into.planned + gone.planned });
  removeSegment(edits, goneId);
  return null;
}

/**
 * The pools and exclusions of a segment's scope come along; a scope that the other has none like moves as it
 * is.
 */
function mergeScopes(edits: EditContext["edits"], intoId: string, goneId: string): Refusal {
  for (const scope of edits.all("scope").filter((scope) => scope.segment === goneId)) {
    const own = edits.all("scope").find((other) => other.segment === intoId && other.family === scope.family);
    if (own === undefined) {
      edits.patch("scope", scope.id, { segment: intoId });
      continue;
    }
    const [pools, exclusions] = [
      [...own.pools, ...scope.pools],
      [...own.exclusions, ...scope.exclusions],
    ];
    if (pools.length > 32 || exclusions.length > 64)
      return (
        `The two scopes have ${pools.length} pools and ${exclusions.length} ` +
        "exclusions between them; a scope has at most 32 and 64. Join some first."
      );
    edits.patch("scope", own.id, { pools, exclusions });
  }
  return null;
}

/** Every port that carries one VLAN carries the other instead. */
function repaint(edits: EditContext["edits"], fromId: string | null, toId: string | null): void {
  const [from, to] = [fromId, toId].map((id) => (id === null ? undefined : edits.get("vlan", id)));
  if (from === undefined || to === undefined || from.domain !== to.domain) return;
  const swap = (list: readonly Vid[]) =>
    [...new Set(list.map((vid) => (vid === from.vid ? to.vid : vid)))].sort((x, y) => x - y);
  for (const port of edits.all("port")) {
    if (edits.get("device", port.device)?.domain !== from.domain) continue;
    if (port.pvid !== from.vid && !port.untagged.includes(from.vid) && !port.tagged.includes(from.vid))
      continue;
    const pvid = port.pvid === from.vid ? to.vid : port.pvid;
    edits.patch("port", port.id, {
      pvid,
      untagged: swap(port.untagged),
      tagged: swap(port.tagged).filter((vid) => vid !== pvid),
    });
  }
}

/** The fewest prefixes that hold exactly the subnets of the site: for a route or a VPN to it. */
export const siteSummary = (plan: Plan): Prefix[] =>
  summarise([...plan.segment.values()].flatMap((segment) => [...segment.prefixes4, ...segment.prefixes6]));
