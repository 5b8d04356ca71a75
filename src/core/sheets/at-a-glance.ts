import type { Family, Finding } from "../checks";
import { counted } from "../repairs";
import { byNaturalText } from "../kernel";
import { hasRadios, type Device, type Plan, type PlanIndex, type Port, type Wall, type Host } from "../plan";
import { forwardsPackets } from "../routing";
import { modeOf } from "../fabric";
import { segmentTotals } from "./segment-sheet";

/** One line of a sheet's summary. */
export interface Glance {
  readonly name: string;
  readonly value: string;
}

/** The sheets of the plan in the order of the job. */
export const SHEET_ORDER: readonly Family[] = [
  "survey",
  "segments",
  "addresses",
  "hardware",
  "ports",
  "wireless",
  "gateway",
  "walls",
  "guards",
];

/** "3 access points, 2 switches": how many there are of each, the most first. */
function tally(words: readonly string[], plural: (word: string) => string): string {
  const counts = new Map<string, number>();
  for (const word of words) counts.set(word, (counts.get(word) ?? 0) + 1);
  return (
    [...counts]
      .sort((a, b) => b[1] - a[1] || byNaturalText(a[0], b[0]))
      .map(([word, count]) => `${count} ${count === 1 ? word : plural(word)}`)
      .join(", ") || "none"
  );
}

const GEAR = {
  gateway: "gateway",
  firewall: "firewall",
  switch: "switch",
  accessPoint: "access point",
  providerBox: "provider's box",
  converter: "converter",
  server: "server",
} as const;
const pluralOf = (word: string): string =>
  word.endsWith("switch") || word.endsWith("box") ? `${word}es` : `${word}s`;

function ofPorts(index: PlanIndex): Glance[] {
  const ports = [...index.plan.port.values()].filter(
    (port) => index.plan.device.get(port.device)?.bridging === "vlan",
  );
  const modes = (test: (port: Port) => boolean) => String(ports.filter(test).length);
  return [
    { name: "Ports", value: `${ports.length} on gear that knows VLANs` },
    { name: "Access", value: modes((port) => modeOf(port) === "access" || modeOf(port) === "dataVoice") },
    { name: "Trunks", value: modes((port) => modeOf(port) === "trunk") },
    { name: "Off", value: modes((port) => modeOf(port) === "off") },
    { name: "To decide", value: modes((port) => modeOf(port) === "undecided") },
  ];
}

/** How many networks a device that sends packets on has an address in. */
const legsOf = (index: PlanIndex, device: Device): number =>
  forwardsPackets(device)
    ? index.interfacesOf(device.id).filter(({ segment }) => segment !== null).length
    : 0;

function ofWalls({ plan }: PlanIndex): Glance[] {
  const doors = (door: Wall["door"]) =>
    String([...plan.wall.values()].filter((wall) => wall.door === door).length);
  return [
    { name: "Zones", value: String(plan.zone.size) },
    { name: "Open", value: doors("open") },
    { name: "For services", value: doors("services") },
    { name: "All others", value: "closed" },
  ];
}

function ofGuards({ plan }: PlanIndex): Glance[] {
  const devices = [...plan.device.values()].filter(({ bridging }) => bridging === "vlan");
  const count = (test: (device: (typeof devices)[number]) => boolean) =>
    `${devices.filter(test).length} of ${devices.length}`;
  return [
    { name: "Spanning tree", value: count(({ tree }) => tree.kind !== "none") },
    { name: "DHCP snooping", value: count(({ protections }) => protections.snooping.length > 0) },
    { name: "ARP inspection", value: count(({ protections }) => protections.arpInspection.length > 0) },
    {
      name: "802.1X",
      value: counted([...plan.port.values()].filter(({ guards }) => guards.signIn).length, "port", "ports"),
    },
  ];
}

function ofSegments(index: PlanIndex): Glance[] {
  const totals = segmentTotals(index);
  return [
    { name: "Segments", value: `${totals.segments} in ${counted(totals.zones, "zone", "zones")}` },
    {
      name: "Addresses",
      value: `${totals.now} in use, ${totals.planned} planned, ${totals.usable} usable`,
    },
    { name: "DHCP", value: `${totals.offered} addresses in ${counted(totals.scopes, "scope", "scopes")}` },
  ];
}

function ofAddresses(hosts: readonly Host[]): Glance[] {
  const manner = (wanted: Host["manner"]) => hosts.filter((host) => host.manner === wanted);
  return [
    { name: "End devices", value: String(hosts.length) },
    { name: "Static", value: String(manner("typed").length) },
    { name: "Reserved", value: String(manner("reserved").length) },
    { name: "By DHCP", value: String(manner("dynamic").length) },
    { name: "MAC to read", value: String(manner("reserved").filter(({ mac }) => mac === null).length) },
  ];
}

