import { byNaturalText } from "../kernel";
import { pointsOf, type PlanIndex } from "../plan";
import type { ProbeFrom } from "./start";

/** A place where something can be plugged in or join, with a key that names it. */
export interface Plug { readonly key: string; readonly group: "Device of the plan" | "Laptop, at a port" | "Laptop, wireless"; readonly label: string; readonly detail: string; readonly from: ProbeFrom }

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
  return [...hosts, ...wireless, ...ports];
}

export const plugKey = (from: ProbeFrom): string => (from.at === "host" ? `host ${from.host}` : from.at === "port" ? `port ${from.port}` : `ssid ${from.ssid} ${from.device}`);
