import { formatAddress, formatPrefix, formatRange } from "../address";
import { must } from "../kernel";
import { modeOf } from "../fabric";
import {
  leafletFor,
  nameOf,
  type Device,
  type EntityOf,
  type Host,
  type PlanIndex,
  type Port,
} from "../plan";
import { BASELINE_FIELDS, baselineText, clockText, firstContact, formatLease } from "../planners";
import { counted, listed } from "../repairs";
import { runText } from "../sheets";
import type { Edit, Operation, Page } from "./operations";

/** What is entered: a setting and its value, as they stand on the page. */
export type Value = readonly [name: string, value: string];

/** An operation in words: what to do, and the values to enter. */
export interface OperationWords {
  readonly title: string;
  readonly values: readonly Value[];
}

const TREE_WORDS = {
  none: "off",
  rapid: "rapid (RSTP)",
  multiple: "multiple (MSTP)",
  perVlan: "one for each VLAN",
} as const;
const ADMIT_WORDS = {
  all: "all frames",
  tagged: "tagged frames only",
  untagged: "untagged frames only",
} as const;

const vids = (list: readonly number[]): string => [...list].sort((a, b) => a - b).join(" ") || "none";

/** The entities of a kind that an operation makes or changes. */
function made<K extends Extract<Edit, { do: "put" }>["kind"]>({ edits }: Operation, kind: K): EntityOf<K>[] {
  return edits.flatMap((edit) =>
    edit.do === "put" && edit.kind === kind ? [edit.entity as EntityOf<K>] : [],
  );
}

const gone = ({ edits }: Operation, kind: Edit["kind"]): number =>
  edits.filter((edit) => edit.do === "remove" && edit.kind === kind).length;

/** What a port is to be, in a few words. */
function roleText(port: Port): string {
  switch (modeOf(port)) {
    case "off":
      return "off";
    case "undecided":
      return "in no VLAN";
    case "access":
      return `untagged ${vids(port.untagged)}`;
    case "dataVoice":
      return `untagged ${vids(port.untagged)}, phones tagged ${vids(port.tagged)}`;
    case "trunk":
      return (
        `trunk, ${counted(port.tagged.length, "VLAN", "VLANs")} tagged` +
        (port.untagged.length === 0 ? "" : `, untagged ${vids(port.untagged)}`)
      );
  }
}

/** What stands on ports to other gear beside their VLANs, by how the device is administered. */
function towardsGear(index: PlanIndex, device: string, ports: readonly Port[]): Value[] {
  const baseline = index.plan.device.get(device)?.baseline;
  const far = ports.flatMap(({ id }) => {
    const link = index.linkAt(id);
    return link === undefined ? [] : [link.a === id ? link.b : link.a];
  });
  if (baseline === undefined || far.length === 0) return [];
  return [
    ...(baseline.uplinks === "byHand" ? [["Automatic role", "off"] as const] : []),
    ...(baseline.describes === "yes"
      ? far.map((id) => ["Description", `to ${nameOf(index, "port", id)}`] as const)
      : []),
  ];
}

function portWords(index: PlanIndex, { device, ports }: Operation): OperationWords {
  const [port] = ports;
  const lags = [...new Set(ports.flatMap(({ lag }) => lag ?? []))];
  if (port === undefined) return { title: "Link aggregation", values: [] };
  const run = runText(ports, index.portsOf(device));
  const which = ports.length === 1 ? `Port ${run}` : `Ports ${run}, count ${ports.length}`;
  const soft = ports.map(({ softwareName }) => softwareName).filter((name) => name !== "");
  return {
    title: `${which}: ${roleText(port)}`,
    values: [
      ["On the case", run],
      ...(soft.length === 0 ? [] : [["In software", soft.join(", ")] as const]),
      ["Switched", port.enabled ? "on" : "off"],
      ["Untagged", vids(port.untagged)],
      ["PVID", port.pvid === null ? "none" : `${port.pvid}`],
      ["Tagged", `${vids(port.tagged)}${port.tagged.length === 0 ? "" : ` (${port.tagged.length})`}`],
      ["Admits", ADMIT_WORDS[port.admit]],
      ["Ingress filter", port.ingressFilter ? "on" : "off"],
      ...lags.map((id) => ["LAG", nameOf(index, "lag", id)] as const),
      ...towardsGear(index, device, ports),
    ],
  };
}

