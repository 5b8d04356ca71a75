import { putInto } from "../kernel";
import { signatureOf, type Step } from "../runbook";
import type { Read, RecordEntry, Recorded, Start, Tick, TickedStep } from "./entry";

/** A visit: what was ticked in it and still stands. */
export interface Visit {
  readonly start: Start;
  readonly by: string;
  /** Null while it goes on. */
  readonly ended: string | null;
  readonly ticks: readonly { readonly by: string; readonly tick: Tick }[];
}

/** The ids of ticks that were taken back. */
export const takenBack = (entries: readonly RecordEntry[]): ReadonlySet<string> =>
  new Set(entries.flatMap((entry) => (entry.do === "takeBack" ? [entry.tick] : [])));

/**
 * The places at which a visit begins. Where two begin one at the same time, the second joins the first: what
 * was ticked meanwhile stays.
 */
export function beginnings(entries: readonly RecordEntry[]): number[] {
  let isOpen = false;
  return entries.flatMap((entry, at) => {
    const begins = entry.do === "start" && !isOpen;
    isOpen = entry.do === "start" || (isOpen && entry.do !== "end");
    return begins ? [at] : [];
  });
}

/** The visits of a record, in the order in which its entries came. */
export function visitsOf(record: readonly Recorded[]): Visit[] {
  const begin = beginnings(record.map(({ entry }) => entry));
  return begin.flatMap((at, number): Visit[] => {
    const first = record[at];
    if (first?.entry.do !== "start") return [];
    const own = record.slice(at + 1, begin[number + 1]);
    const gone = takenBack(own.map(({ entry }) => entry));
    const end = own.find(({ entry }) => entry.do === "end");
    const ticks = own.flatMap(({ by, entry }) =>
      entry.do === "tick" && !gone.has(entry.id) ? [{ by, tick: entry }] : [],
    );
    return [{ start: first.entry, by: first.by, ended: end?.entry.at ?? null, ticks }];
  });
}

/** The latest visit of a record; null where nobody has begun one. */
export const latestVisit = (record: readonly Recorded[]): Visit | null => visitsOf(record).at(-1) ?? null;

/** A step as it is written down. */
export const tickedStep = ({ kind, device, operation, title, values }: Step): TickedStep => ({
  kind,
  device,
  page: operation?.page ?? null,
  title,
  values: values.map(([name, value]) => [name, value]),
});

/** What two steps have in common that say the same, whatever order they were found in. */
export const stepKey = ({ kind, device, page, title, values }: TickedStep): string =>
  JSON.stringify([kind, device, page, title, values]);

/** Which steps of an order are done by which ticks. */
export interface Followed {
  /** A tick for each step; null for one that is still to do. */
  readonly ticks: readonly (Tick | null)[];
  /** Whether the order still says what comes next: nothing was done that is none of its steps, or otherwise. */
  readonly holds: boolean;
}

/**
 * Ticks without those that say again what another person ticked at the same time: the same step, after the same
 * one. Each would otherwise be taken for a later step that is like it, such as the next time a device is saved.
 */
function once(ticks: readonly Tick[]): Tick[] {
  const first = new Map<string, string>();
  const sameAs = new Map<string, string>();
  return ticks.filter((tick) => {
    const after = sameAs.get(tick.after ?? "") ?? tick.after;
    const key = `${after ?? ""} ${stepKey(tick.step)}`;
    const known = first.get(key);
    if (known === undefined) first.set(key, tick.id);
    else sameAs.set(tick.id, known);
    return known === undefined;
  });
}

/** Lays ticks that came after an order was found beside its steps: each takes the first like it. */
export function follow(steps: readonly Step[], ticks: readonly Tick[]): Followed {
  const open = new Map<string, number[]>();
  steps.forEach((step, at) => {
    const key = stepKey(tickedStep(step));
    putInto(open, key, at);
  });
  const found: (Tick | null)[] = steps.map(() => null);
  let holds = true;
  for (const tick of once(ticks)) {
    const at = open.get(stepKey(tick.step))?.shift();
    if (at !== undefined) found[at] = tick;
    if (at === undefined || tick.came !== "done") holds = false;
  }
  return { ticks: found, holds };
}

/** Devices on which something was done that is not saved yet, in the order in which that was. */
export function unsavedDevices(ticks: readonly Tick[]): string[] {
  const open = new Set<string>();
  for (const { step, came, changes } of ticks)
    if (step.device !== null && step.kind === "save" && came === "done") open.delete(step.device);
    else if (step.device !== null && step.kind === "do" && changes.length > 0) open.add(step.device);
  return [...open];
}

/** Devices of whose settings a copy was made in these ticks, or on which something was done already. */
export const copiedDevices = (ticks: readonly Tick[]): string[] => [
  ...new Set(
    ticks.flatMap(({ step }) => (step.kind === "copy" || step.kind === "do" ? (step.device ?? []) : [])),
  ),
];

/** The permits that were signed in these ticks, by their signatures. */
export const signedPermits = (ticks: readonly Tick[]): string[] =>
  ticks.flatMap(({ step, came }) => (step.kind === "permit" && came === "done" ? [signatureOf(step)] : []));

/** Devices that were powered in these ticks and whose administrator's name and word were not changed yet. */
export function unnamedDevices(ticks: readonly Tick[]): string[] {
  const open = new Set<string>();
  for (const { step, came } of ticks)
    if (step.device !== null && came === "done" && step.kind === "credentials") open.delete(step.device);
    else if (step.device !== null && came === "done" && step.page === "power") open.add(step.device);
  return [...open];
}

/** As many readings are told. */
const MOST_TOLD = 12;

/** The readings of devices that still stand, the last first. */
export function readsThatStand(record: readonly Recorded[]): { readonly by: string; readonly read: Read }[] {
  const entries = record.map(({ entry }) => entry);
  const gone = takenBack(entries);
  const anew = entries.findLastIndex((entry) => entry.do === "start" && entry.from !== "last");
  return record
    .flatMap(({ by, entry }, at) =>
      entry.do === "read" && at > anew && !gone.has(entry.id) ? [{ by, read: entry }] : [],
    )
    .slice(-MOST_TOLD)
    .reverse();
}

const ON_PAPER: ReadonlySet<RecordEntry["do"]> = new Set([
  "test",
  "issue",
  "sign",
  "remark",
  "close",
  "photosFor",
  "labels",
]);

/**
 * Whether something came to a record since an order was found from it that changes what is on the devices
 * beside the steps of that order: a device was read, or something was taken back.
 */
export function isOutdated(of: readonly Recorded[], record: readonly Recorded[]): boolean {
  // A test changes nothing on a device, nor does a sheet: that one was taken back says nothing of them.
  const then = new Set(of.flatMap(({ entry }) => (ON_PAPER.has(entry.do) ? [] : [entry.id])));
  const all = new Set(of.map(({ entry }) => entry.id));
  return record.some(
    ({ entry }) =>
      !all.has(entry.id) &&
      (entry.do === "read" || entry.do === "fault" || (entry.do === "takeBack" && then.has(entry.tick))),
  );
}
