import { z } from "zod";
import { changeSchema, encodeChangesSliced, upgradedChanges, type Breath } from "../formats";
import { idField, lineField, longText, textField, type Change } from "../plan";
import { SUSPECT_KINDS, type SuspectKind } from "../diagnosis";
import { PAGES, type Page, type StepKind } from "../runbook";
import { issueFields, signFields, type Issue, type Sign } from "./issue";
import {
  closeFields,
  labelsFields,
  photosForFields,
  remarkFields,
  type Close,
  type LabelsPrinted,
  type PhotosFor,
  type Remark,
} from "./remark";

// What was done on site lies outside the plan's revision: a log of its own, to which is only added. An entry is
// made where the work is done, has its id and its time from there, and counts once however often it is sent.

/** What came of a step: as planned; otherwise, with what of it did take; not to be done. */
const CAME = ["done", "differs", "cannot"] as const;
export type TickCame = (typeof CAME)[number];

const STEP_KINDS = [
  "begin",
  "permit",
  "move",
  "copy",
  "do",
  "credentials",
  "save",
  "end",
] as const satisfies readonly StepKind[];

/** As the longest step can be: every VLAN there is, on one device. */
const MOST_VALUES = 5_000;
const MOST_TEXT = 40_000;
/** As many photos go with a step. */
export const MOST_PHOTOS_AT_STEP = 4;
/** More than the largest request can hold. */
const MOST_CHANGES = 1_000_000;

/** The settings of ports that can be read off a device. */
export const PORT_FIELDS = ["enabled", "pvid", "untagged", "tagged", "admit", "ingressFilter"] as const;

const head = { id: idField, at: z.iso.datetime({ precision: 3 }) };
const changes = z.array(changeSchema).max(MOST_CHANGES);

const startSchema = z.strictObject({
  ...head,
  do: z.literal("start"),
  from: z.enum(["box", "plan", "last"]),
  name: lineField(200),
  changes,
});
const tickSchema = z.strictObject({
  ...head,
  do: z.literal("tick"),
  after: idField.nullable(),
  step: z.strictObject({
    kind: z.enum(STEP_KINDS),
    device: idField.nullable(),
    page: z.enum(PAGES).nullable(),
    title: lineField(MOST_TEXT),
    values: z.array(z.tuple([lineField(400), textField(MOST_TEXT)])).max(MOST_VALUES),
  }),
  came: z.enum(CAME),
  read: lineField(400),
  note: longText,
  photos: z.array(idField).max(MOST_PHOTOS_AT_STEP, `At most ${MOST_PHOTOS_AT_STEP} photos go with a step`),
  changes,
});
const takeBackSchema = z.strictObject({ ...head, do: z.literal("takeBack"), tick: idField });
/** A photo is taken out: what it shows is not for others after all. */
const takeOutSchema = z.strictObject({ ...head, do: z.literal("takeOut"), photo: idField });
const endSchema = z.strictObject({ ...head, do: z.literal("end"), note: longText });
/** As many ports has no device. */
const MOST_PORTS = 10_000;
const portsSeen = z
  .record(idField, z.array(z.enum(PORT_FIELDS)).max(PORT_FIELDS.length))
  .refine((ports) => Object.keys(ports).length <= MOST_PORTS, `A device has at most ${MOST_PORTS} ports`);
const readSchema = z.strictObject({
  ...head,
  do: z.literal("read"),
  device: idField,
  from: z.enum(["paste", "device"]),
  saw: z.strictObject({ ports: portsSeen, legs: z.boolean(), vlans: z.boolean() }),
  changes,
});

/** What came of a test: as it has to be; otherwise; or it could not be taken. */
const TEST_CAME = ["expected", "otherwise", "cannot"] as const;
export type TestCame = (typeof TEST_CAME)[number];
/** As long as the longest text that a laptop prints about its network, several times over. */
export const MOST_READ = 20_000;
/** A test names everything that tells it from others, and no more. */
const MOST_TEST_ID = 400;
/** A way across a site has not as many ports, nor a fault as many readings. */
export const MOST_NAMED = 1_000;
/** Ids of what was proven or explained; null where nobody wrote them down. */
const namedIds = z.array(lineField(MOST_TEST_ID)).max(MOST_NAMED).nullable();

