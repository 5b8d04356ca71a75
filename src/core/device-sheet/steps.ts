import { runsWords } from "../kernel";
import { formatLease } from "../planners";
import type { DeviceData, SheetLine, SheetPort } from "./sheet-types";

/** One thing to do on the device: what is entered, in the columns of the page it is entered on. */
export interface SheetStep {
  readonly title: string;
  readonly note: string;
  readonly heads: readonly string[];
  readonly rows: readonly (readonly string[])[];
  readonly caution: string;
}

const NONE: Omit<SheetStep, "title"> = { note: "", heads: [], rows: [], caution: "" };
const GUARD_WORDS = [
  ["edge", "edge"],
  ["bpduGuard", "BPDU guard"],
  ["loopGuard", "loop guard"],
  ["dhcpTrust", "DHCP trusted"],
  ["arpTrust", "ARP trusted"],
  ["signIn", "802.1X"],
] as const;
const TREE_WORDS = {
  none: "none",
  rapid: "rapid (RSTP)",
  multiple: "multiple (MSTP)",
  perVlan: "one for each VLAN",
} as const;
const LAG_WORDS = { static: "static", active: "LACP, active", passive: "LACP, passive" } as const;
const LINE_WORDS = { dhcp: "DHCP", login: "login", fixed: "entered" } as const;
/** What is known of a line, else where it comes from. */
const told = ({ addressing }: SheetLine, values: readonly string[]): string =>
  values.join(", ") || (addressing === "fixed" ? "to be asked of the provider" : "from the line");
const ADMIT_WORDS = { all: "all", tagged: "tagged only", untagged: "untagged only" } as const;
const isTrunk = (port: SheetPort): boolean => port.tagged.length > 0;
const isSet = (port: SheetPort): boolean =>
  !port.routed && port.mode !== "plain" && port.mode !== "undecided";
const vidsText = (vids: readonly number[]): string => vids.join(", ") || "none";

/** "1 to 8, 11": what ports are called on the case or in the software. */
const runText = (
  ports: readonly SheetPort[],
  all: readonly SheetPort[],
  by: "label" | "softwareName",
): string =>
  runsWords(
    ports.map((port) => all.findIndex((one) => one.label === port.label)),
    (at) => all[at]?.[by] ?? "",
  );

/**
 * Ports with the same setting as one row each, in the printed order of their first: `cells` says what the
 * setting is.
 */
function byRun(
  ports: readonly SheetPort[],
  all: readonly SheetPort[],
  cells: (port: SheetPort) => readonly string[],
): string[][] {
  const groups = new Map<string, { cells: readonly string[]; ports: SheetPort[] }>();
  for (const port of ports) {
    const own = cells(port);
    const key = own.join("\u0000");
    const group = groups.get(key) ?? { cells: own, ports: [] };
    group.ports.push(port);
    groups.set(key, group);
  }
  return [...groups.values()].map((group) => [
    runText(group.ports, all, "label"),
    runText(group.ports, all, "softwareName"),
    String(group.ports.length),
    ...group.cells,
  ]);
}
const RUN_HEADS = ["Ports (case)", "Ports (software)", "Count"] as const;
const TAG_HEADS = ["Untagged (PVID)", "Tagged", "Frames admitted", "Ingress filter"] as const;

function reachStep({ management, wayBack, credentialsPlace, place }: DeviceData): SheetStep {
  const note = [
    place === "" ? "" : `It is in ${place}.`,
    "Reach it the first time by the address on its leaflet, from a laptop with a static address beside it.",
    wayBack.length > 0
      ? `The rescue port is port ${wayBack.join(", ")}: leave it as it is until the end.`
      : "Keep one port aside as a rescue port until the end.",
    "Change the administrator's name and word before anything else; they are kept " +
      `${credentialsPlace === "" ? "in a place that is still to be named" : `at: ${credentialsPlace}`}, ` +
      "never on this sheet.",
    management === null ? "" : `From then on it answers at ${management.address.address}.`,
  ];
  return {
    ...NONE,
    title: "Reach it",
    note: note.filter((part) => part !== "").join(" "),
    caution:
      "In cabinets and near mains: isolate first; never look into a fibre or an optic; ladders " +
      "by the rules of the house. Fixed wiring is for licensed people under the local code.",
  };
}

