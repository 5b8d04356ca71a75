import { z } from "zod";
import { parseIpv4, parseIpv6 } from "../address";
import { err, ok, type Result } from "../kernel";
import {
  lastNumber,
  PortNames,
  vid as asVid,
  type Device,
  type PlanIndex,
  type Port,
  type Vid,
} from "../plan";
import { readVids } from "../planners";
import { noSuchPort, vidSet, type LegReading, type PortReading, type Reading } from "./reading";

// Only what is asked for is looked at; a device may say much more.

const address = z.looseObject({ ip: z.string() });
const family = z.looseObject({ address: z.array(address).default([]) });
const bridgePort = z.looseObject({
  pvid: z.number().optional(),
  "acceptable-frame": z.string().optional(),
  "enable-ingress-filtering": z.boolean().optional(),
});
const anInterface = z.looseObject({
  name: z.string(),
  description: z.string().default(""),
  type: z.string().default(""),
  enabled: z.boolean().default(true),
  "ietf-ip:ipv4": family.optional(),
  "ietf-ip:ipv6": family.optional(),
  "ieee802-dot1q-bridge:bridge-port": bridgePort.optional(),
});
const registration = z.looseObject({
  vids: z.union([z.string(), z.number()]),
  "port-map": z
    .array(
      z.looseObject({
        "port-ref": z.number(),
        "static-vlan-registration-entries": z
          .looseObject({ "vlan-transmitted": z.enum(["tagged", "untagged"]).optional() })
          .optional(),
      }),
    )
    .default([]),
});
const component = z.looseObject({
  "filtering-database": z
    .looseObject({ "vlan-registration-entry": z.array(registration).default([]) })
    .optional(),
  "bridge-vlan": z
    .looseObject({
      vlan: z.array(z.looseObject({ vid: z.number(), name: z.string().default("") })).default([]),
    })
    .optional(),
});
const bridges = z.looseObject({
  bridge: z.array(z.looseObject({ component: z.array(component).default([]) })).default([]),
});
const whole = z.looseObject({
  "ietf-interfaces:interfaces": z.looseObject({ interface: z.array(anInterface).default([]) }),
  "ieee802-dot1q-bridge:bridges": bridges.optional(),
});

type Whole = z.output<typeof whole>;
type Named = z.output<typeof anInterface>;

const ADMITS: Readonly<Record<string, Port["admit"]>> = {
  "admit-all-frames": "all",
  "admit-only-VLAN-tagged-frames": "tagged",
  "admit-only-untagged-and-priority-tagged": "untagged",
};

/** Which VLANs leave which port in which way, by the port's place on the case. */
interface Members {
  readonly untagged: ReadonlyMap<number, readonly Vid[]>;
  readonly tagged: ReadonlyMap<number, readonly Vid[]>;
}

function membersIn(data: Whole): Members | null {
  const own = data["ieee802-dot1q-bridge:bridges"];
  if (own === undefined) return null;
  const found = { untagged: new Map<number, Vid[]>(), tagged: new Map<number, Vid[]>() };
  for (const part of own.bridge.flatMap((bridge) => bridge.component))
    for (const entry of part["filtering-database"]?.["vlan-registration-entry"] ?? []) {
      const vids = readVids(String(entry.vids));
      if (typeof vids === "string") continue;
      for (const { "port-ref": place, "static-vlan-registration-entries": set } of entry["port-map"]) {
        const way = set?.["vlan-transmitted"];
        if (way !== undefined) found[way].set(place, [...(found[way].get(place) ?? []), ...vids]);
      }
    }
  return found;
}

/** The PVID that is said; where none is, 1 (IEEE 802.1Q section 8.8) where the port is in it, else none. */
function pvidOf(said: number | undefined, untagged: readonly Vid[]): Vid | null {
  const [first] = untagged.filter((vid) => vid === 1);
  return said === undefined ? (first ?? null) : asVid(said);
}