const testSchema = z.strictObject({
  ...head,
  do: z.literal("test"),
  test: z.strictObject({
    id: lineField(MOST_TEST_ID),
    place: lineField(400),
    at: lineField(MOST_TEXT),
    does: lineField(MOST_TEXT),
    expected: textField(MOST_TEXT),
    proves: namedIds,
  }),
  came: z.enum(TEST_CAME),
  read: textField(MOST_READ),
  says: lineField(MOST_TEXT),
  note: longText,
  photos: z
    .array(idField)
    .max(MOST_PHOTOS_AT_STEP, `At most ${MOST_PHOTOS_AT_STEP} photos go with a reading`),
});

const KINDS_OF_FAULTS = Object.keys(SUSPECT_KINDS) as SuspectKind[];
const faultSchema = z.strictObject({
  ...head,
  do: z.literal("fault"),
  fault: z.strictObject({
    id: lineField(MOST_TEST_ID),
    kind: z.enum(KINDS_OF_FAULTS),
    words: lineField(MOST_TEXT),
    mend: lineField(MOST_TEXT),
    explains: namedIds,
  }),
  note: longText,
  changes,
});

/** An entry of the record as it travels and is stored. */
export const recordEntrySchema = z.discriminatedUnion("do", [
  startSchema,
  tickSchema,
  takeBackSchema,
  takeOutSchema,
  endSchema,
  readSchema,
  testSchema,
  faultSchema,
  z.strictObject({ ...head, ...issueFields }),
  z.strictObject({ ...head, ...signFields }),
  z.strictObject({ ...head, ...remarkFields }),
  z.strictObject({ ...head, ...closeFields }),
  z.strictObject({ ...head, ...photosForFields }),
  z.strictObject({ ...head, ...labelsFields }),
]);

interface Head {
  readonly id: string;
  /** When it was done, by the clock of the one who did it: ISO 8601 in UTC, with milliseconds. */
  readonly at: string;
}
/** A visit begins: with gear out of the box, with what a plan file says, or with what the last visit left. */
export interface Start extends Head {
  readonly do: "start";
  readonly from: "box" | "plan" | "last";
  /** The plan file's name; empty otherwise. */
  readonly name: string;
  /** What leads from gear out of the box to what is found. */
  readonly changes: readonly Change[];
}
/** A step as it was read when it was done: what is written down does not change with the plan. */
export interface TickedStep {
  readonly kind: StepKind;
  readonly device: string | null;
  /** The page of an operation; null for what is none. */
  readonly page: Page | null;
  readonly title: string;
  readonly values: readonly (readonly [name: string, value: string])[];
}
/** What came of a step. */
export interface Tick extends Head {
  readonly do: "tick";
  /** The last tick of the visit that stood when this one was made; null for the first. */
  readonly after: string | null;
  readonly step: TickedStep;
  readonly came: TickCame;
  /** What was read where it differs; empty otherwise. */
  readonly read: string;
  readonly note: string;
  /** Photos that were taken of it, by their ids. */
  readonly photos: readonly string[];
  /** What became different on the devices. */
  readonly changes: readonly Change[];
}
/** A tick is taken back: it was not done after all. */
export interface TakeBack extends Head {
  readonly do: "takeBack";
  readonly tick: string;
}
/** A photo is taken out for good: its bytes are forgotten. */
export interface TakeOut extends Head {
  readonly do: "takeOut";
  readonly photo: string;
}
/** The visit is over. */
export interface End extends Head {
  readonly do: "end";
  readonly note: string;
}
/** What a reading shows of a device: which settings of which ports, all its addresses, all its VLANs. */
export interface Seen {
  /** By the port's id. */
  readonly ports: Readonly<Record<string, readonly (typeof PORT_FIELDS)[number][]>>;
  readonly legs: boolean;
  readonly vlans: boolean;
}

