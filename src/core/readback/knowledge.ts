import { equal } from "../kernel";
import type { Change } from "../plan";
import { countingEntries, type Recorded, type Seen } from "../records";
import { deviceOf } from "./drift-device";

/** What is known of the devices: what was read off them, entered on them, or stands in a plan file. */
export interface Knowledge {
  /** Whether a field of what a change is about is known; with null, whether it is known to be there or not. */
  readonly has: (change: Change, field: string | null) => boolean;
}

/** A plan file says everything. */
const EVERYTHING: Knowledge = { has: () => true };

const fieldsOf = ({ before, after }: Change): string[] => {
  const [was, is] = [before, after] as unknown as Record<string, unknown>[];
  return Object.keys(is ?? was ?? {}).filter((field) => !equal(was?.[field], is?.[field]));
};

/** Whether a reading of a device shows it. */
function shows({ ports, legs, vlans }: Seen, { kind, id }: Change, field: string | null): boolean {
  if (kind === "port") return (ports[id] ?? []).some((noted) => noted === field);
  if (kind === "interface")
    return legs && (field === null || field === "addresses4" || field === "addresses6");
  return kind === "deviceVlan" && vlans;
}

/** What is known by a record; everything where a plan file says what is on the devices. */
export function knowledgeOf(record: readonly Recorded[], isFile: boolean): Knowledge {
  const counting = countingEntries(record.map(({ entry }) => entry));
  if (isFile || counting.some((entry) => entry.do === "start" && entry.from === "plan")) return EVERYTHING;
  const touched = new Map<string, Set<string>>();
  for (const entry of counting)
    for (const change of entry.changes)
      // Of the device that was read only what it showed is known, and nothing that had to be taken for granted.
      if (entry.do !== "read" || deviceOf(change) !== entry.device)
        touched.set(change.id, new Set([...(touched.get(change.id) ?? []), ...fieldsOf(change)]));
  const reads = counting.flatMap((entry) => (entry.do === "read" ? [entry] : []));
  return {
    has: (change, field) => {
      const own = touched.get(change.id);
      if (own !== undefined && (field === null || own.has(field))) return true;
      const device = deviceOf(change);
      return reads.some((read) => read.device === device && shows(read.saw, change, field));
    },
  };
}
