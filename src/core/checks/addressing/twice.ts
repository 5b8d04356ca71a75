import { formatAddress, type Address } from "../../address";
import { byText, putInto } from "../../kernel";
import { nameOf, type Host, type Interface, type PlanIndex } from "../../plan";
import { check, type Found } from "../check";
import { type Repair, type Subject, listed } from "../../repairs";
import { nextFreeFor } from "../../planners";

type Holder = Interface | Host;
const isHost = (holder: Holder): holder is Host => "attachment" in holder;
const subjectOf = (holder: Holder): Subject => ({
  kind: isHost(holder) ? "host" : "interface",
  id: holder.id,
});

/** The layer-2 domain an address lives in: the same address in two air-gapped domains is no clash. */
function domainOf(index: PlanIndex, holder: Holder): string {
  const segment = holder.segment === null ? undefined : index.plan.segment.get(holder.segment);
  const vlan =
    segment?.vlan === null || segment === undefined ? undefined : index.plan.vlan.get(segment.vlan);
  return vlan?.domain ?? segment?.id ?? "";
}

interface AddressData {
  readonly address: Address;
  readonly holders: readonly Subject[];
}

function clashes(index: PlanIndex): Found<AddressData>[] {
  const holders = new Map<Address, Holder[]>();
  const add = (address: number | bigint | string, group: readonly Holder[]) => {
    const key = address as unknown as Address;
    holders.set(key, [...(holders.get(key) ?? []), ...group]);
  };
  const hosts = index.groups("hostsByAddress");
  const legs = index.groups("interfacesByAddress");
  for (const [address, group] of hosts) if (group.length > 1 || legs.has(address)) add(address, group);
  for (const [address, group] of legs) if (group.length > 1 || hosts.has(address)) add(address, group);
  return [...holders].flatMap(([address, group]) => {
    const byDomain = new Map<string, Holder[]>();
    for (const holder of [...group].sort((a, b) => byText(a.id, b.id))) {
      const domain = domainOf(index, holder);
      putInto(byDomain, domain, holder);
    }
    return [...byDomain.values()]
      .filter((same) => same.length > 1)
      .map((same) => {
        const subjects = same.map(subjectOf);
        return { subjects, data: { address, holders: subjects } };
      });
  });
}

function moveAway(index: PlanIndex, subject: Subject): Repair[] {
  const host = subject.kind === "host" ? index.plan.host.get(subject.id) : undefined;
  const segment =
    host?.segment === null || host === undefined ? undefined : index.plan.segment.get(host.segment);
  const free = segment === undefined ? null : nextFreeFor(index, segment, "typed");
  if (host === undefined || free === null || typeof free !== "number") return [];
  return [
    {
      label: `Give ${host.name} ${formatAddress(free)}`,
      planner: "move-address",
      args: { host: host.id, to: formatAddress(free) },
      edit: (edits) => edits.patch("host", host.id, { ipv4: free }),
    },
  ];
}

export const addressTwice = check<AddressData>({
  code: "address-twice",
  severity: "stop",
  family: "addresses",
  title: "Two devices have one address",
  why: "Whichever answers first gets the traffic; both work by turns and neither reliably.",
  reads: ["host", "interface", "segment", "vlan", "scope", "device"],
  find: clashes,
  describe: ({ address, holders }, index) =>
    `${formatAddress(address)} belongs to ` +
    `${listed(holders.map((h) => nameOf(index, h.kind, h.id)))} at the same time.`,
  repairs: ({ holders }, index) =>
    [...holders]
      .reverse()
      .flatMap((holder) => moveAway(index, holder))
      .slice(0, 2),
});

interface MacData {
  readonly mac: string;
  readonly holders: readonly Subject[];
}

export const macTwice = check<MacData>({
  code: "mac-twice",
  severity: "stop",
  family: "addresses",
  title: "Two devices have one MAC address",
  why:
    "Switches send both devices' traffic to the one heard " +
    "last, and a reservation goes to whichever asks first.",
  reads: ["host", "interface", "device"],
  find: (index): Found<MacData>[] => {
    const hosts = index.groups("hostsByMac");
    const legs = index.groups("interfacesByMac");
    const macs = new Set(
      [...hosts].filter(([mac, group]) => group.length > 1 || legs.has(mac)).map(([mac]) => mac),
    );
    for (const [mac, group] of legs) if (new Set(group.map((leg) => leg.device)).size > 1) macs.add(mac);
    return [...macs].map((mac) => {
      const holders: Subject[] = [...(hosts.get(mac) ?? []), ...(legs.get(mac) ?? [])]
        .sort((a, b) => byText(a.id, b.id))
        .map(subjectOf);
      return { subjects: holders, data: { mac: String(mac), holders } };
    });
  },
  describe: ({ mac, holders }, index) =>
    `${mac} stands at ${listed(holders.map((h) => nameOf(index, h.kind, h.id)))}. ` +
    "One of them was read or copied wrongly.",
  repairs: ({ holders }, index) =>
    holders
      .filter((h) => h.kind === "host")
      .slice(-1)
      .map((h): Repair => ({
        label: `Clear it at ${nameOf(index, "host", h.id)} and read it again`,
        planner: "clear-mac",
        args: { host: h.id },
        edit: (edits) => edits.patch("host", h.id, { mac: null }),
      })),
});
