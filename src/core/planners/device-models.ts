import type { Device, Port } from "../plan";

/** A run of like ports on a generic model. */
export interface PortRun {
  readonly count: number; readonly prefix: string; readonly soft: string; readonly medium: Port["medium"]; readonly speedMbps: number; readonly poeMw: number;
}
export interface DeviceModel {
  readonly id: string; readonly kind: Device["kind"]; readonly bridging: Device["bridging"]; readonly model: string; readonly poeBudgetMw: number; readonly runs: readonly PortRun[];
}

const copper = (count: number, poeMw = 0, prefix = ""): PortRun => ({ count, prefix, soft: "e", medium: "copper", speedMbps: 1000, poeMw });
const fibre = (count: number): PortRun => ({ count, prefix: "", soft: "f", medium: "fibre", speedMbps: 10_000, poeMw: 0 });
const line = (count: number): PortRun => ({ count, prefix: "Line ", soft: "w", medium: "copper", speedMbps: 1000, poeMw: 0 });

/** Generic hardware; the numbers printed on the case run on from one run to the next. */
export const DEVICE_MODELS: readonly DeviceModel[] = [
  { id: "gateway-4", kind: "gateway", bridging: "vlan", model: "Gateway, 1 line and 4 ports", poeBudgetMw: 0, runs: [line(1), copper(4)] },
  { id: "gateway-8", kind: "gateway", bridging: "vlan", model: "Gateway, 2 lines and 8 ports", poeBudgetMw: 0, runs: [line(2), copper(8)] },
  { id: "switch-8", kind: "switch", bridging: "vlan", model: "8-port switch, 2 uplinks", poeBudgetMw: 0, runs: [copper(8), fibre(2)] },
  { id: "switch-8-poe", kind: "switch", bridging: "vlan", model: "8-port PoE switch, 2 uplinks", poeBudgetMw: 65_000, runs: [copper(8, 30_000), fibre(2)] },
  { id: "switch-16", kind: "switch", bridging: "vlan", model: "16-port switch, 2 uplinks", poeBudgetMw: 0, runs: [copper(16), fibre(2)] },
  { id: "switch-16-poe", kind: "switch", bridging: "vlan", model: "16-port PoE switch, 2 uplinks", poeBudgetMw: 120_000, runs: [copper(16, 30_000), fibre(2)] },
  { id: "switch-24-poe", kind: "switch", bridging: "vlan", model: "24-port PoE switch, 2 uplinks", poeBudgetMw: 185_000, runs: [copper(24, 30_000), fibre(2)] },
  { id: "switch-24", kind: "switch", bridging: "vlan", model: "24-port switch, 2 uplinks", poeBudgetMw: 0, runs: [copper(24), fibre(2)] },
  { id: "switch-48-poe", kind: "switch", bridging: "vlan", model: "48-port PoE switch, 4 uplinks", poeBudgetMw: 370_000, runs: [copper(48, 30_000), fibre(4)] },
  { id: "switch-48", kind: "switch", bridging: "vlan", model: "48-port switch, 4 uplinks", poeBudgetMw: 0, runs: [copper(48), fibre(4)] },
  { id: "switch-5-plain", kind: "switch", bridging: "plain", model: "5-port unmanaged switch", poeBudgetMw: 0, runs: [copper(5)] },
  { id: "switch-16-plain", kind: "switch", bridging: "plain", model: "16-port unmanaged switch", poeBudgetMw: 0, runs: [copper(16)] },
  { id: "access-point", kind: "accessPoint", bridging: "vlan", model: "Access point, 1 uplink", poeBudgetMw: 0, runs: [copper(1)] },
  { id: "provider-box", kind: "providerBox", bridging: "plain", model: "Provider's box, 4 ports", poeBudgetMw: 0, runs: [copper(4)] },
];
