import { byText } from "../kernel";
import { entityOf, type PlanIndex } from "../plan";
import { fallsDue, type Due } from "../sheets";
import type { Recorded } from "./entry";
import type { Close, Remark } from "./remark";
import { takenBack } from "./visit";

/** The entries of a record that were not taken back, in its order. */
export function stillCounts(record: readonly Recorded[]): Recorded[] {
  const gone = takenBack(record.map(({ entry }) => entry));
  return record.filter(({ entry }) => !gone.has(entry.id));
}

/** Something that was remarked, and by whom. */
export interface Remarked {
  readonly by: string;
  readonly remark: Remark;
  /** Who has seen to it; null for what is open, and for what never was a point to see to. */
  readonly closed: { readonly by: string; readonly close: Close } | null;
}

/** What was remarked and not taken back, in the order of the record. */
export function remarksOf(record: readonly Recorded[]): Remarked[] {
  const counts = stillCounts(record);
  const closed = new Map(
    counts.flatMap(({ by, entry }) => (entry.do === "close" ? [[entry.remark, { by, close: entry }]] : [])),
  );
  return counts.flatMap(({ by, entry }) =>
    entry.do === "remark" ? [{ by, remark: entry, closed: closed.get(entry.id) ?? null }] : [],
  );
}

/** Points that nobody has seen to yet: by the day until which they are to be, those without one last. */
export const pointsOpen = (record: readonly Recorded[]): Remarked[] =>
  remarksOf(record)
    .filter(({ remark, closed }) => remark.isOpen && closed === null)
    .sort((a, b) => byText(dueKey(a), dueKey(b)));
/** After every day that can be written. */
const dueKey = ({ remark }: Remarked): string => remark.due ?? "9999-99-99";

/** Open points with a day until which they are to be seen to, as what falls due. */
export const pointsDue = (index: PlanIndex, record: readonly Recorded[]): Due[] =>
  pointsOpen(record).flatMap(({ remark }): Due[] => {
    const { due, about, text } = remark;
    if (due === null) return [];
    const isThere = about !== null && entityOf(index.plan, about.kind, about.id) !== undefined;
    return [
      {
        day: due,
        what: `Open point${about === null ? "" : `, ${about.name}`}: ${text}`,
        subject: isThere ? { kind: about.kind, id: about.id } : { kind: "site", id: index.plan.site.id },
        isOver: index.today === null ? null : due < index.today,
      },
    ];
  });

/** Every day on which something of the plan falls due, or an open point of the record, the first one first. */
export const allDue = (index: PlanIndex, record: readonly Recorded[]): Due[] =>
  [...fallsDue(index), ...pointsDue(index, record)].sort((a, b) => byText(a.day, b.day));