/** What a device itself shows, whoever set it: counts from then on, within a visit or between two. */
export interface Read extends Head {
  readonly do: "read";
  readonly device: string;
  /** Pasted by somebody, or asked of the device by the network. */
  readonly from: "paste" | "device";
  /** What was shown at all: only that is known of the device now. */
  readonly saw: Seen;
  /** What became different of what was known to be on it. */
  readonly changes: readonly Change[];
}
/** A test as it was read when it was taken: what is written down does not change with the plan. */
export interface TakenTest {
  /** The same as long as the question is the same. */
  readonly id: string;
  readonly place: string;
  readonly at: string;
  readonly does: string;
  /** What had to be read, in words. */
  readonly expected: string;
  /**
   * The facts that it proved then, by their ids; null where what had to be read says all of it, and in records
   * of before, which did not say.
   */
  readonly proves: readonly string[] | null;
}
/** A reading that proves the site, or shows what is wrong; it changes nothing on any device. */
export interface TestTaken extends Head {
  readonly do: "test";
  readonly test: TakenTest;
  readonly came: TestCame;
  /** What was read, as it was typed or pasted; empty where it was ticked as expected. */
  readonly read: string;
  /** In which way it is right or not; empty where nobody could say. */
  readonly says: string;
  readonly note: string;
  readonly photos: readonly string[];
}
/** What was wrong, as somebody found it: counts from then on as what is on the devices, until it is mended. */
export interface FaultNamed extends Head {
  readonly do: "fault";
  readonly fault: {
    readonly id: string;
    readonly kind: SuspectKind;
    readonly words: string;
    readonly mend: string;
    /** The readings that were otherwise by it; null in records of before: all until then. */
    readonly explains: readonly string[] | null;
  };
  readonly note: string;
  /** What is otherwise on the devices by it; nothing where it is on none. */
  readonly changes: readonly Change[];
}
export type RecordEntry =
  | Start
  | Tick
  | TakeBack
  | TakeOut
  | End
  | Read
  | TestTaken
  | FaultNamed
  | Issue
  | Sign
  | Remark
  | Close
  | PhotosFor
  | LabelsPrinted;

/** Photos that an entry brings with it, by their ids. */
export const photosOf = (entry: RecordEntry): readonly string[] =>
  entry.do === "tick" || entry.do === "test" || entry.do === "remark" ? entry.photos : [];

/** An entry with who made it. */
export interface Recorded {
  readonly by: string;
  readonly entry: RecordEntry;
}

type Travelling = z.output<typeof recordEntrySchema>;

/** An entry as a JSON value: addresses as text. */
export const encodeEntry = (entry: RecordEntry): unknown =>
  z.encode(recordEntrySchema, entry as unknown as Travelling);

/** The same as JSON text, for one with many changes: `breath` is asked between them. */
export async function encodeEntrySliced(entry: RecordEntry, breath: Breath): Promise<string> {
  if (!("changes" in entry)) return JSON.stringify(encodeEntry(entry));
  const bare = encodeEntry({ ...entry, changes: [] }) as object;
  const rest = JSON.stringify(
    Object.fromEntries(Object.entries(bare).filter(([name]) => name !== "changes")),
  );
  return `${rest.slice(0, -1)},"changes":${await encodeChangesSliced(entry.changes, breath)}}`;
}

/** What the schema has read, in the core's own words. */
export const entryOf = (read: Travelling): RecordEntry => read as unknown as RecordEntry;

type Fields = Readonly<Record<string, unknown>>;
const isFields = (value: unknown): value is Fields =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** Gives a field of an entry what it lacked when it was written. */
const within =
  (field: string, added: Fields) =>
  (entry: Fields): Fields => {
    const own = entry[field];
    return isFields(own) ? { ...entry, [field]: { ...added, ...own } } : entry;
  };
/** What entries lacked that were written before their kind had all of today's fields. */
const ADDED: Readonly<Partial<Record<RecordEntry["do"], (entry: Fields) => Fields>>> = {
  tick: (entry) => ({ photos: [], ...entry }),
  test: within("test", { proves: null }),
  fault: within("fault", { explains: null }),
};

/** An entry in the present form, whenever it was written, as far as it is one. */
export function presentForm(value: unknown): unknown {
  if (!isFields(value)) return value;
  const does = typeof value.do === "string" && Object.hasOwn(ADDED, value.do) ? value.do : null;
  const present = does === null ? value : (ADDED[does as RecordEntry["do"]]?.(value) ?? value);
  return "changes" in present ? { ...present, changes: upgradedChanges(present.changes) } : present;
}

/** An entry as it was written, whenever that was; null for what is none. */
export function decodeEntry(value: unknown): RecordEntry | null {
  const read = recordEntrySchema.safeParse(presentForm(value));
  return read.success ? entryOf(read.data) : null;
}
