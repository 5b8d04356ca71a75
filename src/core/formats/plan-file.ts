import { z } from "zod";
import { err, ok, type Result } from "../kernel";
import type { Breath } from "./breath";
import { upgradedFile, VERSION } from "./older";
import {
  applyChanges,
  assemble,
  COLLECTION_KINDS,
  emptyPlan,
  encodeStored,
  issueSentence,
  KIND_WORDS,
  LIST_NAMES,
  MOST,
  SCHEMAS,
  storedPlan,
  valueAt,
  type Change,
  type CollectionKind,
  type IntegrityError,
  type Kind,
  type Plan,
} from "../plan";

const {
  site,
  domain,
  zone,
  room,
  hostKind,
  deviceModel,
  leaflet,
  template,
  lag,
  radio,
  line,
  vlan,
  segment,
  device,
  gear,
  deviceVlan,
  port,
  link,
  interface: interfaces,
  ssid,
  host,
  scope,
  service,
  conduit,
  wall,
  exception,
  rule,
  signIn,
  forward,
  wish,
  expectation,
  acceptance,
  window: windows,
} = SCHEMAS;

/** As many entries of what was done on site go with a plan; `records` reads them. */
const MOST_RECORDS = 100_000;
const records = z
  .array(z.unknown())
  .max(MOST_RECORDS, `At most ${MOST_RECORDS} entries of a record go with a plan`)
  .optional()
  .meta({ description: "What was done on site, and by whom: no part of the plan itself" });
/** As many photos does a site have. */
export const MOST_PHOTOS = 150;
const photos = z
  .array(z.unknown())
  .max(MOST_PHOTOS, `At most ${MOST_PHOTOS} photos go with a plan`)
  .optional()
  .meta({ description: "Photos that the records name, as JPEG in base64" });
/** As many changes that made it go with a plan; `historyOfFile` reads them. */
export const MOST_BATCHES = 50_000;
const history = z
  .array(z.unknown())
  .max(MOST_BATCHES, `At most ${MOST_BATCHES} changes that made it go with a plan`)
  .optional()
  .meta({ description: "Every change that made the plan, oldest first, and who made it when" });

/**
 * The whole file: a format word, a version, the site, and a list for each kind. Nothing may be missing,
 * nothing added.
 */
export const planFileSchema = z.strictObject({
  format: z.literal("dianome-plan"),
  version: z.literal(VERSION),
  site,
  domains: z.array(domain).max(MOST.domain),
  zones: z.array(zone).max(MOST.zone),
  rooms: z.array(room).max(MOST.room),
  hostKinds: z.array(hostKind).max(MOST.hostKind),
  deviceModels: z.array(deviceModel).max(MOST.deviceModel),
  leaflets: z.array(leaflet).max(MOST.leaflet),
  templates: z.array(template).max(MOST.template),
  lines: z.array(line).max(MOST.line),
  vlans: z.array(vlan).max(MOST.vlan),
  segments: z.array(segment).max(MOST.segment),
  devices: z.array(device).max(MOST.device),
  gear: z.array(gear).max(MOST.gear),
  deviceVlans: z.array(deviceVlan).max(MOST.deviceVlan),
  lags: z.array(lag).max(MOST.lag),
  ports: z.array(port).max(MOST.port),
  links: z.array(link).max(MOST.link),
  interfaces: z.array(interfaces).max(MOST.interface),
  ssids: z.array(ssid).max(MOST.ssid),
  radios: z.array(radio).max(MOST.radio),
  hosts: z.array(host).max(MOST.host),
  scopes: z.array(scope).max(MOST.scope),
  services: z.array(service).max(MOST.service),
  conduits: z.array(conduit).max(MOST.conduit),
  walls: z.array(wall).max(MOST.wall),
  exceptions: z.array(exception).max(MOST.exception),
  rules: z.array(rule).max(MOST.rule),
  signIns: z.array(signIn).max(MOST.signIn),
  forwards: z.array(forward).max(MOST.forward),
  wishes: z.array(wish).max(MOST.wish),
  expectations: z.array(expectation).max(MOST.expectation),
  acceptances: z.array(acceptance).max(MOST.acceptance),
  windows: z.array(windows).max(MOST.window),
  records,
  photos,
  history,
});
export type PlanFile = z.output<typeof planFileSchema>;

