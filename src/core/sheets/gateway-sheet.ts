import { formatAddress } from "../address";
import { byNaturalText } from "../kernel";
import type { Device, Interface, Line, PlanIndex, Segment } from "../plan";
import { linesBeside, pinsText, tunnelCellText } from "../planners";
import { facingAddresses, forwardsPackets, linesOf, translatesAt } from "../routing";
import { counted } from "../repairs";
import { segmentsInOrder } from "./segment-sheet";

/** A line as the gateway's sheet draws it: what comes in by it, and what stands before the gateway. */
export interface GatewayLine {
  readonly line: Line;
  readonly leg: Interface;
  /** Rates, how the address comes, the address and who translates. */
  readonly says: readonly string[];
  /** What goes out by it, and when. */
  readonly use: string;
  /** The provider's own box before the gateway; null without one. */
  readonly box: string | null;
}

/** A leg of the gateway in a segment. */
export interface GatewayLeg {
  readonly leg: Interface;
  readonly segment: Segment;
  readonly addresses: string;
  /** Whether the device answers DHCP there itself. */
  readonly serves: boolean;
  /** Where it does not: to whom it relays, or that nobody gets an address by it. Empty where it does. */
  readonly otherwise: string;
}

export interface GatewaySheet {
  readonly device: Device;
  readonly lines: readonly GatewayLine[];
  readonly legs: readonly GatewayLeg[];
  /** What it does, in a few words each. */
  readonly does: readonly string[];
}

/** The devices that send packets on, those that stand at a line first. */
export const routingDevices = (index: PlanIndex): Device[] =>
  [...index.plan.device.values()]
    .filter((device) => forwardsPackets(device) && index.interfacesOf(device.id).length > 0)
    .sort(
      (a, b) =>
        Number(linesOf(index, b.id).length > 0) - Number(linesOf(index, a.id).length > 0) ||
        byNaturalText(a.name, b.name),
    );

const ADDRESSING = { dhcp: "DHCP", login: "login", fixed: "fixed address" } as const;
const NAT = {
  yes: "carrier translates",
  no: "public",
  unknown: "not asked whether the carrier translates",
} as const;
const BOX = {
  none: null,
  routes: "routes too",
  bridges: "bridges",
  cannotBridge: "routes, cannot bridge",
} as const;

/** What the provider's box does; null without one. */
const boxText = ({ providerBox, boxForwards }: Line): string | null =>
  boxForwards && (providerBox === "routes" || providerBox === "cannotBridge")
    ? "routes, sends all on"
    : BOX[providerBox];

/** What goes out by a line, by its place in the order of those beside it. */
function useWords(index: PlanIndex, line: Line): string {
  const beside = linesBeside(index, line.id);
  const [first] = beside;
  const pinned = line.pins.length === 0 ? "" : `; pinned: ${pinsText(index, line.pins)}`;
  if (first === undefined || beside.length === 1) return `carries everything${pinned}`;
  if (first.share > 0 && line.share > 0) return `carries ${line.share} % of what goes out${pinned}`;
  if (first.id === line.id) return `first: carries everything, ${backWords(line)}${pinned}`;
  const before = beside[beside.findIndex(({ id }) => id === line.id) - 1];
  return before === undefined
    ? `carries nothing${pinned}`
    : `next: after ${before.watch.afterSeconds} s without ${before.name}${pinned}`;
}

const backWords = ({ watch }: Line): string =>
  watch.returns ? `back after ${watch.backSeconds} s` : "back by hand";

function lineOf(
  index: PlanIndex,
  { leg, line }: { readonly leg: Interface; readonly line: Line },
): GatewayLine {
  const rates = line.downMbps > 0 ? `${line.downMbps} / ${line.upMbps} Mbit/s, ` : "";
  const own = leg.addresses4.map(formatAddress).join(", ");
  return {
    line,
    leg,
    says: [
      `${rates}${ADDRESSING[line.addressing]}`,
      own === "" ? NAT[line.carrierNat] : `${own}, ${NAT[line.carrierNat]}`,
    ],
    use: useWords(index, line),
    box: boxText(line),
  };
}

const servesIn = (index: PlanIndex, device: Device, segment: Segment): boolean =>
  index.scopesOf(segment.id).some(({ serverDevice }) => serverDevice === device.id);

const relayText = ({ relayTo }: Interface): string =>
  relayTo === null ? "no DHCP by it" : `relays DHCP to ${formatAddress(relayTo)}`;

/** What a leg does where its device does not serve DHCP: a tunnel is answered, a question relayed. */
function otherwiseText(index: PlanIndex, device: Device, segment: Segment, leg: Interface): string {
  if (segment.tunnel !== null) return `by tunnel, ${tunnelCellText(index, segment, "answers")}`;
  return servesIn(index, device, segment) ? "" : relayText(leg);
}

/** What the gateway's sheet shows of one device that sends packets on. */
export function gatewaySheet(index: PlanIndex, device: Device): GatewaySheet {
  const order = new Map(segmentsInOrder(index).map(({ id }, at) => [id, at]));
  const legs = index
    .interfacesOf(device.id)
    .flatMap((leg): GatewayLeg[] => {
      const segment = index.plan.segment.get(leg.segment ?? "");
      return segment === undefined
        ? []
        : [
            {
              leg,
              segment,
              addresses: [...leg.addresses4, ...leg.addresses6].map(formatAddress).join(", "),
              serves: servesIn(index, device, segment),
              otherwise: otherwiseText(index, device, segment, leg),
            },
          ];
    })
    .sort((a, b) => (order.get(a.segment.id) ?? 0) - (order.get(b.segment.id) ?? 0));
  const lines = linesOf(index, device.id);
  const outside = lines.some(({ leg }) => facingAddresses(index, leg, 4).length > 0);
  const filters = device.kind === "gateway" || device.kind === "firewall";
  return {
    device,
    lines: lines.map((ownLine) => lineOf(index, ownLine)),
    legs,
    does: [
      index.interfacesOf(device.id).some(translatesAt) && outside ? "translates" : "",
      filters ? "filters" : "does not filter",
      legs.some(({ serves }) => serves) ? "serves DHCP" : "",
      device.routes.length > 0 ? counted(device.routes.length, "route", "routes") : "",
    ].filter((word) => word !== ""),
  };
}
