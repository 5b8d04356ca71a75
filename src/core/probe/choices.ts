import { addressAt, addressCount, ipv4, type Address } from "../address";
import { byNaturalText, must } from "../kernel";
import { pointsOf, type PlanIndex, type ProbePlace } from "../plan";

/** A place where something can be plugged in or join, with a key that names it. */
export interface Plug {
  readonly key: string;
  readonly group: "Device of the plan" | "Laptop, at a port" | "Laptop, wireless" | "From outside";
  readonly label: string;
  readonly detail: string;
  readonly from: ProbePlace;
}

/**
 * Everything that a probe can start from: the plan's devices, a laptop at any port, a laptop on any wireless
 * name at any access point that offers it.
 */
export function plugs(index: PlanIndex): Plug[] {
  const hosts = [...index.plan.host.values()]
    .sort((a, b) => byNaturalText(a.name, b.name))
    .map((host): Plug => ({
      key: `host ${host.id}`,
      group: "Device of the plan",
      label: host.name,
      detail: host.place,
      from: { at: "host", host: host.id },
    }));
  const devices = [...index.plan.device.values()].sort((a, b) => byNaturalText(a.name, b.name));
  const ports = devices.flatMap((device) =>
    index.portsOf(device.id).map((port): Plug => ({
      key: `port ${port.id}`,
      group: "Laptop, at a port",
      label: `${device.name} ${port.label}`,
      detail: port.note,
      from: { at: "port", port: port.id, tag: null },
    })),
  );
  const wireless = [...index.plan.ssid.values()].flatMap((ssid) =>
    pointsOf(index, ssid).map((point): Plug => ({
      key: `ssid ${ssid.id} ${point.id}`,
      group: "Laptop, wireless",
      label: `${ssid.name} at ${point.name}`,
      detail: "",
      from: { at: "ssid", ssid: ssid.id, device: point.id },
    })),
  );
  const lines = [...index.plan.line.values()].map((line): Plug => ({
    key: `line ${line.id}`,
    group: "From outside",
    label: `Somebody outside, by ${line.name}`,
    detail: "",
    from: { at: "internet", line: line.id },
  }));
  const tunnels = [...index.plan.segment.values()]
    .filter(({ tunnel }) => tunnel !== null)
    .map((segment): Plug => ({
      key: `tunnel ${segment.id}`,
      group: "From outside",
      label: `${segment.name}, by its tunnel`,
      detail: "",
      from: { at: "tunnel", segment: segment.id },
    }));
  return [...hosts, ...wireless, ...ports, ...lines, ...tunnels];
}

/**
 * Somebody's own settings to begin with at a port: an address of the segment it is in, near its end, and its
 * gateway; of a documentation range (RFC 5737) where it is in none.
 */
export function settingsFor(
  index: PlanIndex,
  from: ProbePlace | null,
): { readonly address: Address; readonly length: number; readonly gateway: Address } {
  const port = from?.at === "port" ? index.plan.port.get(from.port) : undefined;
  const segment =
    port?.pvid === null || port === undefined
      ? undefined
      : index.segmentOn(index.plan.device.get(port.device)?.domain ?? null, port.pvid);
  const [prefix, gateway] =
    segment === undefined ? [] : [segment.prefixes4[0], index.gatewayOf(segment)?.addresses4[0]];
  if (prefix === undefined || gateway === undefined || prefix.length > 30)
    return {
      address: must(ipv4(0xc0000210 - 6), "an address"),
      length: 24,
      gateway: must(ipv4(0xc0000201), "an address"),
    };
  return {
    address: must(addressAt(prefix, Number(addressCount(prefix)) - 2), "the last but one"),
    length: prefix.length,
    gateway,
  };
}

export function plugKey(from: ProbePlace): string {
  switch (from.at) {
    case "host":
      return `host ${from.host}`;
    case "port":
      return `port ${from.port}`;
    case "ssid":
      return `ssid ${from.ssid} ${from.device}`;
    case "internet":
      return `line ${from.line}`;
    case "tunnel":
      return `tunnel ${from.segment}`;
  }
}
