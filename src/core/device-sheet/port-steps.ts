import { runsWords } from "../kernel";
import type { Port } from "../plan";
import type { DeviceData, SheetPort, SheetSignIn } from "./sheet-types";
import { type SheetStep, NONE, vidsText } from "./step";

const GUARD_WORDS = [
  ["edge", "edge"],
  ["bpduGuard", "BPDU guard"],
  ["loopGuard", "loop guard"],
  ["dhcpTrust", "DHCP trusted"],
  ["arpTrust", "ARP trusted"],
  ["raTrust", "RA trusted"],
  ["sourceCheck", "source check"],
  ["isolated", "isolated"],
  ["signIn", "802.1X"],
  ["restrictedRole", "never the way to the root"],
  ["trustsMarks", "keeps marks"],
] as const;

/** The guards of a port, in words. */
export function guardText(guards: SheetPort["guards"] | Port["guards"]): string {
  const set: string[] = GUARD_WORDS.filter(([key]) => guards[key]).map(([, word]) => word);
  if (guards.macLimit !== null) set.push(`at most ${guards.macLimit} MAC addresses`);
  return set.join(", ") || "none";
}

const ADMIT_WORDS = { all: "all", tagged: "tagged only", untagged: "untagged only" } as const;

const isTrunk = (port: SheetPort): boolean => port.tagged.length > 0;

const isSet = (port: SheetPort): boolean =>
  !port.routed && port.mode !== "plain" && port.mode !== "undecided";

/** "1 to 8, 11": what ports are called on the case or in the software. */
const runText = (
  ports: readonly SheetPort[],
  all: readonly SheetPort[],
  by: "label" | "softwareName",
): string =>
  runsWords(
    ports.map((port) => all.findIndex((sheetPort) => sheetPort.label === port.label)),
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
  port.guards.stormPercent === null ? "none" : `${port.guards.stormPercent} %`,
  port.guards.profile,
  port.voicePolicy,
];

/** A sign-in profile setting by setting: its servers first, where they are asked, then its ports. */
const signInRows = ({ profile, servers, ports, settings }: SheetSignIn): string[][] => [
  ...servers.map(({ name, address }, at) => [profile, `Server ${at + 1}`, `${address} ${name}`.trim()]),
  [profile, "Ports", ports.join(", ")],
  ...settings
    .filter(({ value }) => value !== "" && value !== "none")
    .map(({ setting, value }) => [profile, setting, value]),
];

/** What guards the device and its ports, and who signs in there. */
const guardSteps = (data: DeviceData, set: readonly SheetPort[]): SheetStep[] => [
  {
    ...NONE,
    title: "Guards of the device",
    heads: ["Setting", "Value"],
    rows: data.protections.map(({ setting, value }) => [setting, value]),
  },
  {
    ...NONE,
    title: "Administrators",
    heads: ["Setting", "Value"],
    rows: data.administrators.map(({ setting, value }) => [setting, value]),
    caution: data.administrators.length < 2 ? "" : "The shared secret is not on this sheet.",
  },
  {
    ...NONE,
    title: "Sign-in at ports (802.1X)",
    heads: ["Profile", "Setting", "Value"],
    rows: data.signIns.flatMap(signInRows),
    caution:
      data.signIns.length === 0
        ? ""
        : "A phone without a network can't call for help: say so before ports are closed. " +
          "The shared secret is not on this sheet.",
  },
  {
    ...NONE,
    title: "Guards",
    heads: [...RUN_HEADS, "Guards", "MAC limit", "Storm limit", "802.1X profile", "Tells phones (LLDP-MED)"],
    rows: byRun(
      set.filter((port) => port.enabled),
      data.ports,
      guardCells,
    ),
    note:
      "Edge and BPDU guard towards end devices, loop guard between " +
      "switches, trust only towards the server that is trusted.",
  },
];

export function portSteps(data: DeviceData): SheetStep[] {
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
    ...guardSteps(data, set),
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
