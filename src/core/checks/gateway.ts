import { containsAddress, inRange, step, usableRange, type Ipv4, type Ipv6, type Prefix4 } from "../address";
import { byNaturalText } from "../kernel";
import { isGateway, type Device, type Interface, type PlanIndex, type Segment } from "../plan";
import { conventionalGateway } from "../planners/conventions";
import { check, type Found, type Repair } from "./check";
import { addressText, listed, prefixText } from "./wording";

interface Data {
  readonly segment: string;
  readonly leg: string;
  readonly address: Ipv4;
  readonly prefix: Prefix4;
  readonly wrong: "outside" | "network" | "broadcast";
}

function wrongIn(
  prefixes: readonly Prefix4[],
  address: Ipv4,
): { prefix: Prefix4; wrong: Data["wrong"] } | null {
  const home = prefixes.find((prefix) => containsAddress(prefix, address)) ?? prefixes[0];
  if (home === undefined) return null;
  if (!containsAddress(home, address)) return { prefix: home, wrong: "outside" };
  if (inRange(usableRange(home), address)) return null;
  return { prefix: home, wrong: address === home.network ? "network" : "broadcast" };
}

const WRONG = {
  outside: (prefix: string) => `lies outside its subnet ${prefix}`,
  network: (prefix: string) => `is the network address of ${prefix}`,
  broadcast: (prefix: string) => `is the broadcast address of ${prefix}`,
} as const;

function conventionalRepair(index: PlanIndex, segment: Segment, leg: Interface): Repair[] {
  const wanted = conventionalGateway(index.plan, segment);
  if (wanted === null) return [];
  return [
    {
      label: `Give the gateway ${addressText(wanted)}`,
      planner: "set-gateway-address",
      args: { interface: leg.id, address: addressText(wanted) },
      edit: (draft) => draft.patch("interface", leg.id, { addresses4: [wanted] }),
    },
  ];
}

export const gatewayNotUsable = check<Data>({
  code: "gateway-not-usable",
  severity: "stop",
  family: "segments",
  title: "The gateway's address can't be used in its subnet",
  why: "Clients can't reach a gateway that isn't an ordinary address of their own subnet.",
  reads: ["segment", "interface", "site"],
  find: (index): Found<Data>[] =>
    [...index.plan.segment.values()].flatMap((segment) => {
      const leg = index.gatewayOf(segment);
      return (leg?.addresses4 ?? []).flatMap((address) => {
        const found = wrongIn(segment.prefixes4, address);
        if (found === null || leg === undefined) return [];
        return [
          {
            subjects: [
              { kind: "segment" as const, id: segment.id },
              { kind: "interface" as const, id: leg.id },
            ],
            data: { segment: segment.id, leg: leg.id, address, ...found },
          },
        ];
      });
    }),
  describe: ({ segment, address, prefix, wrong }, index) =>
    `The gateway of ${index.plan.segment.get(segment)?.name ?? "a segment"}, ${addressText(address)}, ${WRONG[wrong](prefixText(prefix))}.`,
  repairs: ({ segment, leg }, index) => {
    const s = index.plan.segment.get(segment);
    const i = index.plan.interface.get(leg);
    return s === undefined || i === undefined ? [] : conventionalRepair(index, s, i);
  },
});

/** By domain (null for gear without one): what hosts leave by; where nothing stands towards the internet, what routes between VLANs. */
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

/** What stands in the segment's own domain to leave by. An air-gapped domain has none, and its segments miss none. */
const gatewayFor = (index: PlanIndex, { vlan }: Segment, ways = waysOut(index)): Device | undefined =>
  ways.get(vlan === null ? null : (index.plan.vlan.get(vlan)?.domain ?? null));

/** A small network to get back in by: nothing leaves it on purpose. */
const isWayBack = (index: PlanIndex, segment: Segment): boolean =>
  index.plan.vlan.get(segment.vlan ?? "")?.purpose === "wayBack";

interface Missing {
  readonly segment: string;
}