/** A port that is a bridge's: what the model says of it. */
function bridged(entry: Named, place: number, members: Members): PortReading {
  const own = entry["ieee802-dot1q-bridge:bridge-port"];
  const untagged = vidSet(members.untagged.get(place) ?? []);
  if (own === undefined && untagged.length === 0 && !members.tagged.has(place)) return {};
  const admit = ADMITS[(own?.["acceptable-frame"] ?? "").replace(/^.*:/, "")];
  const ingressFilter = own?.["enable-ingress-filtering"];
  return {
    untagged,
    tagged: vidSet(members.tagged.get(place) ?? []),
    pvid: pvidOf(own?.pvid, untagged),
    ...(admit === undefined ? {} : { admit }),
    ...(ingressFilter === undefined ? {} : { ingressFilter }),
  };
}

/** The port that an entry is about; the description may name the number on the case. */
function portOf(names: PortNames, { name, description, type }: Named): Port | null {
  if (!/ethernetCsmacd$|^$/.test(type)) return null;
  const [, label] = /^port ([^:]+)/.exec(description) ?? [];
  return (label === undefined ? null : names.find(`port ${label}`)) ?? names.find(name);
}

const VLAN_TYPES = /l3ipvlan$|l2vlan$/;

function legOf(entry: Named, port: Port | null): LegReading | null {
  const read = <T>(key: "ietf-ip:ipv4" | "ietf-ip:ipv6", parse: (text: string) => T | null): T[] =>
    (entry[key]?.address ?? []).flatMap(({ ip }) => parse(ip) ?? []);
  const [addresses4, addresses6] = [read("ietf-ip:ipv4", parseIpv4), read("ietf-ip:ipv6", parseIpv6)];
  if (addresses4.length + addresses6.length === 0) return null;
  const number = VLAN_TYPES.test(entry.type) ? lastNumber(entry.name) : null;
  return {
    vid: number === null ? null : asVid(number),
    port: port?.id ?? null,
    name: entry.name,
    addresses4,
    addresses6,
  };
}

/** A list of the data as the device has it, whatever it is wrapped in (RFC 8040 section 4.3: a datastore). */
function unwrapped(value: unknown): unknown {
  const isFields = typeof value === "object" && value !== null;
  return isFields && "ietf-restconf:data" in value ? value["ietf-restconf:data"] : value;
}

function parsed(text: string): Result<Whole, string> {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return err("That is no JSON: it is cut off or has something else around it. Take the whole answer.");
  }
  const read = whole.safeParse(unwrapped(value));
  if (read.success) return ok(read.data);
  const place = read.error.issues[0]?.path.join(".") ?? "";
  return err(
    `That JSON holds no "ietf-interfaces:interfaces" as RFC 8343 has it` +
      `${place === "" ? "" : ` (at ${place})`}. Take the device's answer for its whole configuration.`,
  );
}

/**
 * Reads a device's configuration as YANG data in JSON (RFC 7951): interfaces (RFC 8343), addresses (RFC 8344)
 * and the bridge (IEEE 802.1Q clause 48). An error is a sentence why it is none.
 */
export function readYang(index: PlanIndex, device: Device, text: string): Result<Reading, string> {
  const data = parsed(text);
  if (!data.ok) return data;
  const names = new PortNames(index, device);
  const members = membersIn(data.value);
  const places = new Map(index.portsOf(device.id).map(({ id }, at) => [id, at + 1] as const));
  const ports = new Map<string, PortReading>();
  const legs: LegReading[] = [];
  const missed: string[] = [];
  for (const entry of data.value["ietf-interfaces:interfaces"].interface) {
    const port = portOf(names, entry);
    const leg = legOf(entry, port);
    if (leg !== null) legs.push(leg);
    if (port !== null)
      ports.set(port.id, {
        enabled: entry.enabled,
        ...(members === null ? {} : bridged(entry, places.get(port.id) ?? 0, members)),
      });
    else if (/ethernetCsmacd$/.test(entry.type)) missed.push(noSuchPort(entry.name, index, device));
  }
  return ok({ ports, vlans: vlansIn(data.value), legs, missed });
}

function vlansIn(data: Whole): Reading["vlans"] {
  const own = data["ieee802-dot1q-bridge:bridges"];
  if (own === undefined) return null;
  return own.bridge
    .flatMap((bridge) => bridge.component)
    .flatMap((part) => part["bridge-vlan"]?.vlan ?? [])
    .flatMap(({ vid, name }) => {
      const known = asVid(vid);
      return known === null ? [] : [{ vid: known, name }];
    });
}
