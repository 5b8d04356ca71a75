import { reservationTable } from "../formats";
import { nameOf, type PlanIndex, type Segment } from "../plan";
import type { SECURITY_SHORT } from "../planners";
import {
  addressRegisterTable,
  radioTable,
  scopeTable,
  segmentsInOrder,
  segmentTable,
  ssidTable,
  tapeOf,
  vlanTable,
} from "../sheets";
import { tableBlock, under } from "./blocks";
import type { Block, Cell, PackStudy } from "./model";

/** A segment's VLAN as tape; empty for one without. */
function tapeCell(index: PlanIndex, segment: Segment): Cell {
  const vlan = segment.vlan === null ? undefined : index.plan.vlan.get(segment.vlan);
  if (vlan === undefined) return "";
  return { tapes: [tapeOf(index, vlan.domain, Number(vlan.vid))], text: String(vlan.vid) };
}

/** What the pack shows of a segment; its VLAN is tape. */
const SEGMENT_HEADS = ["Segment", "Zone", "Subnet", "IPv6 subnet", "Gateway", "DNS", "Time", "Domain"];

/** Every segment with its VLAN, subnets, gateway and name servers, then the VLANs that carry none. */
export function segmentBlocks({ index }: PackStudy): Block[] {
  const [heads = [], ...rows] = segmentTable(index);
  const taped = segmentsInOrder(index).map((segment, at): Cell[] => [
    tapeCell(index, segment),
    ...(rows[at] ?? []).slice(1),
  ]);
  const [vlanHeads = [], ...vlans] = vlanTable(index);
  return [
    ...tableBlock([heads, ...taped], ["VLAN", ...SEGMENT_HEADS]),
    ...under("VLANs without a segment", tableBlock([vlanHeads, ...vlans.filter((row) => row.at(-1) === "")])),
  ];
}

/** The networks in a customer's words: whose they are, their wireless names, how many devices are known. */
export const plainSegmentBlocks = ({ index }: PackStudy): Block[] =>
  tableBlock([
    ["Tape", "Network", "Part of", "Wireless name", "Known devices"],
    ...segmentsInOrder(index).map((segment) => [
      tapeCell(index, segment),
      segment.name,
      nameOf(index, "zone", segment.zone),
      [...index.plan.ssid.values()]
        .filter((ssid) => ssid.segment === segment.id)
        .map(({ name }) => name)
        .join(", "),
      String(index.hostsIn(segment.id).length),
    ]),
  ]);

/** What the DHCP servers give, and to whom the same. */
export const scopeBlocks = ({ index }: PackStudy): Block[] => [
  ...tableBlock(scopeTable(index)),
  ...under("Reservations", tableBlock(reservationTable(index))),
];

/** Everything with an address, or waiting for one. */
export const registerBlocks = ({ index }: PackStudy): Block[] => tableBlock(addressRegisterTable(index));

/** Wireless names, and each access point's radios. */
export const wirelessBlocks = ({ index }: PackStudy): Block[] => [
  ...tableBlock(ssidTable(index)),
  ...under("Access points", tableBlock(radioTable(index))),
];

/** The wireless names in a customer's words; where the word for one is kept is not for paper. */
export const plainWirelessBlocks = ({ index }: PackStudy): Block[] =>
  tableBlock([
    ["Wireless name", "Leads into", "Word needed"],
    ...[...index.plan.ssid.values()].map(({ name, segment, security }) => [
      name,
      nameOf(index, "segment", segment),
      WORD_NEEDED[security],
    ]),
  ]);
const WORD_NEEDED: Readonly<Record<keyof typeof SECURITY_SHORT, string>> = {
  open: "no",
  owe: "no",
  wep: "yes",
  pskTkip: "yes",
  psk: "yes",
  pskSae: "yes",
  sae: "yes",
  enterprise: "each person's own",
  enterprise192: "each person's own",
};