export const gatewayMissing = check<Missing>({
  code: "gateway-missing",
  severity: "warn",
  family: "segments",
  title: "A segment has no gateway",
  why: "Without a gateway its devices reach nothing outside their own segment, and nothing gives them names or time.",
  reads: ["segment", "interface", "device", "host", "vlan", "site"],
  find: (index) => {
    const ways = waysOut(index);
    return [...index.plan.segment.values()]
      .filter(
        (segment) =>
          !isWayBack(index, segment) &&
          gatewayFor(index, segment, ways) !== undefined &&
          segment.prefixes4.length > 0 &&
          segment.gatewayInterface === null &&
          (segment.planned > 0 || index.hostsIn(segment.id).length > 0),
      )
      .map((segment) => ({
        subjects: [{ kind: "segment" as const, id: segment.id }],
        data: { segment: segment.id },
      }));
  },
  describe: ({ segment }, index) => {
    const legs = [
      ...new Set(index.interfacesIn(segment).flatMap((leg) => index.plan.device.get(leg.device)?.name ?? [])),
    ].sort(byNaturalText);
    const why =
      legs.length === 0
        ? "no device has a leg in it"
        : `clients are told of none, though ${listed(legs)} ${legs.length === 1 ? "has a leg" : "have legs"} in it`;
    return `${index.plan.segment.get(segment)?.name ?? "A segment"} has no gateway: ${why}.`;
  },
  repairs: ({ segment }, index) => {
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
          label: `Use ${gateway.name}'s leg ${addressText(present.addresses4[0] ?? address)} as the gateway`,
          planner: "use-gateway-leg",
          args: { segment, interface: present.id },
          edit: (draft) => draft.patch("segment", segment, { gatewayInterface: present.id }),
        },
      ];
    }
    return [
      {
        label: `Give ${gateway.name} the leg ${addressText(address)}`,
        planner: "add-gateway-leg",
        args: { segment, device: gateway.id },
        edit: (draft, ids) => {
          const leg = draft.put("interface", {
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
          draft.patch("segment", segment, { gatewayInterface: leg.id });
        },
      },
    ];
  },
});

interface NoAddress6 {
  readonly segment: string;
  readonly leg: string;
}

export const routerWithoutAddress6 = check<NoAddress6>({
  code: "router-without-address6",
  severity: "warn",
  family: "segments",
  title: "The gateway has no address in the segment's IPv6 subnet",
  why: "It advertises a subnet that it is not part of: clients give themselves addresses there, and answers to them have no way back.",
  reads: ["segment", "interface"],
  find: (index) =>
    [...index.plan.segment.values()].flatMap((segment): Found<NoAddress6>[] => {
      const leg = index.gatewayOf(segment);
      const isIn = segment.prefixes6.some(
        (prefix) => leg?.addresses6.some((address) => containsAddress(prefix, address)) === true,
      );
      if (leg === undefined || isIn || segment.prefixes6.length === 0 || segment.advertise === "none")
        return [];
      return [
        {
          subjects: [
            { kind: "segment", id: segment.id },
            { kind: "interface", id: leg.id },
          ],
          data: { segment: segment.id, leg: leg.id },
        },
      ];
    }),
  describe: ({ segment }, index) => {
    const own = index.plan.segment.get(segment);
    return `${own?.name ?? "A segment"} advertises ${own === undefined ? "" : own.prefixes6.map(prefixText).join(" and ")}, and its gateway has no address in it.`;
  },
  repairs: ({ segment, leg }, index) => {
    const prefix = index.plan.segment.get(segment)?.prefixes6[0];
    const first = prefix === undefined ? null : step<Ipv6>(prefix.network, 1);
    return first === null
      ? []
      : [
          {
            label: `Give the gateway ${addressText(first)}`,
            planner: "set-gateway-address",
            args: { interface: leg, address: addressText(first) },
            edit: (draft) =>
              draft.patch("interface", leg, {
                addresses6: [...draft.need("interface", leg).addresses6, first],
              }),
          },
        ];
  },
});