function legWords(index: PlanIndex, operation: Operation): OperationWords {
  const [leg] = made(operation, "interface");
  if (leg === undefined) return { title: "Take an address off", values: [] };
  const segment = index.plan.segment.get(leg.segment ?? "");
  const vid = segment === undefined ? null : index.vidOf(segment);
  const address = leg.addresses4[0];
  const prefix = segment?.prefixes4[0];
  const where = segment === undefined ? nameOf(index, "line", leg.line ?? "") : segment.name;
  const more = [...leg.addresses4.slice(1), ...leg.addresses6].map(formatAddress);
  const own = address === undefined ? "by DHCP" : formatAddress(address);
  return {
    title: `${leg.line === null ? "Address" : "Line"} ${own} in ${where}`,
    values: [
      ["Address", own],
      ...(prefix === undefined ? [] : [["Prefix", formatPrefix(prefix)] as const]),
      ...(more.length === 0 ? [] : [["And", more.join(", ")] as const]),
      ...(vid === null ? [] : [["VLAN", `${vid} ${where}`] as const]),
      ...(leg.port === null ? [] : [["Port", nameOf(index, "port", leg.port)] as const]),
      ...(leg.relayTo === null ? [] : [["DHCP relay to", formatAddress(leg.relayTo)] as const]),
      ...(gone(operation, "interface") > 0 ? [["Instead of", "its first address, which goes"] as const] : []),
    ],
  };
}

/** An address, and the only port that it is reached at where both are set together. */
function addressWords(index: PlanIndex, operation: Operation): OperationWords {
  const leg = legWords(index, operation);
  if (operation.ports.length === 0) return leg;
  const port = portWords(index, operation);
  return {
    title: `${leg.title}; ${port.title}`,
    values: [
      ...leg.values,
      ["Together", "applied at once: either alone puts it out of reach"],
      ...port.values,
    ],
  };
}

function scopeWords(index: PlanIndex, operation: Operation): OperationWords {
  const [scope] = made(operation, "scope");
  if (scope === undefined) return { title: "Switch a DHCP server off", values: [] };
  const segment = nameOf(index, "segment", scope.segment);
  const home = index.plan.segment.get(scope.segment);
  const gateway = home === undefined ? undefined : index.gatewayOf(home);
  return {
    title: `DHCP server for ${segment}${scope.family === 6 ? ", IPv6" : ""}`,
    values: [
      ["Pool", scope.pools.map(formatRange).join(", ") || "none: reservations only"],
      ...(scope.exclusions.length === 0
        ? []
        : [["Left out", scope.exclusions.map(formatRange).join(", ")] as const]),
      ...(gateway === undefined
        ? []
        : [["Gateway", gateway.addresses4.map(formatAddress).join(", ")] as const]),
      ["Lease", formatLease(scope.leaseSeconds)],
      ...scope.options.map(({ code, name, value }) => [`Option ${code} ${name}`, value] as const),
    ],
  };
}

function vlanWords(operation: Operation): OperationWords {
  const rows = made(operation, "deviceVlan").sort((a, b) => a.vid - b.vid);
  return {
    title:
      rows.length === 0
        ? "Take VLANs off"
        : `Create ${counted(rows.length, "VLAN", "VLANs")}: ${listed(rows.map(({ vid }) => `${vid}`))}`,
    values: rows.map(({ vid, name }) => [`${vid}`, name]),
  };
}

function treeWords({ tree }: Device): OperationWords {
  const region: Value[] =
    tree.kind === "multiple" ? [["Region", `${tree.region}, revision ${tree.revision}`]] : [];
  return {
    title: `Spanning tree ${TREE_WORDS[tree.kind]}, priority ${tree.priority}`,
    values: [["Kind", TREE_WORDS[tree.kind]], ["Priority", `${tree.priority}`], ...region],
  };
}

