import { containsAddress, formatAddress, isLinkLocal, prefixOf, type Address } from "../../address";
import { byNaturalText, byText, putInto } from "../../kernel";
import { nameOf, offers, type Derived, type Host, type Line, type PlanIndex } from "../../plan";
import {
  hasEntered,
  listed,
  mistakeRepairs,
  mistakesOn,
  mistakeWords,
  type Entered,
  type Subject,
} from "../../repairs";
import { check, localCheck, type Found } from "../check";

// What somebody has entered by hand and what the plan says beside it: a static device's own mask and gateway,
// a line's, where a station joins.

/** The few devices on which somebody entered a network by hand. */
const ENTERED: Derived<readonly Host[]> = {
  reads: ["host"],
  make: ({ plan }) => [...plan.host.values()].filter(hasEntered),
};

export const enteredDiffers = localCheck<Entered, "host">({
  code: "entered-network-differs",
  severity: "warn",
  family: "addresses",
  title: "A static device has another mask or gateway than its segment",
  why:
    "With a mask too short it looks for strangers among its neighbours, with one too long " +
    "it sends neighbours' traffic to the gateway; a gateway that nobody has leads nowhere.",
  reads: ["host", "segment", "interface"],
  of: "host",
  touched: (_index, { kind }) => (kind === "host" ? [] : "all"),
  candidates: (index) => index.derived(ENTERED),
  findAt: (index, host) =>
    mistakesOn(index, host).map((data): Found<Entered> => ({
      subjects: [{ kind: "host", id: host.id }],
      data,
    })),
  describe: mistakeWords,
  repairs: mistakeRepairs,
});

interface Joins {
  readonly host: string;
  readonly point: string;
  readonly ssid: string;
}

export const joinsWhereNotOffered = localCheck<Joins, "host">({
  code: "joins-where-not-offered",
  severity: "warn",
  family: "wireless",
  title: "A station is planned at an access point that does not offer its name",
  why: "It will join another access point, if it hears one, or none.",
  reads: ["host", "ssid", "device", "segment", "vlan"],
  of: "host",
  touched: (_index, { kind }) => (kind === "host" ? [] : "all"),
  candidates: (index) => [...index.groups("hostsBySsid").values()].flat(),
  findAt: (index, { id, attachment }) => {
    if (attachment.at !== "ssid" || attachment.accessPoint === null) return [];
    const [ssid, point] = [
      index.plan.ssid.get(attachment.ssid),
      index.plan.device.get(attachment.accessPoint),
    ];
    return ssid === undefined || point === undefined || offers(index, point, ssid)
      ? []
      : [
          {
            subjects: [
              { kind: "host", id },
              { kind: "device", id: point.id },
              { kind: "ssid", id: ssid.id },
            ],
            data: { host: id, point: point.id, ssid: ssid.id },
          },
        ];
  },
  describe: ({ host, point, ssid }, index) =>
    `${nameOf(index, "host", host)} is planned to join ${nameOf(index, "ssid", ssid)} ` +
    `at ${nameOf(index, "device", point)}, which does not offer it.`,
  repairs: ({ host }, index) => [
    {
      label: `Let ${nameOf(index, "host", host)} join wherever the name is heard`,
      planner: "edit-host",
      args: { host, accessPoint: null },
      edit: (edits) => {
        const { attachment } = edits.need("host", host);
        if (attachment.at === "ssid")
          edits.patch("host", host, { attachment: { ...attachment, accessPoint: null } });
      },
    },
  ],
});

interface NextHop {
  readonly line: string;
  readonly hop: Address;
  readonly wrong: "outside" | "own";
  readonly address: Address;
  /** Null where it makes no difference: the hop is the own address. */
  readonly length: number | null;
}

const outsideAddresses = (index: PlanIndex, line: string, family: 4 | 6): readonly Address[] =>
  [...index.plan.interface.values()]
    .filter((leg) => leg.line === line)
    .flatMap((leg): readonly Address[] => (family === 4 ? leg.addresses4 : leg.addresses6))
    .sort((a, b) => byText(formatAddress(a), formatAddress(b)));

function wrongHop(
  index: PlanIndex,
  { id, nextHop4, nextHop6, length4, length6 }: Line,
  family: 4 | 6,
): NextHop[] {
  const [hop, length] = family === 4 ? [nextHop4, length4] : [nextHop6, length6];
  const addresses = outsideAddresses(index, id, family);
  const [address] = addresses;
  if (hop === null || address === undefined || isLinkLocal(hop)) return [];
  if (addresses.includes(hop)) return [{ line: id, hop, wrong: "own", address: hop, length: null }];
  if (length === null) return [];
  const reached = addresses.some((address) => {
    const prefix = prefixOf(address, length);
    return prefix !== null && containsAddress(prefix, hop);
  });
  return reached ? [] : [{ line: id, hop, wrong: "outside", address, length }];
}

