import { equal } from "../../kernel";
import { KIND_WORDS, type ChangeBatch, type Entity, type Kind, type PlanIndex } from "../../plan";
import { plan, type EditContext, type IdSource } from "../../planners";
import { catalogueOf } from "../../catalogue";
import { roomsInOrder } from "../groups";
import { readNeeds } from "../read-needs";
import { schoolOf, type SchoolChoice } from "../school";
import { draftGear } from "./draft-gear";
import { draftHosts } from "./draft-hosts";
import { draftPorts } from "./draft-ports";
import { draftScopes } from "./draft-scopes";
import { draftLargerSubnets, draftSegments } from "./draft-segments";
import { draftWalls } from "./draft-walls";
import { draftWireless } from "./draft-wireless";
import { groupsToDraft, type Frame } from "./frame";

const PARTS = [
  { part: "segments", title: "Zones, VLANs and segments", work: draftSegments },
  { part: "larger", title: "Larger subnets for what has outgrown its own", work: draftLargerSubnets },
  { part: "gear", title: "Gateway, switches, access points, cables", work: draftGear },
  { part: "scopes", title: "Gateway addresses and scopes", work: draftScopes },
  { part: "wireless", title: "Wireless names", work: draftWireless },
  { part: "hosts", title: "Register and reservations", work: draftHosts },
  { part: "ports", title: "Ports", work: draftPorts },
  { part: "walls", title: "Doors in the walls", work: draftWalls },
] as const;

export type DraftPart = (typeof PARTS)[number]["part"];
export const DRAFT_PARTS: readonly DraftPart[] = PARTS.map(({ part }) => part);
export const PART_TITLES = Object.fromEntries(PARTS.map(({ part, title }) => [part, title])) as Readonly<
  Record<DraftPart, string>
>;
/** What is drafted when nobody chooses: everything but what moves addresses that are in use. */
export const USUAL_PARTS: ReadonlySet<DraftPart> = new Set(DRAFT_PARTS.filter((part) => part !== "larger"));

/** How many entities of a kind a part adds, changes and removes. */
export interface DraftCount {
  readonly kind: Kind;
  readonly word: string;
  readonly added: number;
  readonly changed: number;
  readonly removed: number;
}
export interface DraftedPart {
  readonly part: DraftPart;
  readonly title: string;
  readonly counts: readonly DraftCount[];
}
export interface DraftReport {
  readonly parts: readonly DraftedPart[];
  readonly notes: readonly string[];
  readonly school: SchoolChoice;
}

/** What has been written so far, by id; null for what has been removed. */
type Written = ReadonlyMap<
  string,
  { readonly kind: Kind; readonly after: Entity | null; readonly isNew: boolean }
>;

const writtenIn = (frame: Frame): Written =>
  new Map(
    frame.edits.changes().map(({ kind, id, before, after }) => [id, { kind, after, isNew: before === null }]),
  );

/**
 * What a part has done: between what was written before it and after. Something made in one part and changed
 * in the next counts in both.
 */
function between(earlier: Written, later: Written): DraftCount[] {
  const counts = new Map<Kind, { added: number; changed: number; removed: number }>();
  for (const [id, { kind, after, isNew }] of later) {
    const was = earlier.get(id);
    if (was !== undefined && equal(was.after, after)) continue;
    const count = counts.get(kind) ?? { added: 0, changed: 0, removed: 0 };
    if (after === null) count.removed += 1;
    else if (was === undefined && isNew) count.added += 1;
    else count.changed += 1;
    counts.set(kind, count);
  }
  return [...counts].map(([kind, count]) => ({ kind, word: KIND_WORDS[kind], ...count }));
}

const NAMED = 6;

/** What was typed and could not be read, with its room. */
function unreadItems(index: PlanIndex): string[] {
  const catalogue = catalogueOf(index.plan);
  return roomsInOrder(index).flatMap((room) =>
    readNeeds(catalogue, room.needs).flatMap(({ start, end, problem }) =>
      problem === null ? [] : [`"${room.needs.slice(start, end)}" in ${room.name}`],
    ),
  );
}

/**
 * Writes into the draft what the survey asks for and the plan does not have yet, part by part in the order of
 * the job; each part builds on what stands by then, so that some of them can be left out. Done again after
 * the survey has changed it adds the difference: what is in the plan already is found by its purpose, room or
 * name, and an address in use moves only in the part for that, with a sentence.
 */
export function draftPlan({ edits, ids, index }: EditContext, parts: ReadonlySet<DraftPart>): DraftReport {
  const school = schoolOf(index);
  const frame: Frame = { edits: edits, ids, index, school, notes: [], groups: groupsToDraft(index, school) };
  const unread = unreadItems(index);
  if (unread.length > 0)
    frame.notes.push(
      `${unread.length} ${unread.length === 1 ? "item" : "items"} of the survey ` +
        `could not be read and ${unread.length === 1 ? "is" : "are"} left out: ` +
        `${unread.slice(0, NAMED).join(", ")}` +
        `${unread.length > NAMED ? ` and ${unread.length - NAMED} more` : ""}.`,
    );
  const drafted: DraftedPart[] = [];
  let earlier: Written = new Map();
  for (const { part, title, work } of PARTS) {
    if (!parts.has(part)) continue;
    work(frame);
    const later = writtenIn(frame);
    drafted.push({ part, title, counts: between(earlier, later) });
    earlier = later;
  }
  return { parts: drafted, notes: [...new Set(frame.notes)], school };
}

/** The draft as a batch with its report, or the sentence why not. */
export function draftBatch(
  index: PlanIndex,
  ids: IdSource,
  parts: ReadonlySet<DraftPart>,
): {
  readonly batch: ChangeBatch | null;
  readonly refusal: string | null;
  readonly report: DraftReport | null;
} {
  let report: DraftReport | null = null;
  const { batch, refusal } = plan(
    index,
    ids,
    {
      planner: "draft-from-survey",
      summary: "Drafted the plan from the survey",
      args: { parts: [...parts] },
    },
    (context) => {
      report = draftPlan(context, parts);
    },
  );
  return { batch, refusal, report };
}