function filterWords({ filter }: Device, operation: Operation): OperationWords {
  const rules = counted(made(operation, "rule").length, "rule", "rules");
  return {
    title: filter.list === "none" ? "Switch the filter off" : "Switch the filter on",
    values: [
      ["Rules", filter.list === "planned" ? "as the walls need: see the device's sheet" : rules],
      ["What no rule takes", filter.forwardDefault],
      ["For the device itself", filter.inputDefault],
    ],
  };
}

function radioWords(operation: Operation): OperationWords {
  const radios = made(operation, "radio");
  return {
    title: `Set ${counted(radios.length, "radio", "radios")}`,
    values: radios.map(({ band, enabled, channel, widthMhz }) => [
      `${band} GHz`,
      enabled ? `channel ${channel ?? "by itself"}, ${widthMhz} MHz` : "off",
    ]),
  };
}

const guardWords = (index: PlanIndex, { device, ports }: Operation): OperationWords => ({
  title: "Guards, as the device's sheet has them",
  values: [["Ports", runText(ports, index.portsOf(device)) || "none, the device itself"]],
});

/** How a device is administered, as far as that is decided. */
const baselineWords = (index: PlanIndex, { baseline, registration }: Device): OperationWords => ({
  title: "How it is administered",
  values: [
    ...BASELINE_FIELDS.flatMap(([field, word]): Value[] => {
      const text = baselineText(baseline, field);
      return text === "" ? [] : [[word, field === "clock" ? clockText(index, baseline) : text]];
    }),
    ...(registration === "" ? [] : [["Registered, licence", registration] as const]),
  ],
});

const softwareWords = ({ softwareFound, softwareWanted }: Device): OperationWords => ({
  title: `Bring its software to ${softwareWanted}`,
  values: [
    ["Software wanted", softwareWanted],
    ["Software found", softwareFound === "" ? "to be read on the device" : softwareFound],
  ],
});

const routeWords = ({ routes }: Device): OperationWords => ({
  title: "Routes and services of its own",
  values: routes.map(({ prefix, via }) => ["Route", `${formatPrefix(prefix)} by ${formatAddress(via)}`]),
});

/** How long a device takes until its pages open; null where nobody has read it. */
export const secondsToStart = (index: PlanIndex, device: Device): number | null =>
  leafletFor(index, device)?.startSeconds ?? null;

/** An operation in the words of the trade. */
export function operationWords(index: PlanIndex, operation: Operation): OperationWords {
  const device = must(index.plan.device.get(operation.device), "an operation is on a device of the plan");
  const words: Readonly<Record<Page, () => OperationWords>> = {
    power: () => ({
      title: `Unpack and power ${device.name}`,
      values: [["Model", device.model], ...firstContact(index, device)],
    }),
    vlans: () => vlanWords(operation),
    tree: () => treeWords(device),
    ports: () => portWords(index, operation),
    trunk: () => portWords(index, operation),
    address: () => addressWords(index, operation),
    line: () => legWords(index, operation),
    routes: () => routeWords(device),
    ownServer: () => ({ title: "Switch its own DHCP server off", values: [] }),
    scope: () => scopeWords(index, operation),
    filter: () => filterWords(device, operation),
    wireless: () => radioWords(operation),
    guards: () => guardWords(index, operation),
    software: () => softwareWords(device),
    baseline: () => baselineWords(index, device),
  };
  return words[operation.page]();
}

/** How many names are said before the rest is counted. */
const MOST_NAMES = 4;

/** "PC 1 and PC 2", "PC 1, PC 2, PC 3, PC 4 and 7 more"; empty for nobody. */
export function fewNames(hosts: readonly Host[]): string {
  const names = hosts.map(({ name }) => name);
  const rest = names.length - MOST_NAMES;
  return rest <= 1 ? listed(names) : `${names.slice(0, MOST_NAMES).join(", ")} and ${rest} more`;
}
