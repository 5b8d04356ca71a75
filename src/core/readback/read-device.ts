import { deviceData } from "../device-sheet";
import type { Result } from "../kernel";
import type { Device, PlanIndex } from "../plan";
import { counted, listed } from "../repairs";
import { readDeviceTable } from "./read-table";
import { readYang } from "./read-yang";
import type { Reading } from "./reading";

/** Reads what a device shows, as YANG data in JSON or as a table; an error is a sentence why not. */
export const readDevice = (index: PlanIndex, device: Device, text: string): Result<Reading, string> =>
  text.trimStart().startsWith("{") ? readYang(index, device, text) : readDeviceTable(index, device, text);

/** How much was read, in words: "26 ports, 9 VLANs, 1 address". */
export function readWords({ ports, vlans, legs }: Reading): string {
  const parts = [
    [ports.size, "port", "ports"],
    [vlans?.length ?? 0, "VLAN", "VLANs"],
    [
      (legs ?? []).flatMap((leg) => [leg.addresses4 ?? [], leg.addresses6 ?? []].flat()).length,
      "address",
      "addresses",
    ],
  ] as const;
  return (
    listed(parts.flatMap(([count, one, many]) => (count === 0 ? [] : [counted(count, one, many)]))) ||
    "nothing"
  );
}

/** VLANs that the plan needs on a device and that are not on it yet: they are made before any port. */
export function missingVlans(index: PlanIndex, device: Device, { vlans }: Reading): number[] {
  if (vlans === null) return [];
  const known = new Set<number>(vlans.map(({ vid }) => vid));
  return deviceData(index, device).vlans.flatMap(({ vid }) => (known.has(vid) ? [] : [vid]));
}
