import { putInto } from "../../kernel";
import { classify, FABRIC } from "../../fabric";
import {
  nameOf,
  signInPort,
  type Derived,
  type Device,
  type Host,
  type PlanIndex,
  type Port,
} from "../../plan";
import { patchGuards, endDevicesBehind, routerPort } from "../../planners";
import { speaksSignIn } from "../../probe";
import { counted, listed, type Repair } from "../../repairs";
import { check, type Found } from "../check";

const READS = [...FABRIC.reads, "segment", "vlan"] as const;

const names = (index: PlanIndex, hosts: readonly string[]): string =>
  listed([
    ...hosts.slice(0, 3).map((id) => nameOf(index, "host", id)),
    ...(hosts.length > 3 ? [`${hosts.length - 3} more`] : []),
  ]);

interface Changing {
  readonly host: string;
  readonly knownBy: "sign-in" | "reservation";
}

/** How a host is known by a MAC address that it does not keep; null where it is not. */
function knownByMac(index: PlanIndex, host: Host): Changing["knownBy"] | null {
  if (host.manner === "reserved") return "reservation";
  if (host.attachment.at !== "port" || speaksSignIn(host)) return null;
  const port = index.plan.port.get(host.attachment.port);
  const asking = port === undefined ? null : signInPort(index, port);
  return asking?.profile?.byMac === true ? "sign-in" : null;
}

export const changingMac = check<Changing>({
  code: "known-by-changing-mac",
  severity: "warn",
  family: "guards",
  title: "A device that changes its MAC address is known by it",
  why: "It comes with another address tomorrow, and is a stranger then. Switch that off on it here.",
  reads: ["host", "port", "device", "signIn"],
  find: (index) =>
    [...index.plan.host.values()]
      .filter(({ changesMac }) => changesMac)
      .flatMap((host): Found<Changing>[] => {
        const knownBy = knownByMac(index, host);
        return knownBy === null
          ? []
          : [{ subjects: [{ kind: "host", id: host.id }], data: { host: host.id, knownBy } }];
      }),
  describe: ({ host, knownBy }, index) =>
    `${nameOf(index, "host", host)} changes its MAC address, and ` +
    (knownBy === "sign-in" ? "is let in by it." : "its reservation goes by it."),
  repairs: ({ host }, index) => [
    {
      label: `${nameOf(index, "host", host)} keeps its MAC address here`,
      planner: "set-changes-mac",
      args: { host, on: false },
      edit: (edits) => edits.patch("host", host, { changesMac: false }),
    },
  ],
});

interface Told {
  readonly port: string;
  readonly vid: number;
  readonly host: string | null;
}

/** The ports that tell phones their VLAN. */
const TELLING: Derived<readonly Port[]> = {
  reads: ["port"],
  make: ({ plan }) => [...plan.port.values()].filter(({ voicePolicy }) => voicePolicy !== null),
};

export const voicePolicyDiffers = check<Told>({
  code: "voice-policy-differs",
  severity: "stop",
  family: "guards",
  title: "Phones are told a VLAN that is not theirs",
  why: "A phone takes what the port announces (LLDP-MED): it then tags with a VLAN that leads nowhere.",
  reads: ["port", "device", "host", "segment", "vlan"],
  find: (index) =>
    index.derived(TELLING).flatMap((port): Found<Told>[] => {
      const vid = port.voicePolicy?.vid;
      if (vid === undefined || !port.enabled) return [];
      const other = index
        .hostsAt(port.id)
        .find(({ kind, tag }) => kind === "phone" && tag !== null && tag !== vid);
      return port.tagged.includes(vid) && other === undefined
        ? []
        : [
            {
              subjects: [{ kind: "port", id: port.id }],
              data: { port: port.id, vid, host: other?.id ?? null },
            },
          ];
    }),
  describe: ({ port, vid, host }, index) =>
    `${nameOf(index, "port", port)} tells phones VLAN ${vid}, and ` +
    (host === null
      ? "does not carry it tagged."
      : `${nameOf(index, "host", host)} is planned in VLAN ${index.plan.host.get(host)?.tag ?? 0}.`),
  repairs: ({ port, vid, host }, index) => {
    const own = index.plan.port.get(port);
    const right = index.plan.host.get(host ?? "")?.tag ?? null;
    const policy = own?.voicePolicy ?? null;
    return [
      ...(right === null || policy === null || own?.tagged.includes(right) !== true
        ? []
        : [
            {
              label: `Tell phones VLAN ${right} there`,
              planner: "set-voice-policy",
              args: { port, vid: right },
              edit: (edits) => edits.patch("port", port, { voicePolicy: { ...policy, vid: right } }),
            } satisfies Repair,
          ]),
      {
        label: `Tell phones nothing at ${nameOf(index, "port", port)} (VLAN ${vid} now)`,
        planner: "set-voice-policy",
        args: { port, vid: null },
        edit: (edits) => edits.patch("port", port, { voicePolicy: null }),
      },
    ];
  },
});