function nameStep({ hostName, management, asksFrom, supportUntil, supportEnded }: DeviceData): SheetStep {
  const rows = [["Name", hostName]];
  if (management !== null) {
    rows.push(
      ["Address", management.address.address],
      ["Mask", `${management.address.mask} (/${management.address.prefixLength})`],
    );
    if (management.vid !== null) rows.push(["Management VLAN", `${management.vid} ${management.segment}`]);
    if (management.gateway !== null) rows.push(["Default gateway", management.gateway]);
    if (management.dns.length > 0) rows.push(["DNS servers", management.dns.join(", ")]);
    if (management.time.length > 0) rows.push(["Time servers", management.time.join(", ")]);
  }
  if (asksFrom !== null) rows.push(["Asks its servers from", asksFrom]);
  if (supportUntil !== null)
    rows.push([
      "Software",
      supportEnded
        ? `support ended on ${supportUntil}: nothing is mended in it any more; replace it`
        : `bring it up to date; support ends ${supportUntil}`,
    ]);
  return {
    ...NONE,
    title: "Name, address, time",
    heads: ["Setting", "Value"],
    rows,
    note:
      management === null || management.vid === null
        ? ""
        : "The address moves to the management VLAN only with the last step: until then reach it as before.",
  };
}

const vidText = (vid: number | null) => (vid === null ? "none" : String(vid));

const endCells = (port: SheetPort) => [
  port.enabled ? "on" : "off",
  vidText(port.pvid),
  ADMIT_WORDS[port.admit],
  port.note,
];

const tagCells = (port: SheetPort) => [
  vidText(port.pvid),
  vidsText(port.tagged),
  ADMIT_WORDS[port.admit],
  port.ingressFilter ? "on" : "off",
];

const guardCells = (port: SheetPort) => [
  GUARD_WORDS.filter(([key]) => port.guards[key])
    .map(([, word]) => word)
    .join(", ") || "none",
  port.guards.macLimit === null ? "none" : String(port.guards.macLimit),
  port.guards.profile,
];

function portSteps(data: DeviceData): SheetStep[] {
  const set = data.ports.filter(isSet);
  const [ends, trunks] = [set.filter((port) => !isTrunk(port)), set.filter(isTrunk)];
  const phones = trunks.filter((port) => port.mode === "dataVoice");
  const others = trunks.filter((port) => port.mode !== "dataVoice");
  const steps: SheetStep[] = [
    {
      ...NONE,
      title: "Ports of end devices",
      heads: [...RUN_HEADS, "Switched", "Untagged (PVID)", "Frames admitted", "Note"],
      rows: byRun(ends, data.ports, endCells),
    },
    {
      ...NONE,
      title: "Guards",
      heads: [...RUN_HEADS, "Guards", "MAC limit", "802.1X profile"],
      rows: byRun(
        set.filter((port) => port.enabled),
        data.ports,
        guardCells,
      ),
      note:
        "Edge and BPDU guard towards end devices, loop guard between " +
        "switches, trust only towards the server that is trusted.",
    },
    {
      ...NONE,
      title: "Phone and PC ports",
      heads: [...RUN_HEADS, ...TAG_HEADS],
      rows: byRun(phones, data.ports, tagCells),
    },
    {
      ...NONE,
      title: "Trunks, tagging last",
      heads: [...RUN_HEADS, ...TAG_HEADS, "Plugged in"],
      rows: byRun(others, data.ports, (port) => [...tagCells(port), port.pluggedIn]),
      note: "The port you are working through comes last of all.",
      caution: "On a live network set the far end of each trunk first, then this end.",
    },
  ];
  return data.twoLists ? [...steps, ...twoLists(data, set)] : steps;
}