/** The file with its lists as they come. */
const shellSchema = z.strictObject({
  format: z.literal("dianome-plan"),
  version: z.literal(VERSION),
  site,
  ...Object.fromEntries(COLLECTION_KINDS.map((kind) => [LIST_NAMES[kind], z.array(z.unknown())])),
  records,
  photos,
  history,
});

/**
 * The same without bounds: what our own database holds can always be opened, so that a site beyond a limit
 * can be mended.
 */
const storedFileSchema = z.strictObject({
  format: z.literal("dianome-plan"),
  version: z.literal(VERSION),
  site,
  ...Object.fromEntries(COLLECTION_KINDS.map((kind) => [LIST_NAMES[kind], z.array(SCHEMAS[kind])])),
}) as unknown as typeof planFileSchema;

/** Why a file was refused: where, and a sentence that says what is wrong and what to do. */
export interface FileFault {
  readonly place: string;
  readonly sentence: string;
}

function planToFile(plan: Plan): PlanFile {
  const lists = Object.fromEntries(
    COLLECTION_KINDS.map((kind) => [LIST_NAMES[kind], [...plan[kind].values()]]),
  );
  return { format: "dianome-plan", version: VERSION, site: plan.site, ...lists } as unknown as PlanFile;
}

/** The file's text side: plain JSON values, addresses as text. */
export const encodePlan = (plan: Plan): unknown => z.encode(storedFileSchema, planToFile(plan));

/** What goes with a plan and is no part of it, as `recordsToFile` and `photosToFile` have it. */
export interface Beside {
  readonly records: readonly unknown[];
  readonly photos: readonly unknown[];
}
const NOTHING_BESIDE: Beside = { records: [], photos: [] };

/** A plan file's text, with what was done on site, where there is something. */
export function writePlanFile(plan: Plan, { records: done, photos: taken }: Beside = NOTHING_BESIDE): string {
  const whole = {
    ...(encodePlan(plan) as object),
    ...(done.length === 0 ? {} : { records: done }),
    ...(taken.length === 0 ? {} : { photos: taken }),
  };
  return `${JSON.stringify(whole, null, 1)}\n`;
}

/** Reads a file's text; at most ten faults are named, and a file with any fault gives no plan. */
export function readPlanFile(text: string): Result<Plan, readonly FileFault[]> {
  const parsed = parseJson(text);
  return parsed.ok ? decodePlan(parsed.value) : parsed;
}

/** JSON that names the line where it breaks, which the engine's own message doesn't always. */
function parseJson(text: string): Result<unknown, readonly FileFault[]> {
  try {
    return ok(JSON.parse(text.replace(/^\ufeff/, "")));
  } catch (error) {
    if (!(error instanceof SyntaxError))
      return err([{ place: "the file", sentence: "The file can't be read as JSON." }]);
    const at = /position (\d+)/.exec(error.message)?.[1];
    const line = at === undefined ? text.split("\n").length : text.slice(0, Number(at)).split("\n").length;
    return err([
      {
        place: `line ${line}`,
        sentence: `The file stops being JSON at line ${line}; it may be cut off or not a plan file.`,
      },
    ]);
  }
}

/** The first list that is longer than a plan may have of its kind: asked before anything in it is looked at. */
function listTooLong(file: unknown): FileFault | null {
  if (typeof file !== "object" || file === null) return null;
  for (const kind of COLLECTION_KINDS) {
    const list = (file as Record<string, unknown>)[LIST_NAMES[kind]];
    if (Array.isArray(list) && list.length > MOST[kind])
      return { place: LIST_NAMES[kind], sentence: tooManySentence(kind, list.length) };
  }
  return null;
}

