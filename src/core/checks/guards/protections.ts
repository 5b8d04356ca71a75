import { serverReached } from "../../probe";
import {
  nameOf,
  profileOf,
  signInPorts,
  type Device,
  type Host,
  type PlanIndex,
  type Port,
} from "../../plan";
import { patchGuards, endDevicesBehind, serverPort } from "../../planners";
import { classify, FABRIC } from "../../fabric";
import { check, type Found } from "../check";
import { askedOn, repairsFor } from "./asked-servers";
import { type Repair, counted, listed } from "../../repairs";

const READS = [...FABRIC.reads, "segment", "scope", "vlan"] as const;

interface Untrusted {
  readonly device: string;
  readonly port: string;
  readonly vids: readonly number[];
  readonly server: string;
}

/** The ports of a snooping switch that lead to the servers of its VLANs and are not trusted. */
function untrusted(index: PlanIndex, device: Device): Found<Untrusted>[] {
  const byPort = new Map<string, { vids: number[]; server: string }>();
  for (const vid of device.protections.snooping) {
    const segment = index.segmentOn(device.domain, vid);
    for (const scope of segment === undefined ? [] : index.scopesOf(segment.id)) {
      const towards = serverPort(index, device, scope, vid);
      if (towards === null || towards.port.guards.dhcpTrust) continue;
      const { port, server } = towards;
      const known = byPort.get(port.id) ?? { vids: [], server };
      known.vids.push(vid);
      byPort.set(port.id, known);
    }
  }
  return [...byPort].map(([port, { vids, server }]) => ({
    subjects: [
      { kind: "port", id: port },
      { kind: "device", id: device.id },
    ],
    data: { device: device.id, port, vids, server },
  }));
}

export const snoopingWithoutTrust = check<Untrusted>({
  code: "snooping-without-trust",
  severity: "stop",
  family: "guards",
  title: "Snooping is on and the way to the server is not trusted",
  why: "Answers of DHCP servers pass from trusted ports only: nobody behind the switch gets an address.",
  reads: READS,
  find: (index) =>
    [...index.plan.device.values()]
      .filter((device) => device.protections.snooping.length > 0)
      .flatMap((device) => untrusted(index, device)),
  describe: ({ port, vids, server }, index) =>
    `${nameOf(index, "port", port)} leads to ${server}, which gives addresses in ` +
    `${vids.length === 1 ? `VLAN ${vids[0] ?? 0}` : `VLANs ${listed(vids.map(String))}`}, ` +
    "and is not trusted: nobody behind the switch gets one.",
  repairs: ({ port }, index) => [
    {
      label: `Trust ${nameOf(index, "port", port)} for DHCP servers`,
      planner: "set-guard",
      args: { port, guard: "dhcpTrust" },
      edit: (edits) => patchGuards(edits, port, { dhcpTrust: true }),
    },
  ],
});

interface Killed {
  readonly device: string;
  readonly hosts: readonly string[];
  readonly uplinks: readonly string[];
}

/** Hosts at the ports of a switch that inspects their VLAN without a binding for them. */
function killedBy(index: PlanIndex, device: Device): { hosts: Host[]; uplinks: Port[] } {
  const inspected = new Set<number>(device.protections.arpInspection);
  const bound = new Set(device.protections.bound);
  const [hosts, uplinks]: [Host[], Port[]] = [[], []];
  for (const port of index.portsOf(device.id)) {
    if (port.guards.arpTrust || !port.enabled) continue;
    const behind = endDevicesBehind(index, port);
    if (behind === null && [...port.untagged, ...port.tagged].some((vid) => inspected.has(vid)))
      uplinks.push(port);
    for (const host of behind ?? index.hostsAt(port.id)) {
      const vid = classify(port, host.tag);
      if (vid === null || !inspected.has(vid) || bound.has(host.id)) continue;
      if (host.manner === "typed" || !(device.protections.snooping as readonly number[]).includes(vid))
        hosts.push(host);
    }
  }
  return { hosts, uplinks };
}

export const inspectionKillsHosts = check<Killed>({
  code: "inspection-kills-hosts",
  severity: "stop",
  family: "guards",
  title: "ARP inspection stops hosts that it has no binding for",
  why:
    "Snooping learns who leased which address; a host with a static " +
    "address, or a cable to other gear that is not trusted, it can't know.",
  reads: READS,
  find: (index): Found<Killed>[] =>
    [...index.plan.device.values()]
      .filter((device) => device.protections.arpInspection.length > 0)
      .flatMap((device): Found<Killed>[] => {
        const { hosts, uplinks } = killedBy(index, device);
        return hosts.length + uplinks.length === 0
          ? []
          : [
              {
                subjects: [
                  { kind: "device", id: device.id },
                  ...hosts.slice(0, 8).map((host) => ({ kind: "host" as const, id: host.id })),
                ],
                data: {
                  device: device.id,
                  hosts: hosts.map((host) => host.id),
                  uplinks: uplinks.map((port) => port.id),
                },
              },
            ];
      }),
  describe: ({ device, hosts, uplinks }, index) => {
    const parts = [
      hosts.length === 0
        ? ""
        : listed(hosts.slice(0, 3).map((id) => nameOf(index, "host", id))) +
          `${hosts.length > 3 ? ` and ${hosts.length - 3} more` : ""}`,
      uplinks.length === 0
        ? ""
        : `everything behind ${listed(uplinks.map((id) => nameOf(index, "port", id)))}`,
    ].filter((part) => part !== "");
    return (
      `${nameOf(index, "device", device)} inspects ARP and ` +
      `has no binding for ${listed(parts)}: they reach nobody.`
    );
  },
  repairs: ({ device, hosts, uplinks }, index): Repair[] => [
    {
      label: [
        hosts.length === 0 ? "" : `Enter ${counted(hosts.length, "binding", "bindings")}`,
        uplinks.length === 0 ? "" : `trust ${listed(uplinks.map((id) => nameOf(index, "port", id)))} for ARP`,
      ]
        .filter((part) => part !== "")
        .join(" and "),
      planner: "bind-hosts",
      args: { device, hosts },
      edit: (edits) => {
        const own = edits.need("device", device).protections;
        edits.patch("device", device, {
          protections: { ...own, bound: [...new Set([...own.bound, ...hosts])] },
        });
        for (const port of uplinks) patchGuards(edits, port, { arpTrust: true });
      },
    },
  ],
});