/**
 * Most such devices keep a port in the VLAN of its PVID: it can leave VLAN 1 only when the second list has
 * been set.
 */
const leavesVlanOne = (vids: readonly number[]): string =>
  `Every port that ${vids.includes(1) ? "VLAN 1's line does not name" : "is set here"} ` +
  "leaves VLAN 1, after list two where the device insists on the order.";
const KEEPS_PVID =
  "A port always has a PVID: where the plan wants nothing untagged it stays as it is, and what " +
  "comes in untagged is dropped by the frames admitted and by the port's not being in that VLAN.";

/** The two lists of a device that shows them apart; both have to say the same. */
function twoLists(data: DeviceData, set: readonly SheetPort[]): SheetStep[] {
  const vids = [...new Set(set.flatMap((port) => [...port.untagged, ...port.tagged]))].sort((a, b) => a - b);
  const named = (ports: readonly SheetPort[]) =>
    ports.length === 0 ? "none" : runText(ports, data.ports, "label");
  return [
    {
      ...NONE,
      title: "List one: membership of each VLAN",
      heads: ["VLAN", "Name", "Untagged ports", "Tagged ports"],
      rows: vids.map((vid) => [
        String(vid),
        data.vlans.find((vlan) => vlan.vid === vid)?.name ?? "",
        named(set.filter((port) => port.untagged.includes(vid))),
        named(set.filter((port) => port.tagged.includes(vid))),
      ]),
      note: `This device shows PVID and membership apart: both lists have to be set. ${leavesVlanOne(vids)}`,
    },
    {
      ...NONE,
      title: "List two: PVID of each port",
      heads: [...RUN_HEADS, "PVID"],
      rows: byRun(set, data.ports, (port) => [port.pvid === null ? "as it is" : String(port.pvid)]),
      note: set.some((port) => port.pvid === null) ? KEEPS_PVID : "",
    },
  ];
}

const PURPOSE_WORDS: Partial<Record<string, string>> = {
  parked: "ports that are off",
  wayBack: "the rescue port",
};

function legPlace(leg: DeviceData["interfaces"][number]): string {
  if (leg.port !== "") return `port ${leg.port}`;
  return leg.vid === null ? "" : `VLAN ${leg.vid}`;
}

/**
 * All that is entered on a device in the order in which it is entered: reach, name and address, VLANs before
 * ports, addresses before scopes, tagging last, then save. Steps with nothing in them are left out.
 */
function switchingSteps(data: DeviceData): SheetStep[] {
  return [
    {
      ...NONE,
      title: "VLANs",
      heads: ["VLAN", "Name", "For"],
      rows: data.vlans.map((vlan) => [
        String(vlan.vid),
        vlan.name,
        vlan.segment || (PURPOSE_WORDS[vlan.purpose] ?? ""),
      ]),
    },
    {
      ...NONE,
      title: "Spanning tree",
      heads: ["Setting", "Value"],
      rows:
        !data.knowsVlans || data.tree.kind === "none"
          ? []
          : [
              ["Protocol", TREE_WORDS[data.tree.kind]],
              ["Bridge priority", String(data.tree.priority)],
              ...(data.bridgeMac === null ? [] : [["Bridge MAC, to compare", data.bridgeMac]]),
            ],
    },
    {
      ...NONE,
      title: "Link aggregation",
      heads: ["LAG", "Kind", "Ports (case)"],
      rows: data.lags.map((lag) => [lag.name, LAG_WORDS[lag.mode], lag.ports.join(", ")]),
      caution: "Set both ends before the second cable goes in; until then it is a loop.",
    },
  ];
}