const tooManySentence = (kind: CollectionKind, count: number): string =>
  `A plan has at most ${MOST[kind]} of the kind "${word(kind)}"; with ` +
  `this it would have ${count}. Divide the site, or take some away first.`;

/** The plan in already parsed JSON from elsewhere, or why not. */
export function decodePlan(value: unknown): Result<Plan, readonly FileFault[]> {
  const tooLong = listTooLong(value);
  if (tooLong !== null) return err([tooLong]);
  const file = upgradedFile(value);
  const read = planFileSchema.safeParse(file);
  if (!read.success) return err(read.error.issues.slice(0, 10).map((issue) => faultOf(issue, file)));
  return planOfFile(read.data, applyChanges);
}

/**
 * `decodePlan` for a file that may be large, on a thread that others wait for: `breath` is asked between
 * entities. The first fault ends it.
 */
export async function decodePlanSliced(
  value: unknown,
  breath: Breath,
): Promise<Result<Plan, readonly FileFault[]>> {
  const tooLong = listTooLong(value);
  if (tooLong !== null) return err([tooLong]);
  const file = upgradedFile(value);
  const read = shellSchema.safeParse(file);
  if (!read.success) return err(read.error.issues.slice(0, 10).map((issue) => faultOf(issue, file)));
  const lists: Record<string, unknown[]> = {};
  for (const kind of COLLECTION_KINDS) {
    const name = LIST_NAMES[kind];
    const list: unknown[] = (lists[name] = []);
    for (const [i, entity] of (read.data as unknown as Record<string, unknown[]>)[name]?.entries() ?? []) {
      const read = SCHEMAS[kind].safeParse(entity);
      if (!read.success)
        return err(
          read.error.issues
            .slice(0, 10)
            .map((issue) => faultOf({ ...issue, path: [name, i, ...issue.path] }, file)),
        );
      list.push(read.data);
      await breath();
    }
  }
  return planOfFile({ ...read.data, ...lists } as unknown as PlanFile, applyChanges);
}

/** As many entities make a piece of JSON text: some hundred kilobytes. */
const PIECE = 500;

/**
 * A plan in the file's form, piece by piece as JSON text, the closing brace on its own: together they say what
 * `encodePlan` gives, without holding up others for as long.
 */
export async function* planPieces(plan: Plan, breath: Breath): AsyncGenerator<string> {
  const site = JSON.stringify(encodeStored("site", plan.site));
  yield `{"format":"dianome-plan","version":${VERSION},"site":${site}`;
  for (const kind of COLLECTION_KINDS) {
    yield `,"${LIST_NAMES[kind]}":[`;
    let texts: string[] = [];
    let before = "";
    for (const entity of plan[kind].values()) {
      texts.push(JSON.stringify(encodeStored(kind, entity)));
      await breath();
      if (texts.length < PIECE) continue;
      yield before + texts.join(",");
      [texts, before] = [[], ","];
    }
    yield `${texts.length === 0 ? "" : before}${texts.join(",")}]`;
  }
  yield "}";
}

/**
 * The plan as our own server sends it: beyond a limit, too. What it has validated is read fast; where anything
 * does not fit, the strict way says what.
 */
export function openPlan(value: unknown): Result<Plan, readonly FileFault[]> {
  const file = (value ?? {}) as Record<string, unknown>;
  const ours = file.format === "dianome-plan" && file.version === VERSION;
  const stored = ours ? storedPlan(file) : null;
  if (stored !== null) return ok(stored);
  const read = storedFileSchema.safeParse(value);
  if (!read.success) return err(read.error.issues.slice(0, 10).map((issue) => faultOf(issue, value)));
  return planOfFile(read.data, assemble);
}

