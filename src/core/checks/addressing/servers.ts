import { formatAddress, type Address } from "../../address";
import { byNaturalText, byText } from "../../kernel";
import { exceptionLets, decide, SERVICES } from "../../policy";
import { nameOf, type PlanIndex, type Scope, type Segment, segmentHolding, type WallEnd } from "../../plan";
import { openDoor } from "../../planners";
import { addScopeRepairs, waitingWithoutServer, type Repair, listed, shortAddress } from "../../repairs";
import { check, localCheck, type Found } from "../check";
import { segmentsTouched } from "../touched";

interface NoServer {
  readonly segment: string;
  readonly waiting: number;
}

export const noAddressServer = localCheck<NoServer, "segment">({
  code: "no-address-server",
  severity: "stop",
  family: "segments",
  title: "Devices ask for a lease and no DHCP server answers",
  why: "Such devices give themselves a link-local address and reach nothing.",
  reads: ["segment", "scope", "host"],
  of: "segment",
  touched: segmentsTouched,
  findAt: (index, segment): Found<NoServer>[] => {
    const waiting = waitingWithoutServer(index, segment);
    return waiting === 0
      ? []
      : [{ subjects: [{ kind: "segment", id: segment.id }], data: { segment: segment.id, waiting } }];
  },
  describe: ({ segment, waiting }, index) =>
    `${waiting} devices in ${nameOf(index, "segment", segment)} ` +
    "ask for an address, and the segment has no scope.",
  repairs: ({ segment }, index) => addScopeRepairs(index, segment),
});

interface TwoServers {
  readonly segment: string;
  readonly scopes: readonly string[];
}

const serverName = (index: PlanIndex, scopeId: string): string => {
  const scope = index.plan.scope.get(scopeId);
  if (scope?.serverDevice !== null && scope?.serverDevice !== undefined)
    return nameOf(index, "device", scope.serverDevice);
  return scope?.serverHost === null || scope?.serverHost === undefined
    ? "nobody"
    : nameOf(index, "host", scope.serverHost);
};

const serverKey = ({ serverDevice, serverHost }: Scope): string => serverDevice ?? serverHost ?? "";
const keyOf = (index: PlanIndex, scope: string): string => {
  const known = index.plan.scope.get(scope);
  return known === undefined ? "" : serverKey(known);
};

export const twoAddressServers = check<TwoServers>({
  code: "two-address-servers",
  severity: "warn",
  family: "segments",
  title: "Two DHCP servers serve one segment",
  why: "A client takes the first answer, so neither server knows all leases and addresses can be given twice.",
  reads: ["scope", "segment", "device", "host", "interface"],
  find: (index): Found<TwoServers>[] =>
    [...index.groups("scopesBySegment")].flatMap(([segment, scopes]): Found<TwoServers>[] => {
      // Several scopes of one server are one server's offer. The gateway's comes first: it is the one that is
      // meant to stay.
      const gateway = index.plan.interface.get(
        index.plan.segment.get(String(segment))?.gatewayInterface ?? "",
      )?.device;
      const same = scopes
        .filter((scope) => scope.family === 4)
        .sort(
          (a, b) =>
            Number(b.serverDevice === gateway) - Number(a.serverDevice === gateway) ||
            byNaturalText(serverName(index, a.id), serverName(index, b.id)) ||
            byText(a.id, b.id),
        );
      const servers = new Set(same.map(serverKey));
      return servers.size < 2
        ? []
        : [
            {
              subjects: [{ kind: "segment", id: String(segment) }],
              data: { segment: String(segment), scopes: same.map((s) => s.id) },
            },
          ];
    }),
  describe: ({ segment, scopes }, index) =>
    `${listed([...new Set(scopes.map((id) => serverName(index, id)))])} ` +
    `both give addresses in ${nameOf(index, "segment", segment)}.`,
  repairs: ({ scopes }, index) =>
    scopes
      .filter((id) => keyOf(index, id) !== keyOf(index, scopes[0] ?? ""))
      .map((id): Repair => ({
        label: `Remove the scope that ${serverName(index, id)} serves${poolsOf(index, id)}`,
        planner: "remove-scope",
        args: { scope: id },
        edit: (edits) => edits.remove("scope", id),
      })),
});