interface OnPort {
  readonly port: string;
  readonly far: string;
}

export const isolatedUplink = check<OnPort>({
  code: "isolated-uplink",
  severity: "stop",
  family: "guards",
  title: "An isolated port leads to other gear",
  why: "What is at the other isolated ports of the switch reaches nothing behind it.",
  reads: FABRIC.reads,
  find: (index) =>
    [...index.plan.port.values()]
      .filter(({ guards }) => guards.isolated)
      .flatMap((port): Found<OnPort>[] => {
        const far = index.peerOf(port.id);
        return far === undefined || endDevicesBehind(index, port) !== null
          ? []
          : [{ subjects: [{ kind: "port", id: port.id }], data: { port: port.id, far: far.device } }];
      }),
  describe: ({ port, far }, index) =>
    `${nameOf(index, "port", port)} is isolated and leads to ${nameOf(index, "device", far)}.`,
  repairs: ({ port }, index) => [
    {
      label: `Isolate ${nameOf(index, "port", port)} no longer`,
      planner: "set-guard",
      args: { port, guard: "isolated" },
      edit: (edits) => patchGuards(edits, port, { isolated: false }),
    },
  ],
});

interface Unbound {
  readonly device: string;
  readonly hosts: readonly string[];
}

/** Hosts at ports with a source check that their switch has no binding for. */
function unbound(index: PlanIndex, device: Device): string[] {
  const { bound, snooping } = device.protections;
  return index
    .portsOf(device.id)
    .filter(({ guards, enabled }) => guards.sourceCheck && enabled)
    .flatMap((port) =>
      (endDevicesBehind(index, port) ?? []).filter((host) => {
        const vid = classify(port, host.tag);
        if (vid === null || bound.includes(host.id)) return false;
        return host.manner === "typed" || !(snooping as readonly number[]).includes(vid);
      }),
    )
    .map(({ id }) => id);
}

export const sourceCheckKills = check<Unbound>({
  code: "source-check-kills-hosts",
  severity: "stop",
  family: "guards",
  title: "Source checks stop hosts that the switch has no binding for",
  why: "What comes from an address that the switch did not learn by snooping, or by hand, is dropped.",
  reads: READS,
  find: (index) =>
    [...index.plan.device.values()].flatMap((device): Found<Unbound>[] => {
      const hosts = unbound(index, device);
      return hosts.length === 0
        ? []
        : [
            {
              subjects: [
                { kind: "device", id: device.id },
                ...hosts.slice(0, 8).map((id) => ({ kind: "host" as const, id })),
              ],
              data: { device: device.id, hosts },
            },
          ];
    }),
  describe: ({ device, hosts }, index) =>
    `${nameOf(index, "device", device)} checks source addresses and has no binding for ` +
    `${names(index, hosts)}: what ${hosts.length === 1 ? "it sends" : "they send"} is dropped.`,
  repairs: ({ device, hosts }, index) => [
    {
      label: `Enter ${counted(hosts.length, "binding", "bindings")} on ${nameOf(index, "device", device)}`,
      planner: "bind-hosts",
      args: { device, hosts },
      edit: (edits) => {
        const own = edits.need("device", device).protections;
        edits.patch("device", device, {
          protections: { ...own, bound: [...new Set([...own.bound, ...hosts])] },
        });
      },
    },
  ],
});

interface Lost {
  readonly device: string;
  readonly hosts: readonly string[];
}

/** Hosts whose binding a switch learnt and needs, at ports that are not trusted. */
function learntOnly(index: PlanIndex, device: Device): string[] {
  const { snooping, arpInspection, bound, keepsBindings } = device.protections;
  if (keepsBindings || snooping.length === 0) return [];
  const inspected: readonly number[] = arpInspection;
  return index
    .portsOf(device.id)
    .filter(({ enabled, guards }) => enabled && (guards.sourceCheck || !guards.arpTrust))
    .flatMap((port) =>
      (endDevicesBehind(index, port) ?? []).filter((host) => {
        const vid = classify(port, host.tag);
        const isAsked = vid !== null && (port.guards.sourceCheck || inspected.includes(vid));
        const isLearnt = vid !== null && (snooping as readonly number[]).includes(vid);
        return isAsked && isLearnt && host.manner !== "typed" && !bound.includes(host.id);
      }),
    )
    .map(({ id }) => id);
}

