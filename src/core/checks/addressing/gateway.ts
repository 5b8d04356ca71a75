import {
  containsAddress,
  inRange,
  step,
  usableRange,
  type Ipv4,
  type Ipv6,
  type Prefix4,
} from "../../address";
import { byNaturalText } from "../../kernel";
import type { Interface, PlanIndex, Segment } from "../../plan";
import { conventionalGateway } from "../../planners";
import {
  gatewayLegRepairs,
  segmentsWithoutGateway,
  type Repair,
  addressText,
  listed,
  prefixText,
} from "../../repairs";
import { check, type Found } from "../check";

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
      edit: (edits) => edits.patch("interface", leg.id, { addresses4: [wanted] }),
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
    `The gateway of ${index.plan.segment.get(segment)?.name ?? "a segment"}, ` +
    `${addressText(address)}, ${WRONG[wrong](prefixText(prefix))}.`,
  repairs: ({ segment, leg }, index) => {
    const s = index.plan.segment.get(segment);
    const i = index.plan.interface.get(leg);
    return s === undefined || i === undefined ? [] : conventionalRepair(index, s, i);
  },
});

interface Missing {
  readonly segment: string;
}

export const gatewayMissing = check<Missing>({
  code: "gateway-missing",
  severity: "warn",
  family: "segments",
  title: "A segment has no gateway",
  why:
    "Without a gateway its devices reach nothing outside " +
    "their own segment, and nothing gives them DNS or time.",
  reads: ["segment", "interface", "device", "host", "vlan", "site"],
  find: (index) =>
    segmentsWithoutGateway(index).map(({ id }) => ({
      subjects: [{ kind: "segment" as const, id }],
      data: { segment: id },
    })),
  describe: ({ segment }, index) => {
    const legs = [
      ...new Set(index.interfacesIn(segment).flatMap((leg) => index.plan.device.get(leg.device)?.name ?? [])),
    ].sort(byNaturalText);
    const why =
      legs.length === 0
        ? "no device has a leg in it"
        : `clients are told of none, though ${listed(legs)} ` +
          `${legs.length === 1 ? "has a leg" : "have legs"} in it`;
    return `${index.plan.segment.get(segment)?.name ?? "A segment"} has no gateway: ${why}.`;
  },
  repairs: ({ segment }, index) => gatewayLegRepairs(index, segment),
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
  why:
    "It advertises a subnet that it is not part of: clients give " +
    "themselves addresses there, and answers to them have no way back.",
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
    return (
      `${own?.name ?? "A segment"} advertises ` +
      `${own === undefined ? "" : own.prefixes6.map(prefixText).join(" and ")}, ` +
      "and its gateway has no address in it."
    );
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
            edit: (edits) =>
              edits.patch("interface", leg, {
                addresses6: [...edits.need("interface", leg).addresses6, first],
              }),
          },
        ];
  },
});