export const nextHopNotReached = check<NextHop>({
  code: "next-hop-not-reached",
  severity: "stop",
  family: "hardware",
  title: "A line's next hop is not on the line",
  why:
    "The gateway asks for the next hop on the line itself; an address " +
    "outside its own range, or its own, answers nobody, and nothing leaves.",
  reads: ["line", "interface"],
  find: (index) =>
    [...index.plan.line.values()].flatMap((line) =>
      ([4, 6] as const)
        .flatMap((family) => wrongHop(index, line, family))
        .map((data): Found<NextHop> => ({ subjects: [{ kind: "line", id: line.id }], data })),
    ),
  describe: ({ line, hop, wrong, address, length }, index) =>
    wrong === "own"
      ? `${nameOf(index, "line", line)}: the next hop ${formatAddress(hop)} is the gateway's own address there.`
      : `${nameOf(index, "line", line)}: the next hop ${formatAddress(hop)} ` +
        `is not in the range of ${formatAddress(address)}/${length}.`,
  repairs: () => [],
});

interface Untold {
  readonly line: string;
  readonly missing: readonly string[];
}

export const lineNotTold = check<Untold>({
  code: "line-facts-missing",
  severity: "note",
  family: "hardware",
  title: "A fixed line can't be set up from the plan yet",
  why:
    "With an address that is entered, the gateway has to be told " +
    "mask and next hop as well; the provider's letter has them.",
  reads: ["line", "interface"],
  find: (index) =>
    [...index.plan.line.values()].flatMap((line): Found<Untold>[] => {
      if (line.addressing !== "fixed") return [];
      const has = (family: 4 | 6) => outsideAddresses(index, line.id, family).length > 0;
      const missing = [
        ...(has(4) || has(6) ? [] : ["address"]),
        ...(has(4) && line.length4 === null ? ["mask"] : []),
        ...(has(4) && line.nextHop4 === null ? ["next hop"] : []),
        ...(has(6) && line.length6 === null ? ["IPv6 prefix length"] : []),
        ...(has(6) && line.nextHop6 === null ? ["IPv6 next hop"] : []),
      ];
      return missing.length === 0
        ? []
        : [{ subjects: [{ kind: "line", id: line.id }], data: { line: line.id, missing } }];
    }),
  describe: ({ line, missing }, index) =>
    `${nameOf(index, "line", line)} has a fixed address, and the plan does not say its ${listed(missing)}.`,
  repairs: () => [],
});

interface Asks {
  readonly device: string;
  readonly leg: string;
}

export const asksFromNowhere = localCheck<Asks, "device">({
  code: "asks-from-no-address",
  severity: "warn",
  family: "hardware",
  title: "A device is to ask its servers from a leg without an address",
  why:
    "A question needs an address that the answer comes back to; without one it " +
    "asks from another of its addresses, which a filter or the server may not know.",
  reads: ["device", "interface"],
  of: "device",
  touched: (_index, { kind }) => (kind === "device" ? [] : "all"),
  findAt: (index, { id, asksFrom }) => {
    const leg = asksFrom === null ? undefined : index.plan.interface.get(asksFrom);
    return leg === undefined || (leg.device === id && leg.addresses4.length + leg.addresses6.length > 0)
      ? []
      : [
          {
            subjects: [
              { kind: "device", id },
              { kind: "interface", id: leg.id },
            ],
            data: { device: id, leg: leg.id },
          },
        ];
  },
  describe: ({ device, leg }, index) => {
    const holder = index.plan.interface.get(leg);
    return (
      `${nameOf(index, "device", device)} is to ask its servers from ${holder?.name ?? "a leg"}, ` +
      `${holder?.device === device ? "which has no address" : "which is another device's"}.`
    );
  },
  repairs: ({ device }, index) => [
    {
      label: `Let ${nameOf(index, "device", device)} ask from the first of its addresses`,
      planner: "edit-device",
      args: { device, asksFrom: null },
      edit: (edits) => edits.patch("device", device, { asksFrom: null }),
    },
  ],
});

interface BridgeMac {
  readonly mac: string;
  readonly devices: readonly string[];
}

export const bridgeMacTwice = check<BridgeMac>({
  code: "bridge-mac-twice",
  severity: "stop",
  family: "guards",
  title: "Two devices have one bridge MAC address",
  why:
    "Bridges are told apart by it (IEEE 802.1Q section 14.2.5); one of the two was read " +
    "or copied wrongly, and the tree that the plan shows is not the one that forms.",
  reads: ["device"],
  find: (index) => {
    const byMac = new Map<string, string[]>();
    for (const { id, bridgeMac } of index.plan.device.values())
      if (bridgeMac !== null) putInto(byMac, bridgeMac, id);
    return [...byMac]
      .filter(([, devices]) => devices.length > 1)
      .map(([mac, devices]): Found<BridgeMac> => {
        const ordered = devices.sort(
          (a, b) => byNaturalText(nameOf(index, "device", a), nameOf(index, "device", b)) || byText(a, b),
        );
        return {
          subjects: ordered.map((id): Subject => ({ kind: "device", id })),
          data: { mac, devices: ordered },
        };
      });
  },
  describe: ({ mac, devices }, index) =>
    `${mac} is entered as the bridge MAC address of ` +
    `${listed(devices.map((id) => nameOf(index, "device", id)))}.`,
  repairs: ({ devices }, index) =>
    devices.slice(-1).map((id) => ({
      label: `Clear it at ${nameOf(index, "device", id)} and read it again`,
      planner: "edit-device",
      args: { device: id, bridgeMac: null },
      edit: (edits) => edits.patch("device", id, { bridgeMac: null }),
    })),
});
