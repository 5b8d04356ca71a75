import type { DeviceData, SheetAddress, SheetPort } from "./sheet-types";

const BRIDGE = "bridge";
const COMPONENT = "vlans";
const ADMIT = {
  all: "admit-all-frames",
  tagged: "admit-only-VLAN-tagged-frames",
  untagged: "admit-only-untagged-and-priority-tagged",
} as const;

const address = (sheetAddress: SheetAddress) => ({
  ip: sheetAddress.address,
  "prefix-length": sheetAddress.prefixLength,
});

/**
 * What a port is called in the data: the software's name, or the number on the case where several share it or
 * there is none.
 */
function portNames(ports: readonly SheetPort[]): Map<SheetPort, string> {
  const count = new Map<string, number>();
  for (const port of ports) count.set(port.softwareName, (count.get(port.softwareName) ?? 0) + 1);
  return new Map(
    ports.map((port) => [
      port,
      port.softwareName === "" || (count.get(port.softwareName) ?? 0) > 1
        ? `port ${port.label}`
        : port.softwareName,
    ]),
  );
}

function bridgePort(data: DeviceData, port: SheetPort) {
  if (!data.knowsVlans || port.routed) return {};
  return {
    "ieee802-dot1q-bridge:bridge-port": {
      "bridge-name": BRIDGE,
      "component-name": COMPONENT,
      "port-type": "ieee802-dot1q-bridge:c-vlan-bridge-port",
      ...(port.pvid === null ? {} : { pvid: port.pvid }),
      "acceptable-frame": ADMIT[port.admit],
      "enable-ingress-filtering": port.ingressFilter,
    },
  };
}

const ip = (name: "ipv4" | "ipv6", addresses: readonly SheetAddress[]) =>
  addresses.length === 0 ? {} : { [`ietf-ip:${name}`]: { enabled: true, address: addresses.map(address) } };

/** How frames of a VLAN leave a port; null when they do not. */
function wayIn(port: DeviceData["ports"][number], vid: number): "untagged" | "tagged" | null {
  if (port.untagged.includes(vid)) return "untagged";
  return port.tagged.includes(vid) ? "tagged" : null;
}

/** Gives each wanted name, with a number after it where it is taken already. */
function freeNames(taken: Set<string>): (wanted: string) => string {
  return (wanted) => {
    let name = wanted;
    for (let n = 2; taken.has(name); n += 1) name = `${wanted} ${n}`;
    taken.add(name);
    return name;
  };
}

/** The ports that a VLAN is registered at, and how it leaves them (IEEE 802.1Q section 12.7.7). */
const portMap = (data: DeviceData, vid: number) =>
  data.ports.flatMap((port, at) => {
    const way = wayIn(port, vid);
    if (way === null || port.routed) return [];
    return [
      {
        "port-ref": at + 1,
        "static-vlan-registration-entries": {
          "registrar-admin-control": "fixed-new-ignored",
          "vlan-transmitted": way,
        },
      },
    ];
  });

function bridges(data: DeviceData) {
  const component = {
    name: COMPONENT,
    type: "ieee802-dot1q-bridge:c-vlan-component",
    "filtering-database": {
      "vlan-registration-entry": data.vlans.map(({ vid }) => ({
        "database-id": 1,
        vids: String(vid),
        "entry-type": "static",
        "port-map": portMap(data, vid),
      })),
    },
    "bridge-vlan": { vlan: data.vlans.map(({ vid, name }) => ({ vid, name: name.slice(0, 32) })) },
  };
  return {
    "ieee802-dot1q-bridge:bridges": {
      bridge: [
        {
          name: BRIDGE,
          "bridge-type": "ieee802-dot1q-bridge:customer-vlan-bridge",
          component: [component],
        },
      ],
    },
  };
}

/**
 * The device's settings as YANG data in JSON (RFC 7951): interfaces (RFC 8343), their addresses (RFC 8344),
 * and the bridge with its VLANs (IEEE 802.1Q clause 48, module ieee802-dot1q-bridge). Membership stands in
 * the filtering database as static VLAN registration entries (IEEE 802.1Q section 8.8.2), ports by their
 * place on the case counted from 1. An address a line gives is left out, and so is the bridge's own MAC
 * address, which the plan does not know.
 */
export function yangData(data: DeviceData): Record<string, unknown> {
  const names = portNames(data.ports);
  const named = freeNames(new Set(names.values()));
  const ports = data.ports.map((port) => {
    const own = data.interfaces.find((leg) => leg.port === port.label);
    return {
      name: names.get(port) ?? port.label,
      description: [`port ${port.label}`, port.pluggedIn].filter((part) => part !== "").join(": "),
      type: "iana-if-type:ethernetCsmacd",
      enabled: port.enabled,
      ...ip("ipv4", own?.addresses4 ?? []),
      ...ip("ipv6", own?.addresses6 ?? []),
      ...bridgePort(data, port),
    };
  });
  const legs = data.interfaces
    .filter((leg) => leg.port === "")
    .map((leg) => ({
      name: named(leg.vid === null ? leg.name : `vlan ${leg.vid}`),
      description: leg.segment || leg.line || leg.name,
      type: leg.vid === null ? "iana-if-type:other" : "iana-if-type:l3ipvlan",
      enabled: true,
      ...ip("ipv4", leg.addresses4),
      ...ip("ipv6", leg.addresses6),
    }));
  const lags = data.lags.map((lag) => ({
    name: named(lag.name),
    description: `ports ${lag.ports.join(", ")}`,
    type: "iana-if-type:ieee8023adLag",
    enabled: true,
  }));
  const interfaces = { "ietf-interfaces:interfaces": { interface: [...ports, ...legs, ...lags] } };
  if (!data.knowsVlans) return interfaces;
  return { ...interfaces, ...bridges(data) };
}

export const yangText = (data: DeviceData): string => `${JSON.stringify(yangData(data), null, 2)}\n`;