/** " (10.24.20.40 to 10.24.20.99)": what goes with a scope. */
const poolsOf = (index: PlanIndex, scopeId: string): string => {
  const pools = index.plan.scope.get(scopeId)?.pools ?? [];
  return pools.length === 0
    ? ""
    : ` (${listed(pools.map(({ first, last }) => `${formatAddress(first)} to ${formatAddress(last)}`))})`;
};

interface DnsData {
  readonly segment: string;
  readonly address: Address;
  readonly inside: string | null;
}

const DNS = SERVICES.find((service) => service.name === "dns") ?? null;

/**
 * Whether clients of a segment can ask an address for names: a router of the plan, or somebody whom the wall
 * lets them ask.
 */
const mayAsk = (index: PlanIndex, segment: Segment, address: Address): boolean =>
  index.groups("interfacesByAddress").has(address) ||
  decide(index, segment, segmentHolding(index.plan, address) ?? "internet", DNS).passes ||
  exceptionLets(index, segment, address, { protocol: "udp", port: 53 });

export const namesBehindWall = check<DnsData>({
  code: "names-behind-wall",
  severity: "stop",
  family: "segments",
  title: "The DNS server that clients are given is behind a closed wall",
  why: "Without DNS no page opens, though the internet itself is there.",
  reads: ["segment", "wall", "zone", "interface", "device", "exception", "host"],
  find: (index): Found<DnsData>[] =>
    [...index.plan.segment.values()].flatMap((segment) =>
      segment.dns.flatMap((address): Found<DnsData>[] => {
        if (index.groups("interfacesByAddress").has(address)) return [];
        // One of several that can be asked is enough: a client goes on to the next.
        if (segment.dns.some((other) => other !== address && mayAsk(index, segment, other))) return [];
        if (mayAsk(index, segment, address)) return [];
        const home = segmentHolding(index.plan, address);
        return [
          {
            subjects: [{ kind: "segment", id: segment.id }],
            data: { segment: segment.id, address, inside: home?.id ?? null },
          },
        ];
      }),
    ),
  describe: ({ segment, address, inside }, index) =>
    `${nameOf(index, "segment", segment)} is told to ask ${formatAddress(address)} for DNS, ` +
    `but the wall to ${inside === null ? "the internet" : nameOf(index, "segment", inside)} ` +
    "lets no DNS through. Nobody there will open a page by its name.",
  repairs: ({ segment, address, inside }, index) => {
    const from = index.plan.segment.get(segment);
    const gateway = from === undefined ? undefined : index.gatewayOf(from)?.addresses4[0];
    if (from === undefined) return [];
    const to: WallEnd =
      inside === null ? { at: "internet" } : { at: "zone", zone: index.plan.segment.get(inside)?.zone ?? "" };
    const viaGateway: Repair[] =
      gateway === undefined || gateway === address
        ? []
        : [
            {
              label: `Hand out the gateway, ${shortAddress(gateway)}`,
              planner: "set-dns",
              args: { segment, dns: formatAddress(gateway) },
              edit: (edits) =>
                edits.patch("segment", segment, {
                  dns: edits.need("segment", segment).dns.map((d) => (d === address ? gateway : d)),
                }),
            },
          ];
    const door: Repair[] =
      DNS === null
        ? []
        : [
            {
              label: `Open DNS to ${inside === null ? "the internet" : nameOf(index, "segment", inside)}`,
              planner: "open-door",
              args: { segment, service: "dns" },
              edit: (edits, ids) =>
                openDoor(edits, ids, { from: { at: "zone", zone: from.zone }, to, service: DNS }),
            },
          ];
    return [...viaGateway, ...door];
  },
});