/** What a sheet holds, in a few figures; nothing for one that shows the whole plan. */
export function glanceAt(index: PlanIndex, sheet: Family): Glance[] {
  const { plan } = index;
  switch (sheet) {
    case "survey":
      return [
        { name: "Rooms", value: String(plan.room.size) },
        { name: "Gear found", value: String(plan.gear.size) },
        { name: "Lines", value: String(plan.line.size) },
      ];
    case "segments":
      return ofSegments(index);
    case "addresses":
      return ofAddresses([...plan.host.values()]);
    case "hardware":
      return [
        {
          name: "Gear",
          value: tally(
            [...plan.device.values()].map(({ kind }) => GEAR[kind]),
            pluralOf,
          ),
        },
        { name: "Cables", value: String(plan.link.size) },
        { name: "Lines", value: String(plan.line.size) },
      ];
    case "ports":
      return ofPorts(index);
    case "wireless":
      return [
        { name: "Names", value: String(plan.ssid.size) },
        {
          name: "Radios on",
          value: String([...plan.radio.values()].filter(({ enabled }) => enabled).length),
        },
      ];
    case "gateway":
      return [
        { name: "Lines", value: String(plan.line.size) },
        {
          name: "Legs",
          value: String([...plan.device.values()].reduce((sum, device) => sum + legsOf(index, device), 0)),
        },
        { name: "Forwards", value: String(plan.forward.size) },
        { name: "Routes", value: String([...plan.device.values()].flatMap(({ routes }) => routes).length) },
      ];
    case "walls":
      return ofWalls(index);
    case "guards":
      return ofGuards(index);
  }
}

/** How far a sheet's part of the plan has come, whatever is found wrong in it. */
export function progressOf(plan: Plan, sheet: Family): "empty" | "begun" | "sound" {
  const sized = (size: number) => (size === 0 ? "empty" : "sound");
  switch (sheet) {
    case "survey":
      if (plan.room.size === 0) return "empty";
      if (plan.segment.size === 0) return "begun";
      return "sound";
    case "segments":
      return sized(plan.segment.size);
    case "addresses":
      return sized(plan.host.size);
    case "hardware":
      return sized(plan.device.size);
    case "ports":
      return sized(plan.port.size);
    case "wireless":
      if (plan.ssid.size === 0) return "empty";
      if ([...plan.radio.values()].some((radio) => radio.enabled && radio.channel === null)) return "begun";
      return "sound";
    case "gateway":
      return sized([...plan.interface.values()].filter(({ line }) => line !== null).length);
    case "walls":
      return sized(plan.wall.size);
    case "guards":
      return [...plan.device.values()].some(
        (device) => device.tree.kind !== "none" || device.protections.snooping.length > 0,
      )
        ? "sound"
        : "empty";
  }
}

/** Where to go on: a sheet and why; the probe where all is done. */
export interface NextStep {
  readonly sheet: Family | "probe";
  readonly why: string;
}

/**
 * The next thing to do: the first stop in the order of the job, then the first sheet with nothing in it that
 * the site has something for, then what is only a warning, then proof.
 */
export function nextStep({ plan }: PlanIndex, findings: readonly Finding[]): NextStep {
  const at = (sheet: Family, severity: Finding["severity"]) =>
    findings.filter((finding) => finding.family === sheet && finding.severity === severity).length;
  const stopped = SHEET_ORDER.find((sheet) => at(sheet, "stop") > 0);
  if (stopped !== undefined)
    return {
      sheet: stopped,
      why: `${counted(at(stopped, "stop"), "stop has", "stops have")} to be mended before anything is set up.`,
    };
  const gear = [...plan.device.values()];
  // What the site has nothing for is no step: names without an access point, trees without a second switch, a
  // survey of what is drawn already.
  const concerns: Partial<Record<Family, boolean>> = {
    wireless: gear.some(hasRadios),
    guards: gear.filter(({ kind, bridging }) => kind === "switch" && bridging === "vlan").length > 1,
    survey: plan.segment.size === 0,
  };
  const open = SHEET_ORDER.find((sheet) => progressOf(plan, sheet) !== "sound" && concerns[sheet] !== false);
  if (open !== undefined)
    return {
      sheet: open,
      why:
        progressOf(plan, open) === "empty"
          ? "Nothing is planned there yet."
          : "Something there is still to be decided.",
    };
  const warned = SHEET_ORDER.find((sheet) => at(sheet, "warn") > 0);
  return warned === undefined
    ? { sheet: "probe", why: "Nothing is found wrong. Ask it what the customer will ask." }
    : { sheet: warned, why: `${counted(at(warned, "warn"), "warning", "warnings")} to look at.` };
}
