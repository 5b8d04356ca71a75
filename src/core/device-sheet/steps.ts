import { formatLease } from "../planners";
import type { DeviceData, SheetLine } from "./sheet-types";
import { gatewaySteps } from "./gateway-steps";
import { portSteps } from "./port-steps";
import { type SheetStep, NONE, vidsText } from "./step";
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

function reachStep({ management, wayBack, credentialsPlace, place, outOfBox }: DeviceData): SheetStep {
  const note = [
    place === "" ? "" : `It is in ${place}.`,
    outOfBox.some(({ setting }) => setting === "First address")
      ? "Reach it the first time by its first address, from a laptop with a static address beside it."
      : "Reach it the first time by the address on its leaflet, from a laptop with a static address beside it.",
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
    ...(outOfBox.length === 0
      ? {}
      : { heads: ["Out of the box", "Value"], rows: outOfBox.map(({ setting, value }) => [setting, value]) }),
    note: note.filter((part) => part !== "").join(" "),
    caution:
      "In cabinets and near mains: isolate first; never look into a fibre or an optic; ladders " +
      "by the rules of the house. Fixed wiring is for licensed people under the local code.",
  };
}

function nameStep(data: DeviceData): SheetStep {
  const { hostName, management, asksFrom, identity, supportUntil, supportEnded } = data;
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
  rows.push(...identity.map(({ setting, value }) => [setting, value]));
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

const administrationStep = ({ administration }: DeviceData): SheetStep => ({
  ...NONE,
  title: "How it is administered",
  heads: ["Setting", "Value"],
  rows: administration.map(({ setting, value }) => [setting, value]),
  caution:
    administration.length === 0
      ? ""
      : "Try a way in before the one in use is switched off. The password is not on this sheet.",
});

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
      heads: ["VLAN", "Name", "For", "Unmarked packets"],
      rows: data.vlans.map((vlan) => [
        String(vlan.vid),
        vlan.name,
        vlan.segment || (PURPOSE_WORDS[vlan.purpose] ?? ""),
        vlan.marks,
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
              ...treeRows(data),
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

/** What belongs to a device's kind of tree: its region with the digest, its priorities, its timers. */
function treeRows({ tree, digest }: DeviceData): string[][] {
  const timers = [
    ["Hello time", `${tree.helloSeconds} s`],
    ["Maximum age", `${tree.maxAge} s`],
    ["Forward delay", `${tree.forwardDelay} s`],
    ["Path costs", tree.costs],
  ];
  if (tree.kind === "perVlan")
    return [
      ...timers,
      ...tree.perVlan.map(({ vid, priority }) => [`Priority in VLAN ${vid}`, String(priority)]),
    ];
  if (tree.kind !== "multiple") return timers;
  return [
    ...timers,
    ["Hops", String(tree.hops)],
    ["Region", tree.region],
    ["Revision", String(tree.revision)],
    ...tree.instances.flatMap(({ number, vids, priority }) => [
      [`VLANs of instance ${number}`, vids.join(", ")],
      [`Priority in instance ${number}`, String(priority)],
    ]),
    ["Configuration digest, to compare", digest],
  ];
}

/** Its own addresses, its lines, and what it serves. */
// eslint-disable-next-line max-lines-per-function -- five tables of one sheet, each a list of its columns
function routingSteps(data: DeviceData): SheetStep[] {
  return [
    {
      ...NONE,
      title: "Addresses of its own",
      heads: ["Interface", "VLAN or port", "Address", "Mask", "MAC", "DHCP relay to", "Unmarked packets"],
      rows: data.interfaces.map((leg) => [
        leg.segment || leg.line || leg.name,
        legPlace(leg),
        [...leg.addresses4, ...leg.addresses6]
          .map((sheetAddress) => `${sheetAddress.address}/${sheetAddress.prefixLength}`)
          .join(", ") || "from the line",
        leg.addresses4.map((sheetAddress) => sheetAddress.mask).join(", "),
        leg.mac,
        leg.relayTo,
        leg.marks,
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
      title: "Order of the lines",
      heads: [
        "Order",
        "Line",
        "Carries",
        "Loss noticed by",
        "Next after",
        "Back after",
        "Pinned",
        "Marks",
        "MTU",
        "Delegated IPv6",
      ],
      rows: data.failover.map((line) => [
        String(line.order),
        line.line,
        line.share,
        line.noticedBy,
        line.nextAfter,
        line.backAfter,
        line.pinned,
        line.marks,
        String(line.mtu),
        line.delegated,
      ]),
      caution: data.failover.some(({ providerBox }) => providerBox.includes("locked to it"))
        ? "Internet telephony fails with power or line, emergency calls too: say so to the customer."
        : "",
    },
    {
      ...NONE,
      title: "Provider's boxes and names",
      heads: ["Line", "Provider's box", "Name that follows it", "Updated by", "Account kept"],
      rows: data.failover
        .filter(({ providerBox, name }) => providerBox !== "none" || name !== "")
        .map((line) => [line.line, line.providerBox, line.name, line.nameUpdatedBy, line.nameAccount]),
    },
    {
      ...NONE,
      title: "Tunnels",
      heads: ["Tunnel", "For", "Far end", "Answered at", "Line"],
      rows: data.tunnels.map((tunnel) => [
        tunnel.name,
        tunnel.for,
        tunnel.farEnd,
        tunnel.answeredAt,
        tunnel.line,
      ]),
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
        scope.reservations.map((reservation) => [
          scope.segment,
          reservation.name,
          reservation.mac || "to be read on site",
          reservation.address,
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
        [ssid.security, ssid.profile].filter((text) => text !== "").join(", by "),
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
    administrationStep(data),
    ...switchingSteps(data),
    ...routingSteps(data),
    ...gatewaySteps(data),
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
