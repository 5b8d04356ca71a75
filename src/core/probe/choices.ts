import { byNaturalText } from "../kernel";
import { pointsOf, type PlanIndex, type ProbePlace } from "../plan";

/** A place where something can be plugged in or join, with a key that names it. */
export interface Plug { readonly key: string; readonly group: "Device of the plan" | "Laptop, at a port" | "Laptop, wireless" | "From outside"; readonly label: string; readonly detail: string; readonly from: ProbePlace }

/** Everything that a probe can start from: the plan's devices, a laptop at any port, a laptop on any wireless name at any access point that offers it. */
export function plugs(index: PlanIndex): Plug[] {
  const hosts = [...index.plan.host.values()].sort((a, b) => byNaturalText(a.name, b.name)).map((host): Plug => ({
    key: `host ${host.id}`, group: "Device of the plan", label: host.name, detail: host.place, from: { at: "host", host: host.id },
  }));
  const devices = [...index.plan.device.values()].sort((a, b) => byNaturalText(a.name, b.name));
  const ports = devices.flatMap((device) => index.portsOf(device.id).map((port): Plug => ({
    key: `port ${port.id}`, group: "Laptop, at a port", label: `${device.name} ${port.label}`, detail: port.note, from: { at: "port", port: port.id, tag: null },
  })));
  const wireless = [...index.plan.ssid.values()].flatMap((ssid) => pointsOf(index, ssid).map((point): Plug => ({
    key: `ssid ${ssid.id} ${point.id}`, group: "Laptop, wireless", label: `${ssid.name} at ${point.name}`, detail: "", from: { at: "ssid", ssid: ssid.id, device: point.id },
  })));
  const lines = [...index.plan.line.values()].map((line): Plug => ({ key: `line ${line.id}`, group: "From outside", label: `Somebody outside, by ${line.name}`, detail: "", from: { at: "internet", line: line.id } }));
  return [...hosts, ...wireless, ...ports, ...lines];
}

export function plugKey(from: ProbePlace): string {
  switch (from.at) {
    case "host": return `host ${from.host}`;
    case "port": return `port ${from.port}`;
    case "ssid": return `ssid ${from.ssid} ${from.device}`;
    case "internet": return `line ${from.line}`;
  }
}
