import { nameOf, type Device, type PlanIndex } from "../plan";
import { BASELINE_FIELDS, baselineText, beyondDevice, clockText, lacksText } from "../planners";
import type { SheetProtection } from "./sheet-types";

/** What stands on a device as the description of each port that leads to other gear. */
const descriptions = (index: PlanIndex, device: Device): SheetProtection[] =>
  device.baseline.describes !== "yes"
    ? []
    : index.portsOf(device.id).flatMap((port): SheetProtection[] => {
        const link = index.linkAt(port.id);
        if (link === undefined) return [];
        const far = link.a === port.id ? link.b : link.a;
        return [{ setting: `Description of port ${port.label}`, value: `to ${nameOf(index, "port", far)}` }];
      });

/** How a device is administered, as its own pages show it: nothing of what is not decided. */
export const baselineOn = (index: PlanIndex, device: Device): SheetProtection[] =>
  [
    ...BASELINE_FIELDS.map(([field, setting]) => ({
      setting,
      value: field === "clock" ? clockText(index, device.baseline) : baselineText(device.baseline, field),
    })),
    ...descriptions(index, device),
    { setting: "Registered, licence", value: device.registration },
  ].filter(({ value }) => value !== "");

/** How a device is administered, as far as that is decided, and what of it it can't do. */
export function administrationOn(index: PlanIndex, device: Device): SheetProtection[] {
  const beyond = beyondDevice(index, device).map(
    (field) => BASELINE_FIELDS.find(([key]) => key === field)?.[1].toLowerCase() ?? field,
  );
  const remarks: SheetProtection[] = [
    { setting: "Does not do", value: lacksText(device) },
    { setting: "Decided for the site, left out here", value: beyond.join(", ") },
  ];
  return [...baselineOn(index, device), ...remarks.filter(({ value }) => value !== "")];
}

/** What a device is and runs. */
export function identityOf(device: Device): SheetProtection[] {
  const { serial, hardwareRevision, softwareFound, softwareWanted, licenceUntil, abilities } = device;
  const rows: SheetProtection[] = [
    { setting: "Serial number", value: serial },
    { setting: "Hardware revision", value: hardwareRevision },
    { setting: "Software found", value: softwareFound },
    { setting: "Software wanted", value: softwareWanted },
    { setting: "Licence until", value: licenceUntil ?? "" },
    {
      setting: "Unless a change is confirmed",
      value: abilities.fallsBack ? "it goes back by itself: switch that on for the work" : "",
    },
  ];
  return rows.filter(({ value }) => value !== "");
}