/** Its own addresses, its lines, and what it serves. */
function routingSteps(data: DeviceData): SheetStep[] {
  return [
    {
      ...NONE,
      title: "Addresses of its own",
      heads: ["Interface", "VLAN or port", "Address", "Mask", "DHCP relay to"],
      rows: data.interfaces.map((leg) => [
        leg.segment || leg.line || leg.name,
        legPlace(leg),
        [...leg.addresses4, ...leg.addresses6]
          .map((one) => `${one.address}/${one.prefixLength}`)
          .join(", ") || "from the line",
        leg.addresses4.map((one) => one.mask).join(", "),
        leg.relayTo,
      ]),
    },
    {
      ...NONE,
      title: "Internet lines",
      heads: ["Line", "Port", "Address by", "Address", "Mask", "Next hop", "DNS servers", "VLAN tag"],
      rows: data.lines.map((line) => [
        line.name,
        line.port,
        LINE_WORDS[line.addressing],
        told(line, line.addresses),
        told(line, line.masks),
        told(line, line.nextHops),
        told(line, line.dns),
        line.vlanTag === null ? "none" : String(line.vlanTag),
      ]),
      caution: data.lines.some((line) => line.addressing === "login")
        ? "The provider's login is not on this sheet; have it at hand."
        : "",
    },
    {
      ...NONE,
      title: "DHCP",
      heads: ["Segment", "Subnet", "Pool", "Left out", "Gateway", "DNS", "Domain", "Lease", "Options"],
      rows: data.scopes.map((scope) => [
        scope.segment,
        scope.subnet,
        scope.pools.join(", "),
        scope.exclusions.join(", "),
        scope.gateway,
        scope.dns.join(", "),
        scope.domainName,
        formatLease(scope.leaseSeconds),
        scope.options.map((option) => `${option.code} ${option.name} ${option.value}`).join("; "),
      ]),
    },
    {
      ...NONE,
      title: "DHCP reservations",
      heads: ["Segment", "Device", "MAC", "Address"],
      rows: data.scopes.flatMap((scope) =>
        scope.reservations.map((one) => [
          scope.segment,
          one.name,
          one.mac || "to be read on site",
          one.address,
        ]),
      ),
    },
  ];
}

function wirelessSteps(data: DeviceData): SheetStep[] {
  return [
    {
      ...NONE,
      title: "Wireless names",
      heads: ["Name", "Leads into", "VLAN", "Security", "Hidden", "Stations kept apart", "Bands"],
      rows: data.ssids.map((ssid) => [
        ssid.name,
        ssid.segments.join(", "),
        vidsText(ssid.vids),
        ssid.security,
        ssid.hidden ? "yes" : "no",
        ssid.isolation ? "yes" : "no",
        ssid.bands.map((band) => `${band} GHz`).join(", "),
      ]),
      note: "The word that opens a name is kept where the credentials are, not here.",
    },
    {
      ...NONE,
      title: "Radios",
      heads: ["Band", "Radio", "Channel", "Width", "Power"],
      rows: data.radios.map((radio) => [
        `${radio.band} GHz`,
        radio.enabled ? "on" : "off",
        radio.channel === null ? "to be decided" : String(radio.channel),
        `${radio.widthMhz} MHz`,
        radio.power || "by the local rules",
      ]),
      caution: data.radios.length === 0 ? "" : "Channels and power by your regulator's rules.",
    },
    {
      ...NONE,
      title: "Stations that join here",
      heads: ["Device", "Wireless name"],
      rows: data.stations.map(({ name, ssid }) => [name, ssid]),
    },
  ];
}

/**
 * All that is entered on a device in the order in which it is entered: reach, name and address, VLANs before
 * ports, addresses before scopes, tagging last, then save. Steps with nothing in them are left out.
 */
export function deviceSteps(data: DeviceData): SheetStep[] {
  const steps: SheetStep[] = [
    nameStep(data),
    ...switchingSteps(data),
    ...routingSteps(data),
    ...wirelessSteps(data),
    ...(data.knowsVlans ? portSteps(data) : []),
  ];
  const save: SheetStep = {
    ...NONE,
    title: "Save",
    note:
      "Save the configuration to where it is read at the next start, restart where one is due, " +
      "and look whether it answers again. What is not saved is gone at the next power cut.",
  };
  return [reachStep(data), ...steps.filter((step) => step.rows.length > 0), save];
}