export const bindingsLost = check<Lost>({
  code: "bindings-lost-at-restart",
  severity: "warn",
  family: "guards",
  title: "A restart of a switch silences those whose address it learnt",
  why:
    "It forgets what snooping learnt, and inspection then believes nobody until each asks for its address " +
    "anew: when half of its lease is over (RFC 2131 section 4.4.5), or when it is switched off and on.",
  reads: READS,
  find: (index) =>
    [...index.plan.device.values()].flatMap((device): Found<Lost>[] => {
      const hosts = learntOnly(index, device);
      return hosts.length === 0
        ? []
        : [{ subjects: [{ kind: "device", id: device.id }], data: { device: device.id, hosts } }];
    }),
  describe: ({ device, hosts }, index) =>
    `After a restart of ${nameOf(index, "device", device)} ${names(index, hosts)} ` +
    `${hosts.length === 1 ? "reaches" : "reach"} nobody at first.`,
  repairs: ({ device }, index) => [
    {
      label: `Let ${nameOf(index, "device", device)} keep its bindings over a restart`,
      planner: "set-protection",
      args: { device, keepsBindings: true },
      edit: (edits) =>
        edits.patch("device", device, {
          protections: { ...edits.need("device", device).protections, keepsBindings: true },
        }),
    },
  ],
});

interface RouterLost {
  readonly device: string;
  readonly port: string;
  readonly vids: readonly number[];
}

/** Ports of a switch by which routers of VLANs that it guards are heard, and that are not trusted. */
function untrustedRouters(index: PlanIndex, device: Device): RouterLost[] {
  const byPort = new Map<string, number[]>();
  for (const vid of device.protections.routerGuard) {
    const segment = index.segmentOn(device.domain, vid);
    const leg = segment === undefined ? undefined : index.gatewayOf(segment);
    if (segment === undefined || leg === undefined || segment.advertise === "none") continue;
    const port = routerPort(index, device, leg.device, vid);
    if (port === null || port.guards.raTrust) continue;
    putInto(byPort, port.id, vid);
  }
  return [...byPort].map(([port, vids]) => ({ device: device.id, port, vids }));
}

export const routerGuardWithoutTrust = check<RouterLost>({
  code: "router-guard-without-trust",
  severity: "stop",
  family: "guards",
  title: "Router advertisements are guarded and the way to the router is not trusted",
  why: "Nobody behind the switch hears the router: no IPv6 address, no IPv6 gateway (RFC 6105).",
  reads: [...READS, "interface"],
  find: (index) =>
    [...index.plan.device.values()].flatMap((device) =>
      untrustedRouters(index, device).map((data): Found<RouterLost> => ({
        subjects: [
          { kind: "port", id: data.port },
          { kind: "device", id: data.device },
        ],
        data,
      })),
    ),
  describe: ({ port, vids }, index) =>
    `${nameOf(index, "port", port)} leads to the router of ` +
    `${vids.length === 1 ? `VLAN ${vids[0] ?? 0}` : `VLANs ${listed(vids.map(String))}`} and is not trusted ` +
    "for router advertisements.",
  repairs: ({ port }, index) => {
    const own = index.plan.port.get(port);
    return own === undefined || endDevicesBehind(index, own) !== null
      ? []
      : [
          {
            label: `Trust ${nameOf(index, "port", port)} for router advertisements`,
            planner: "set-guard",
            args: { port, guard: "raTrust" },
            edit: (edits) => patchGuards(edits, port, { raTrust: true }),
          },
        ];
  },
});

interface Beyond {
  readonly device: string;
  readonly what: readonly string[];
}

/** What is planned on a device that it is not known to have. */
const beyondGear = ({ abilities, protections }: Device, ports: readonly Port[]): string[] => {
  const isSet = (guard: "sourceCheck" | "isolated"): boolean => ports.some(({ guards }) => guards[guard]);
  const { routerGuard, dhcp6Guard } = protections;
  return [
    ...(!abilities.sourceChecks && isSet("sourceCheck") ? ["source checks"] : []),
    ...(!abilities.isolation && isSet("isolated") ? ["isolated ports"] : []),
    ...(!abilities.stormLimits && ports.some(({ guards }) => guards.stormPercent !== null)
      ? ["storm limits"]
      : []),
    ...(!abilities.ipv6Guards && routerGuard.length + dhcp6Guard.length > 0 ? ["guards of IPv6"] : []),
  ];
};

export const guardBeyondGear = check<Beyond>({
  code: "guard-beyond-gear",
  severity: "warn",
  family: "guards",
  title: "A guard is planned on gear that is not known to have it",
  why: "Find out on its pages or its leaflet, and tick what it can do; else the wall is on paper only.",
  reads: ["device", "port"],
  find: (index) =>
    [...index.plan.device.values()].flatMap((device): Found<Beyond>[] => {
      const what = beyondGear(device, index.portsOf(device.id));
      return what.length === 0
        ? []
        : [{ subjects: [{ kind: "device", id: device.id }], data: { device: device.id, what } }];
    }),
  describe: ({ device, what }, index) =>
    `${nameOf(index, "device", device)} is not known to have ${listed(what)}.`,
  repairs: () => [],
});
