import type { Device, PlanEdits } from "../../plan";
import { fillPattern } from "../name-pattern";

const KIND: Readonly<Record<Device["kind"], string>> = {
  gateway: "gateway",
  firewall: "firewall",
  switch: "switch",
  accessPoint: "AP",
  providerBox: "provider's box",
  converter: "converter",
  server: "server",
};

/** The first name by the site's pattern that no device has yet; begins with a capital, as a name does. */
export function nextDeviceName(edits: PlanEdits, kind: Device["kind"], place: string): string {
  const taken = new Set(edits.all("device").map((device) => device.name.toLowerCase()));
  const pattern = edits.need("site", edits.plan.site.id).conventions.devicePattern;
  const numbered = pattern.includes("{n}") ? pattern : `${pattern} {n}`;
  for (let n = 1; ; n += 1) {
    const text = fillPattern(numbered, { place, kind: KIND[kind], n }).slice(0, 80).trim();
    const name = `${text.slice(0, 1).toUpperCase()}${text.slice(1)}`;
    if (!taken.has(name.toLowerCase())) return name;
  }
}