/** Puts the lists together and checks that everything referred to is there. */
function planOfFile(file: PlanFile, put: typeof applyChanges): Result<Plan, readonly FileFault[]> {
  const ids = new Set<string>();
  const changes: Change[] = [];
  for (const kind of COLLECTION_KINDS) {
    for (const entity of file[LIST_NAMES[kind]]) {
      if (ids.has(entity.id)) return err([idTwice(file, entity)]);
      ids.add(entity.id);
      changes.push({ kind, id: entity.id, before: null, after: entity } as Change);
    }
  }
  const plan = put(emptyPlan(file.site), changes);
  return plan.ok ? plan : err([integrityFault(plan.error, (id) => placesOf(file, id)[0] ?? id)]);
}

/** Where in the file an id stands: `hosts[3] "Till"`. Asked only of a file that is refused. */
const placesOf = (file: PlanFile, id: string): string[] =>
  COLLECTION_KINDS.flatMap((kind) =>
    [...file[LIST_NAMES[kind]].entries()].flatMap(([i, entity]) =>
      entity.id === id ? [`${LIST_NAMES[kind]}[${i}]${nameOf(entity)}`] : [],
    ),
  );

function idTwice(file: PlanFile, { id }: { readonly id: string }): FileFault {
  const [first = "", place = ""] = placesOf(file, id);
  return { place, sentence: `${place} has the same id as ${first}; every id may stand once.` };
}

const nameOf = (entity: unknown): string => {
  const name = (entity as { name?: unknown; label?: unknown } | null)?.name;
  return typeof name === "string" ? ` "${name.slice(0, 40)}"` : "";
};

const word = (kind: Kind) => KIND_WORDS[kind];

/** A sentence for a broken reference; `name` gives what a person calls the entity with that id. */
export function integrityFault(error: IntegrityError, name: (id: string) => string): FileFault {
  const place = name(error.id);
  switch (error.code) {
    case "changed-twice":
      return { place, sentence: `${place} is changed twice in one batch; send one change for each.` };
    case "stale-before":
      return { place, sentence: `${place} is not as it was when you changed it; load it again.` };
    case "wrong-id":
      return { place, sentence: `${place} would get another id; ids stay as they are.` };
    case "site-is-one":
      return { place, sentence: "A plan has exactly one site; it can be changed, but not added or removed." };
    case "dangling-reference":
      return {
        place: `${place}.${error.field}`,
        sentence:
          `${place} points in its field "${error.field}" at a ${word(error.toKind)} ` +
          `that is not in the plan (${error.to}); add it or clear the field.`,
      };
    case "still-referenced":
      return {
        place,
        sentence:
          `The ${word(error.kind)} ${place} is still used by the ` +
          `${word(error.byKind)} ${name(error.by)}; change that first.`,
      };
    case "port-linked-twice":
      return {
        place,
        sentence:
          `${place} uses port ${name(error.port)}, which ` +
          `${name(error.other)} already uses; a port takes one cable.`,
      };
    case "linked-to-itself":
      return { place, sentence: `${place} joins a port to itself; a cable has two ends.` };
    case "too-many":
      return { place, sentence: tooManySentence(error.kind, error.count) };
    case "id-of-another":
      return {
        place,
        sentence:
          `${place} has the id of a ${word(error.other)} that ` +
          "is in the plan already; every id may stand once.",
      };
    case "behind-itself":
      return { place, sentence: `${place} is plugged in behind itself; break the circle.` };
  }
}

function faultOf(issue: z.core.$ZodIssue, root: unknown): FileFault {
  const place = placeOf(issue.path, root);
  return { place, sentence: `${place}: ${issueSentence(issue, valueAt(root, issue.path))}` };
}

/** "segments[3] "Staff".prefixes4[0]"; "the file" for the root. */
function placeOf(path: readonly PropertyKey[], root: unknown): string {
  let place = "";
  for (const [i, key] of path.entries()) {
    place += typeof key === "number" ? `[${key}]` : `${place === "" ? "" : "."}${String(key)}`;
    if (i === 1 && typeof key === "number") place += nameOf(valueAt(root, path.slice(0, 2)));
  }
  return place === "" ? "the file" : place;
}
