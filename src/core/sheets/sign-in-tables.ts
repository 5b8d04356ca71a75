import { formatAddress } from "../address";
import { leasedTo } from "../dhcp";
import { classify } from "../fabric";
import { byNaturalText } from "../kernel";
import { answeredVid, type Host, type PlanIndex } from "../plan";
import { formatLease, SIGN_IN_COLUMNS, signInCellText } from "../planners";
import { speaksSignIn } from "../probe";
import { entryText, SITUATIONS, type Entry, type WhoRow } from "../guards";

const cell = (index: PlanIndex, entry: Entry): string[] => [
  entryText(index, entry),
  entry.address === null ? "" : formatAddress(entry.address),
  entry.differs ? "no" : "yes",
  entry.says,
];

/** Who gets in at every port with sign-in, in each situation: a table of texts, heads first. */
export const whoTable = (index: PlanIndex, rows: readonly WhoRow[]): string[][] => [
  [
    "Device",
    "Port",
    "Profile",
    "Plugged in",
    ...["All well", "First server down", "All servers down", "Another device"].flatMap((situation) => [
      situation,
      `${situation}, address`,
      `${situation}, as meant`,
      `${situation}, why`,
    ]),
  ],
  ...rows.map(({ device, port, profile, host, cells, stranger }) => [
    device.name,
    port.label,
    profile?.name ?? "",
    host?.name ?? "",
    ...SITUATIONS.flatMap((situation) => (cells === null ? ["", "", "", ""] : cell(index, cells[situation]))),
    ...cell(index, stranger),
  ]),
];

/** Every sign-in profile with all that is set in it. */
export const signInTable = (index: PlanIndex): string[][] => [
  SIGN_IN_COLUMNS.map(([, head]) => head),
  ...[...index.plan.signIn.values()]
    .sort((a, b) => byNaturalText(a.name, b.name))
    .map((profile) => SIGN_IN_COLUMNS.map(([column]) => signInCellText(index, profile, column))),
];

/** The address that the plan gives a host: its own, or what it leases; "" for none. */
function plannedAddress(index: PlanIndex, host: Host): string {
  if (host.ipv4 !== null) return formatAddress(host.ipv4);
  for (const scope of host.segment === null ? [] : index.scopesOf(host.segment)) {
    const leased = scope.family === 4 ? leasedTo(index, scope).get(host.id) : undefined;
    if (leased !== undefined) return formatAddress(leased);
  }
  return "";
}

const leaseWords = (index: PlanIndex, { manner, segment }: Host): string => {
  if (manner === "typed") return "static";
  const [scope] = segment === null ? [] : index.scopesOf(segment).filter(({ family }) => family === 4);
  return scope === undefined ? "none" : formatLease(scope.leaseSeconds);
};

/**
 * What a switch that snoops learns of everybody, and has to be told of those with a static address: port, MAC
 * address, address, VLAN, lease.
 */
export const bindingTable = (index: PlanIndex): string[][] => [
  ["Switch", "Port", "Plugged in", "MAC", "Address", "VLAN", "Lease", "Entered by hand"],
  ...[...index.plan.device.values()]
    .filter(({ bridging }) => bridging === "vlan")
    .sort((a, b) => byNaturalText(a.name, b.name))
    .flatMap((device) =>
      [...index.portsOf(device.id)]
        .sort((a, b) => a.position - b.position)
        .flatMap((port) =>
          index.hostsAt(port.id).map((host) => {
            const vid = classify(port, host.tag);
            return [
              device.name,
              port.label,
              host.name,
              host.mac ?? "",
              plannedAddress(index, host),
              vid === null ? "" : String(vid),
              leaseWords(index, host),
              device.protections.bound.includes(host.id) ? "yes" : "no",
            ];
          }),
        ),
    ),
];

/**
 * What an authentication server is given: who is known by which MAC address, and the VLAN that it answers with
 * (RFC 3580 section 3.31: tunnel type 13 is VLAN, medium 6 is IEEE 802).
 */
export const answerTable = (index: PlanIndex): string[][] => [
  [
    "Device",
    "MAC",
    "Signs in",
    "Tunnel-Type (64)",
    "Tunnel-Medium-Type (65)",
    "Tunnel-Private-Group-ID (81)",
  ],
  ...[...index.plan.host.values()]
    .filter(({ segment, attachment }) => segment !== null && attachment.at !== "unplaced")
    .sort((a, b) => byNaturalText(a.name, b.name))
    .flatMap((host) => {
      const vid = answeredVid(index, host);
      return vid === null
        ? []
        : [
            [
              host.name,
              host.mac ?? "",
              speaksSignIn(host) ? "yes" : "no, by MAC address",
              "13",
              "6",
              String(vid),
            ],
          ];
    }),
];
