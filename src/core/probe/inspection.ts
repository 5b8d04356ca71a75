import { patchGuards } from "../planners";
import { familyOf, formatAddress, type Address, type Mac } from "../address";
import type { Repair } from "../repairs";
import { nameOf, type Device, type Host, type PlanIndex, type Port } from "../plan";
import { wayTo, type Flood } from "../forwarding";
import type { ProbeRun } from "./run";
import type { Hearing } from "../places";
import type { Cause } from "./step";

/** One switch on a frame's way: where it came in, where it went on, and the VLAN it was in. */
export interface SwitchHop {
  readonly device: Device;
  readonly inPort: Port | undefined;
  readonly outPort: Port | undefined;
  readonly vid: number;
}

const HOPS = new WeakMap<Flood, Map<string, readonly SwitchHop[]>>();

/** The switches that a frame passes on its way to where it was heard; a flood that is kept keeps them. */
export function switchHopsOf(run: ProbeRun, flood: Flood, hearing: Hearing): readonly SwitchHop[] {
  const known = HOPS.get(flood) ?? new Map<string, readonly SwitchHop[]>();
  HOPS.set(flood, known);
  const key = `${hearing.arrival} ${hearing.emission}`;
  const hops = known.get(key) ?? hopsOn(run, flood, hearing);
  known.set(key, hops);
  return hops;
}

function hopsOn({ fabric }: ProbeRun, flood: Flood, hearing: Hearing): SwitchHop[] {
  const last = flood.emission(hearing.emission);
  const arrival = hearing.arrival >= 0 ? hearing.arrival : (last?.after ?? -1);
  if (arrival < 0) return [];
  const way = wayTo(flood, arrival);
  return way.flatMap((at, i): SwitchHop[] => {
    const device = fabric.devices[at.device];
    const next = way[i + 1];
    const end = hearing.arrival >= 0 ? undefined : last;
    const out = next === undefined ? end : flood.emission(next.emission);
    return device === undefined
      ? []
      : [
          {
            device,
            inPort: fabric.ports[at.port],
            outPort: out === undefined ? undefined : fabric.ports[out.port],
            vid: at.vid,
          },
        ];
  });
}

export const trustRepair = (
  index: PlanIndex,
  port: Port,
  which: "dhcpTrust" | "arpTrust" | "raTrust",
  what: string,
): Repair => ({
  label: `Trust ${nameOf(index, "port", port.id)} for ${what}`,
  planner: "set-guard",
  args: { port: port.id, guard: which },
  edit: (edits) => patchGuards(edits, port.id, { [which]: true }),
});

/**
 * Where snooping keeps a client and a DHCP server apart: a question goes on, and an answer comes back,
 * through trusted ports only; and a question that already bears a relay agent's information is dropped at an
 * untrusted port (RFC 3046 section 2.1). Null when it lets them be.
 */
export function snoopingStops(run: ProbeRun, passings: readonly SwitchHop[]): Cause | null {
  const { index } = run;
  let marked: Device | null = null;
  for (const { device, inPort, outPort, vid } of passings) {
    const snoops = (device.protections.snooping as readonly number[]).includes(vid);
    if (!snoops) continue;
    if (marked !== null && inPort !== undefined && !inPort.guards.dhcpTrust) {
      return {
        sentence:
          `${nameOf(index, "port", inPort.id)} drops the question: ${marked.name} has added its ` +
          "information (option 82) to it, and such questions are taken from trusted ports only.",
        subjects: [
          { kind: "port", id: inPort.id },
          { kind: "device", id: marked.id },
        ],
        repairs: [
          trustRepair(index, inPort, "dhcpTrust", "DHCP servers"),
          {
            label: `Let ${marked.name} add nothing`,
            planner: "set-option-82",
            args: { device: marked.id },
            edit: (edits) => {
              const own = marked;
              if (own !== null)
                edits.patch("device", own.id, {
                  protections: { ...edits.need("device", own.id).protections, option82: false },
                });
            },
          },
        ],
      };
    }
    if (outPort !== undefined && !outPort.guards.dhcpTrust) {
      return {
        sentence:
          `${device.name} snoops in VLAN ${vid} and does not trust port ${outPort.label}, ` +
          "the way to the server: answers that come in there are dropped.",
        subjects: [
          { kind: "port", id: outPort.id },
          { kind: "device", id: device.id },
        ],
        repairs: [trustRepair(index, outPort, "dhcpTrust", "DHCP servers")],
      };
    }
    if (device.protections.option82) marked = device;
  }
  return null;
}

