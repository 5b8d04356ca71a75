import { byText } from "../../kernel";
import { nameOf, type PlanIndex } from "../../plan";
import { carryExactly } from "../../planners";
import { CARRY, CARRY_READS, portCarries, type PortCarry } from "../../forwarding";
import { check, type Found } from "../check";
import { type Repair, listed } from "../../repairs";

interface Carried {
  readonly ports: readonly string[];
  readonly vids: readonly number[];
}

/**
 * One finding for each cable: its ports with the numbers that `pick` takes of them. Ports without a cable
 * stand alone.
 */
function byCable(index: PlanIndex, pick: (carry: PortCarry) => readonly number[]): Found<Carried>[] {
  const groups = new Map<string, { ports: string[]; vids: Set<number> }>();
  for (const [id, carry] of portCarries(index)) {
    const vids = pick(carry);
    if (vids.length === 0) continue;
    const key = index.linkAt(id)?.id ?? id;
    const group = groups.get(key) ?? { ports: [], vids: new Set() };
    group.ports.push(id);
    for (const vid of vids) group.vids.add(vid);
    groups.set(key, group);
  }
  return [...groups.values()].map(({ ports, vids }) => {
    const ordered = [...ports].sort(byText);
    return {
      subjects: ordered.map((id) => ({ kind: "port" as const, id })),
      data: { ports: ordered, vids: [...vids].sort((a, b) => a - b) },
    };
  });
}

const numbers = (vids: readonly number[]): string => {
  if (vids.length === 1) return `VLAN ${vids[0] ?? ""}`;
  if (vids.length > 12) return `${vids.length} VLANs (${vids.slice(0, 10).join(", ")} …)`;
  return `VLANs ${listed(vids.map(String))}`;
};

/** The repair of a cable, and of every trunk of the site at once. */
const exactly = ({ ports }: Carried, index: PlanIndex): Repair[] => [
  {
    label: "Carry exactly what is needed on this cable",
    planner: "carry-exactly",
    args: { ports },
    edit: (edits) => carryExactly(edits, index, new Set(ports)),
  },
  {
    label: "Carry exactly what is needed on every trunk of the site",
    planner: "carry-exactly",
    args: { ports: "all" },
    edit: (edits) => carryExactly(edits, index),
  },
];

export const vlanNeedless = check<Carried>({
  code: "vlan-needless-on-trunk",
  severity: "warn",
  family: "ports",
  title: "A trunk carries VLANs that nobody needs there",
  why:
    "Every broadcast of theirs goes there, and whoever plugs in there " +
    "can join them. New gear carries all until somebody decides.",
  reads: CARRY_READS,
  find: (index) => byCable(index, (carry) => carry.needless),
  describe: ({ ports, vids }, index) =>
    `${listed(ports.map((id) => nameOf(index, "port", id)))} ` +
    `${ports.length === 1 ? "carries" : "carry"} ${numbers(vids)}, which nobody needs there.`,
  repairs: exactly,
});

export const vlanMissingOnSpareWay = check<Carried>({
  code: "vlan-missing-on-spare-way",
  severity: "warn",
  family: "ports",
  title: "A VLAN is missing on a spare way of a ring",
  why:
    "All is well as long as the ring is whole. When the first cable dies the ring closes the " +
    "other way round, and those in this VLAN stay dark: the spare way was paid for nothing.",
  reads: CARRY_READS,
  find: (index) => {
    const stopped = new Set(
      index.derived(CARRY).breaks.flatMap((gap) => gap.lacking.map((port) => `${port.id} ${gap.vid}`)),
    );
    return byCable(index, ({ port, missing }) => missing.filter((vid) => !stopped.has(`${port.id} ${vid}`)));
  },
  describe: ({ ports, vids }, index) =>
    `${listed(ports.map((id) => nameOf(index, "port", id)))} ${ports.length === 1 ? "does" : "do"} ` +
    `not carry ${numbers(vids)}; when another cable of the ring dies, that way is needed.`,
  repairs: exactly,
});
