import { BLANK_DEVICE, BLANK_HOST, BLANK_LINE, BLANK_LINK, BLANK_PORT, BLANK_ROOM, BLANK_SSID, BLANK_TREE, CONVENTIONS, KINDS, LIST_NAMES, NO_RADIO_RULES, USUAL_ABILITIES, type Kind } from "../plan";

/** The form that plan files and logged changes have now. */
export const VERSION = 3;

type Fields = Record<string, unknown>;
const pick = <T extends object>(from: T, ...names: readonly (keyof T)[]): Fields => Object.fromEntries(names.map((name) => [name, from[name]]));

/** What the entities of versions before lacked, with the value that changes nothing. */
const ADDED: Partial<Record<Kind, Fields>> = {
  site: { radio: NO_RADIO_RULES },
  room: pick(BLANK_ROOM, "building", "beside"),
  device: pick(BLANK_DEVICE, "abilities", "rackUnit", "heightUnits", "feed", "backupFeed", "poe", "poeOneLostMw", "hears", "protections", "routes", "defaultRoute"),
  port: pick(BLANK_PORT, "optic", "lag", "treePriority", "treeCost"),
  line: pick(BLANK_LINE, "use"),
  interface: { translates: "asUsual" },
  link: pick(BLANK_LINK, "cable", "panel", "socket"),
  host: pick(BLANK_HOST, "poe"),
  ssid: pick(BLANK_SSID, "moreSegments", "security", "hidden", "isolation", "bands", "at"),
};
const CONVENTIONS_ADDED = pick(CONVENTIONS, "devicePattern", "cablePattern", "wifiNames");
const LISTS_ADDED = ["deviceModels", "templates", "lags", "radios", "signIns", "forwards", "expectations"] as const;
const ABILITIES_ADDED = pick(USUAL_ABILITIES, "ownTag");

const isFields = (value: unknown): value is Fields => typeof value === "object" && value !== null && !Array.isArray(value);

/** An entity of any version in the present form: what it lacks is added, what it has stays. */
function upgradedEntity(kind: Kind, entity: unknown): unknown {
  if (!isFields(entity)) return entity;
  const whole: Fields = { ...ADDED[kind], ...entity };
  if (kind === "site" && isFields(whole.conventions)) return { ...whole, conventions: { ...CONVENTIONS_ADDED, ...whole.conventions } };
  if (kind === "port" && isFields(whole.guards)) return { ...whole, guards: { profile: "", restrictedRole: false, ...whole.guards } };
  if (isFields(whole.abilities)) {
    const abilities = { ...ABILITIES_ADDED, ...whole.abilities };
    return kind === "device" && isFields(whole.tree) ? { ...whole, abilities, tree: { ...BLANK_TREE, ...whole.tree } } : { ...whole, abilities };
  }
  return whole;
}

/** A plan file of an earlier version in the present form; any other value as it is. */
export function upgradedFile(file: unknown): unknown {
  if (!isFields(file) || (file.version !== 1 && file.version !== 2)) return file;
  const lists = KINDS.flatMap((kind): [string, unknown][] => {
    const name = kind === "site" ? "site" : LIST_NAMES[kind];
    const value = file[name];
    return name in file ? [[name, Array.isArray(value) ? value.map((entity) => upgradedEntity(kind, entity)) : upgradedEntity(kind, value)]] : [];
  });
  const empty = Object.fromEntries(LISTS_ADDED.map((name) => [name, []]));
  return { ...empty, ...file, ...Object.fromEntries(lists), version: VERSION };
}

const isKind = (value: unknown): value is Kind => typeof value === "string" && (KINDS as readonly string[]).includes(value);

/** Logged changes of any version in the present form. */
export function upgradedChanges(changes: unknown): unknown {
  if (!Array.isArray(changes)) return changes;
  return changes.map((change: unknown) => {
    if (!isFields(change) || !isKind(change.kind)) return change;
    return { ...change, before: upgradedEntity(change.kind, change.before), after: upgradedEntity(change.kind, change.after) };
  });
}

/** Batches that a browser kept, whenever it did, in the present form. */
export const upgradedBatches = (batches: unknown): unknown =>
  (Array.isArray(batches) ? batches.map((batch: unknown) => (isFields(batch) ? { ...batch, changes: upgradedChanges(batch.changes) } : batch)) : batches);
