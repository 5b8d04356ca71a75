import type { Device, PlanIndex, Port } from "../plan";
import { portCarries } from "../forwarding";
import { tapeOf, tapeSlots, type Tape } from "./jacket";
import { devicesInOrder, pluggedIn } from "./port-sheet";

/** Where a VLAN meets a port: untagged, tagged or not at all, and whether it has to be there. */
export interface PathCell {
  readonly vid: number;
  readonly has: "tip" | "band" | "none";
  readonly state: "right" | "missing" | "needless";
}
export interface PathRow {
  readonly port: Port;
  readonly pluggedIn: string;
  /** One for each VLAN, in the order of the VIDs. */ readonly cells: readonly PathCell[];
}
export interface PathDevice {
  readonly device: Device;
  readonly rows: readonly PathRow[];
}
export interface VlanPaths {
  readonly tapes: readonly Tape[];
  readonly devices: readonly PathDevice[];
}

/**
 * Every VLAN of a domain against the ports of its gear: which it passes, where it is missing, where nobody
 * needs it. "between gear" takes ports that have gear that knows VLANs at the far end; "all" also those of
 * end devices.
 */
export function vlanPaths(index: PlanIndex, domain: string | null, which: "between gear" | "all"): VlanPaths {
  const carries = portCarries(index);
  const devices = devicesInOrder(index).filter(
    (device) => device.domain === domain && device.bridging === "vlan",
  );
  const listed = devices.map((device) => ({
    device,
    ports: index
      .portsOf(device.id)
      .filter(
        (port) => (which === "all" || carries.has(port.id)) && !index.groups("interfacesByPort").has(port.id),
      ),
  }));
  const known = tapeSlots(index, domain);
  const seen = new Set(known.map((tape) => tape.vid));
  const more = new Set<number>(
    listed
      .flatMap(({ ports }) => ports.flatMap((port) => [...port.untagged, ...port.tagged]))
      .filter((vid) => !seen.has(vid)),
  );
  const tapes = [...known, ...[...more].map((vid) => tapeOf(index, domain, vid))].sort(
    (a, b) => a.vid - b.vid,
  );
  const cell = (port: Port, vid: number): PathCell => {
    const carry = carries.get(port.id);
    const untagged = (port.untagged as readonly number[]).includes(vid) || port.pvid === vid;
    const tagged = (port.tagged as readonly number[]).includes(vid) ? "band" : "none";
    const needed = carry?.needless.includes(vid) === true ? "needless" : "right";
    return {
      vid,
      has: untagged ? "tip" : tagged,
      state: carry?.missing.includes(vid) === true ? "missing" : needed,
    };
  };
  return {
    tapes,
    devices: listed
      .filter(({ ports }) => ports.length > 0)
      .map(({ device, ports }) => ({
        device,
        rows: ports.map((port) => ({
          port,
          pluggedIn: pluggedIn(index, port),
          cells: tapes.map(({ vid }) => cell(port, vid)),
        })),
      })),
  };
}

/** How often a VLAN is carried, missing and needless on the ports of such a sheet. */
export function pathCounts(
  paths: VlanPaths,
  vid: number,
): { readonly carried: number; readonly missing: number; readonly needless: number } {
  const cells = paths.devices.flatMap(({ rows }) =>
    rows.flatMap((row) => row.cells.filter((cell) => cell.vid === vid)),
  );
  const count = (test: (cell: PathCell) => boolean) => cells.filter(test).length;
  return {
    carried: count((cell) => cell.has !== "none"),
    missing: count((cell) => cell.state === "missing"),
    needless: count((cell) => cell.state === "needless"),
  };
}