/** Who says in an ARP that an address is theirs, and how a switch could know that it is true. */
export interface Claim {
  readonly address: Address;
  readonly mac: Mac;
  readonly host: Host | null;
  /** The address came from a server that this client asked. */ readonly leased: boolean;
}

const inspects = ({ protections }: Device, vid: number): boolean =>
  (protections.arpInspection as readonly number[]).includes(vid);

/** Whether a device knows who claims the address: entered by hand, or learnt from a lease that it snooped. */
function isBound({ protections }: Device, vid: number, { host, leased }: Claim): boolean {
  if (host !== null && protections.bound.includes(host.id)) return true;
  return leased && (protections.snooping as readonly number[]).includes(vid);
}

const bindOne = (device: Device, host: Host): Repair => ({
  label: `Enter a binding for ${host.name} on ${device.name}`,
  planner: "bind-host",
  args: { device: device.id, host: host.id },
  edit: (edits) => {
    const own = edits.need("device", device.id).protections;
    edits.patch("device", device.id, { protections: { ...own, bound: [...own.bound, host.id] } });
  },
});

/**
 * Where the source check of the port that a host is at drops what it sends from an IPv4 address: the switch
 * has no binding for it there. Null when it passes.
 */
export function sourceStops({ index }: ProbeRun, passings: readonly SwitchHop[], claim: Claim): Cause | null {
  const [first] = passings;
  const port = first?.inPort;
  if (first === undefined || port === undefined || !port.guards.sourceCheck) return null;
  if (familyOf(claim.address) === 6 || isBound(first.device, first.vid, claim)) return null;
  const { device } = first;
  const { host } = claim;
  return {
    sentence:
      `${nameOf(index, "port", port.id)} checks source addresses, and ${device.name} knows no binding for ` +
      `${formatAddress(claim.address)} there: what ${host?.name ?? "it"} sends is dropped.`,
    subjects: [
      { kind: "port", id: port.id },
      ...(host === null ? [] : [{ kind: "host" as const, id: host.id }]),
    ],
    repairs: [
      ...(host === null ? [] : [bindOne(device, host)]),
      {
        label: `Check no sources at ${nameOf(index, "port", port.id)}`,
        planner: "set-guard",
        args: { port: port.id, guard: "sourceCheck" },
        edit: (edits) => patchGuards(edits, port.id, { sourceCheck: false }),
      },
    ],
  };
}

/** Bindings for everybody in the VLAN, and trust in the cables to other gear; nothing for one host. */
function bindAll(index: PlanIndex, device: Device, vid: number): Repair[] {
  const vlan = index.vlanOf(device.domain, vid)?.id ?? "";
  const segments = index.groups("segmentsByVlan").get(vlan) ?? [];
  const everyone = segments.flatMap((segment) => index.hostsIn(segment.id));
  if (everyone.length < 2) return [];
  return [
    {
      label:
        `Enter bindings for all ${everyone.length} hosts of VLAN ` +
        `${vid} on ${device.name}, and trust its cables to other gear`,
      planner: "bind-hosts",
      args: { device: device.id, vid },
      edit: (edits) => {
        const own = edits.need("device", device.id).protections;
        const bound = [...new Set([...own.bound, ...everyone.map(({ id }) => id)])];
        edits.patch("device", device.id, { protections: { ...own, bound } });
        for (const port of index.portsOf(device.id))
          if (index.linkAt(port.id) !== undefined && !port.guards.arpTrust)
            patchGuards(edits, port.id, { arpTrust: true });
      },
    },
  ];
}

/**
 * Where ARP inspection drops a claim: an untrusted port of a switch that has no binding for it. Null when it
 * passes.
 */
export function inspectionStops(run: ProbeRun, passings: readonly SwitchHop[], claim: Claim): Cause | null {
  const { index } = run;
  for (const { device, inPort, vid } of passings) {
    if (inPort === undefined || inPort.guards.arpTrust || !inspects(device, vid)) continue;
    if (isBound(device, vid, claim)) continue;
    const { host } = claim;
    const who = host?.name ?? "it";
    const bind = host === null ? [] : [bindOne(device, host)];
    const all = bindAll(index, device, vid);
    const edge = inPort.guards.edge;
    const trust = [trustRepair(index, inPort, "arpTrust", "ARP")];
    return {
      sentence:
        `${device.name} inspects ARP in VLAN ${vid} and knows no binding ` +
        `for ${who} at port ${inPort.label}: what it says is dropped.`,
      subjects: [
        { kind: "device", id: device.id },
        { kind: "port", id: inPort.id },
        ...(host === null ? [] : [{ kind: "host" as const, id: host.id }]),
      ],
      repairs: edge ? [...bind, ...all, ...trust] : [...trust, ...all, ...bind],
    };
  }
  return null;
}