interface Unreached {
  readonly device: string;
  readonly profile: string;
  readonly sentence: string;
  readonly ports: number;
}

/** Switches with ports that ask for a sign-in, by the profile they use. */
function signingIn(index: PlanIndex): { device: Device; port: Port; ports: number }[] {
  if (index.plan.signIn.size === 0) return [];
  const found = new Map<string, { device: Device; port: Port; ports: number }>();
  for (const { device, port, profile } of signInPorts(index)) {
    if (profile === null) continue;
    const key = `${device.id} ${profile.id}`;
    found.set(key, { device, port, ports: (found.get(key)?.ports ?? 0) + 1 });
  }
  return [...found.values()];
}

export const signInServerUnreachable = check<Unreached>({
  code: "sign-in-server-unreachable",
  severity: "stop",
  family: "guards",
  title: "A switch does not reach any authentication server",
  why:
    "Without an answer nobody signs in: the ports stay " +
    "closed, or everybody lands in the VLAN for that case.",
  reads: [...READS, "signIn", "wall", "zone", "line", "forward", "exception"],
  find: (index): Found<Unreached>[] =>
    signingIn(index).flatMap(({ device, port, ports }): Found<Unreached>[] => {
      const profile = profileOf(index, port);
      if (profile === undefined) return [];
      const reached = serverReached(askedOn(index), device, profile);
      return "server" in reached
        ? []
        : [
            {
              subjects: [
                { kind: "device", id: device.id },
                { kind: "signIn", id: profile.id },
              ],
              data: { device: device.id, profile: profile.id, sentence: reached.cause.sentence, ports },
            },
          ];
    }),
  describe: ({ sentence, ports }) =>
    `${sentence} ${counted(ports, "port asks", "ports ask")} for a sign-in there.`,
  repairs: ({ device, profile }, index) => {
    const [own, known] = [index.plan.device.get(device), index.plan.signIn.get(profile)];
    return own === undefined || known === undefined
      ? []
      : repairsFor(index, (run) => serverReached(run, own, known));
  },
});

interface OldPort {
  readonly profile: string;
  readonly port: number | null;
  readonly accounting: number | null;
}

/** Before RFC 2865 and RFC 2866 the two services were asked at these. */
const OLD: readonly number[] = [1645, 1646];
const old = (port: number | null): number | null => (port !== null && OLD.includes(port) ? port : null);

export const signInOldPort = check<OldPort>({
  code: "sign-in-old-port",
  severity: "warn",
  family: "guards",
  title: "Authentication servers are asked at an old port",
  why:
    "1812 and 1813 are the registered ports (RFC 2865, RFC 2866); servers of today do not listen at 1645 and " +
    "1646 by themselves.",
  reads: ["signIn"],
  find: (index): Found<OldPort>[] =>
    [...index.plan.signIn.values()]
      .map(({ id, port, accountingPort }) => ({
        profile: id,
        port: old(port),
        accounting: old(accountingPort),
      }))
      .filter(({ port, accounting }) => port !== null || accounting !== null)
      .map((data) => ({ subjects: [{ kind: "signIn", id: data.profile }], data })),
  describe: ({ profile, port, accounting }, index) => {
    const asked = [
      ...(port === null ? [] : [`asks its servers at port ${port}`]),
      ...(accounting === null ? [] : [`sends accounting to port ${accounting}`]),
    ];
    const ones = asked.length > 1 ? "the old ones" : "the old one";
    return `${nameOf(index, "signIn", profile)} ${asked.join(" and ")}, ${ones}.`;
  },
  repairs: ({ profile, port, accounting }) => {
    const fields = {
      ...(port === null ? {} : { port: 1812 }),
      ...(accounting === null ? {} : { accountingPort: 1813 }),
    };
    const numbers = Object.values(fields).map(String);
    return [
      {
        label: `${port === null ? "Account" : "Ask"} at ${listed(numbers)}`,
        planner: "edit-sign-in",
        args: { profile, ...fields },
        edit: (edits) => edits.patch("signIn", profile, fields),
      },
    ];
  },
});
