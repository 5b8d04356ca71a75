import { ascending, byNaturalText, equal } from "../../kernel";
import { nameOf, type Device, type PlanEdits, type PlanIndex, type Port, type Vid } from "../../plan";

/** What is done at a port or left out, in words with its reason. */
export interface Reason {
  readonly at: string;
  readonly why: string;
}

/** What switching a guard on would set, and what it leaves out. */
export interface SwitchedOn {
  readonly sets: readonly Reason[];
  readonly leaves: readonly Reason[];
}

/** Collects what is set; what is set already is not said again. */
export class Doing {
  readonly sets: Reason[] = [];
  readonly leaves: Reason[] = [];
  readonly edits: PlanEdits;
  readonly index: PlanIndex;

  constructor(index: PlanIndex, edits: PlanEdits) {
    this.index = index;
    this.edits = edits;
  }

  guard(port: Port, guards: Partial<Port["guards"]>, why: string): void {
    const own = this.edits.need("port", port.id).guards;
    const isSet = Object.entries(guards).every(([name, value]) => own[name as keyof typeof own] === value);
    if (isSet) return;
    this.edits.patch("port", port.id, { guards: { ...own, ...guards } });
    this.sets.push({ at: nameOf(this.index, "port", port.id), why });
  }

  port(port: Port, fields: Partial<Pick<Port, "admit" | "voicePolicy">>, why: string): void {
    const own = this.edits.need("port", port.id);
    if (Object.entries(fields).every(([name, value]) => equal(own[name as keyof Port], value))) return;
    this.edits.patch("port", port.id, fields);
    this.sets.push({ at: nameOf(this.index, "port", port.id), why });
  }

  protect(device: Device, fields: Partial<Device["protections"]>, why: string): void {
    const own = this.edits.need("device", device.id).protections;
    this.edits.patch("device", device.id, { protections: { ...own, ...fields } });
    this.sets.push({ at: device.name, why });
  }

  leave(at: string, why: string): void {
    this.leaves.push({ at, why });
  }
}

/** The switches of a site by name. */
export const switches = ({ plan }: PlanIndex): Device[] =>
  [...plan.device.values()]
    .filter(({ bridging, kind }) => bridging === "vlan" && kind === "switch")
    .sort((a, b) => byNaturalText(a.name, b.name) || byNaturalText(a.id, b.id));

/** "VLAN 20", "VLANs 20, 30". */
export const vidsText = (vids: readonly number[]): string =>
  `VLAN${vids.length === 1 ? "" : "s"} ${vids.join(", ")}`;

/** The VLANs that a switch's ports carry, ascending. */
export const vidsOn = (index: PlanIndex, device: Device): Vid[] =>
  [
    ...new Set(
      index
        .portsOf(device.id)
        .filter(({ enabled }) => enabled)
        .flatMap((port) => [...port.untagged, ...port.tagged]),
    ),
  ].sort(ascending);

/** Ports of switches with nothing but end devices behind them, which are planned there. */
export const endPorts = (index: PlanIndex, device: Device): Port[] =>
  index
    .portsOf(device.id)
    .filter(
      (port) => port.enabled && index.linkAt(port.id) === undefined && index.hostsAt(port.id).length > 0,
    );
