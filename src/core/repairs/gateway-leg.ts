import { formatAddress } from "../address";
import { byNaturalText } from "../kernel";
import { isGateway, type Device, type PlanIndex, type Segment } from "../plan";
import { conventionalGateway } from "../planners";
import type { Repair } from "./repair";

/**
 * By domain (null for gear without one): what hosts leave by; where nothing stands towards the internet, what
 * routes between VLANs.
 */
function waysOut({ plan }: PlanIndex): ReadonlyMap<string | null, Device> {
  const found = new Map<string | null, Device>();
  for (const device of plan.device.values()) {
    const known = found.get(device.domain);
    if (!isGateway(device) && !device.abilities.routes) continue;
    if (
      known === undefined ||
      (isGateway(device) === isGateway(known)
        ? byNaturalText(device.name, known.name) < 0
        : isGateway(device))
    )
      found.set(device.domain, device);
  }
  return found;
}

/**
 * What stands in the segment's own domain to leave by. An air-gapped domain has none, and its segments miss
 * none.
 */
const gatewayFor = (index: PlanIndex, { vlan }: Segment, ways = waysOut(index)): Device | undefined =>
  ways.get(vlan === null ? null : (index.plan.vlan.get(vlan)?.domain ?? null));

/** A small network to get back in by: nothing leaves it on purpose. */
const isWayBack = (index: PlanIndex, segment: Segment): boolean =>
  index.plan.vlan.get(segment.vlan ?? "")?.purpose === "wayBack";

/**
 * Segments that somebody is or will be in and that have no gateway, though their domain has something to be
 * one.
 */
export function segmentsWithoutGateway(index: PlanIndex): readonly Segment[] {
  const ways = waysOut(index);
  return [...index.plan.segment.values()].filter(
    (segment) =>
      !isWayBack(index, segment) &&
      gatewayFor(index, segment, ways) !== undefined &&
      segment.prefixes4.length > 0 &&
      segment.gatewayInterface === null &&
      (segment.planned > 0 || index.hostsIn(segment.id).length > 0),
  );
}

/** Gives a segment a gateway: the leg that its domain's gateway has there already, else a new one. */
export function gatewayLegRepairs(index: PlanIndex, segment: string): readonly Repair[] {
  const target = index.plan.segment.get(segment);
  const gateway = target === undefined ? undefined : gatewayFor(index, target);
  const address = target === undefined ? null : conventionalGateway(index.plan, target);
  if (gateway === undefined || target === undefined || address === null) return [];
  const present = index
    .interfacesIn(segment)
    .find((leg) => leg.device === gateway.id && leg.addresses4.length > 0);
  if (present !== undefined) {
    return [
      {
        label: `Use ${gateway.name}'s leg ${formatAddress(present.addresses4[0] ?? address)} as the gateway`,
        planner: "use-gateway-leg",
        args: { segment, interface: present.id },
        edit: (edits) => edits.patch("segment", segment, { gatewayInterface: present.id }),
      },
    ];
  }
  return [
    {
      label: `Give ${gateway.name} the leg ${formatAddress(address)}`,
      planner: "add-gateway-leg",
      args: { segment, device: gateway.id },
      edit: (edits, ids) => {
        const leg = edits.put("interface", {
          id: ids(),
          device: gateway.id,
          port: null,
          segment,
          line: null,
          name: target.name,
          mac: null,
          addresses4: [address],
          addresses6: [],
          relayTo: null,
          translates: "asUsual",
        });
        edits.patch("segment", segment, { gatewayInterface: leg.id });
      },
    },
  ];
}
