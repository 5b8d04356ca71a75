import { offers, segmentsOfSsid, type Device, type PlanIndex, type Segment, type Vid } from "../../plan";

/** A segment with its VLAN ID: what a port of a domain can be painted with. */
export interface VlanChoice {
  readonly segment: Segment;
  readonly vid: Vid;
}

/** The segments on VLANs of a domain, by VLAN ID. */
export const vlanChoices = (index: PlanIndex, domain: string | null): VlanChoice[] =>
  [...index.plan.segment.values()]
    .flatMap((segment) => {
      const vlan = segment.vlan === null ? undefined : index.plan.vlan.get(segment.vlan);
      return vlan === undefined || vlan.domain !== domain ? [] : [{ segment, vid: vlan.vid }];
    })
    .sort((a, b) => a.vid - b.vid);

/**
 * What the port of an access point carries: the segment of its own address untagged (without one that for
 * management), every segment that its wireless names can lead into tagged. Without an access point, what one
 * that offers every name of the domain would need.
 */
export function accessPointRole(
  index: PlanIndex,
  domain: string | null,
  point: Device | null = null,
): { readonly untagged: Vid | null; readonly tagged: readonly Vid[] } {
  const choices = vlanChoices(index, domain);
  const own = new Set(point === null ? [] : index.interfacesOf(point.id).map((leg) => leg.segment));
  const untagged =
    (choices.find(({ segment }) => own.has(segment.id)) ?? choices.find(({ segment }) => segment.management))
      ?.vid ?? null;
  const names = [...index.plan.ssid.values()].filter((ssid) => point === null || offers(index, point, ssid));
  const wanted = new Set(names.flatMap((ssid) => segmentsOfSsid(index, ssid).map((segment) => segment.id)));
  return {
    untagged,
    tagged: choices
      .filter(({ segment, vid }) => wanted.has(segment.id) && vid !== untagged)
      .map(({ vid }) => vid),
  };
}

/**
 * The segment that the phones are in: where most of them are, else the one named for voice. Null when there
 * is neither.
 */
export function voiceChoice(index: PlanIndex, choices: readonly VlanChoice[]): VlanChoice | null {
  const phones = (choice: VlanChoice) =>
    index.hostsIn(choice.segment.id).filter((host) => host.kind === "phone").length;
  const most = [...choices].sort((a, b) => phones(b) - phones(a))[0];
  if (most !== undefined && phones(most) > 0) return most;
  return choices.find(({ segment }) => /phone|voice|telephon/i.test(segment.name)) ?? null;
}
