import { BLANK_SIGN_IN, MOST, type PlanEdits, type PlanIndex, type SignIn, type Vid } from "../../plan";
import { formatLease, parseSeconds } from "../addressing/lease-text";
import { pasteInto, readCells, type RowCells } from "../paste-rows";
import { readYes } from "../yes-text";
import type { EditContext, Refusal } from "../planner";
import { readServices, servicesText } from "../rules/service-list-text";
import { readServers, serversText } from "./server-list";
import { readDate } from "../site/survey-text";
import {
  attributesText,
  choiceWord,
  ORDERS,
  PORT_HOSTS,
  readAttributes,
  readChoice,
  STAGES,
} from "./sign-in-words";

/** What of a sign-in profile is written in a cell. */
export type SignInColumn =
  | "name"
  | "servers"
  | "stage"
  | "byMac"
  | "order"
  | "hosts"
  | "byAnswer"
  | "visitors"
  | "failed"
  | "serverDown"
  | "serverDownVoice"
  | "before"
  | "asks"
  | "quiet"
  | "again"
  | "takesOver"
  | "port"
  | "serverAsks"
  | "dead"
  | "test"
  | "accounting"
  | "changes"
  | "sends"
  | "certificate"
  | "secret"
  | "note";
export const SIGN_IN_COLUMNS: readonly (readonly [SignInColumn, string])[] = [
  ["name", "Profile"],
  ["servers", "Servers"],
  ["stage", "Stage"],
  ["byMac", "By MAC"],
  ["order", "Order"],
  ["hosts", "Host mode"],
  ["visitors", "Visitors"],
  ["failed", "Failed"],
  ["serverDown", "No server"],
  ["serverDownVoice", "Voice, no server"],
  ["asks", "Asks"],
  ["before", "Before a sign-in"],
  ["byAnswer", "VLAN by RADIUS"],
  ["takesOver", "Sign-in takes over"],
  ["quiet", "Quiet period"],
  ["again", "Re-authentication"],
  ["port", "UDP port"],
  ["serverAsks", "Server timeout"],
  ["dead", "Dead time"],
  ["test", "Tested every"],
  ["accounting", "Accounting port"],
  ["changes", "CoA port"],
  ["sends", "RADIUS attributes"],
  ["certificate", "Certificate until"],
  ["secret", "Secret kept"],
  ["note", "Note"],
];

type Fields = Partial<SignIn>;
const isNone = (text: string): boolean => /^(none|never|no|-|)$/i.test(text);
const alike = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

function readProfileServers(edits: PlanEdits, text: string): Pick<SignIn, "servers"> | string {
  const servers = isNone(text) ? [] : readServers(edits, text);
  if (typeof servers === "string") return servers;
  return servers.length > 8 ? "A profile names at most 8 servers." : { servers };
}

/** "90", "VLAN 90", "Guests": a VLAN by its number or the segment on it; null for none. */
function readVlan({ plan }: PlanIndex, text: string): { readonly vid: Vid | null } | string {
  if (isNone(text)) return { vid: null };
  const [, digits] = /^(?:VLAN\s*)?(\d{1,4})(?:\s.*)?$/i.exec(text) ?? [];
  const vlans = [...plan.vlan.values()];
  const segment = [...plan.segment.values()].find(({ name, mark }) => alike(name, text) || alike(mark, text));
  const found =
    digits === undefined
      ? vlans.find(({ id, name }) => id === segment?.vlan || alike(name, text))
      : vlans.find(({ vid }) => vid === Number(digits));
  return found === undefined
    ? `There is no VLAN "${text}"; write the number of one that is planned, the segment on it, or none.`
    : { vid: found.vid };
}

const vlanText = ({ plan }: PlanIndex, vid: Vid | null): string => {
  if (vid === null) return "none";
  const vlan = [...plan.vlan.values()].find((vlan) => vlan.vid === vid);
  return vlan === undefined ? String(vid) : `${vid} ${vlan.name}`;
};

/** "3 x 30 s": how often and how long. */
function readTimes(text: string): { readonly tries: number; readonly seconds: number } | string {
  const [, times = "", each = ""] = /^(\d{1,2})\s*(?:x|×|\*|times)\s*(.+)$/i.exec(text) ?? [];
  const [tries, seconds] = [Number(times), parseSeconds(each)];
  return tries < 1 || tries > 10 || seconds === null || seconds < 1
    ? `"${text}" does not say how often and how long; write it like 3 x 30 s, up to 10 times.`
    : { tries, seconds };
}

function readPort(text: string): { readonly port: number | null } | string {
  if (isNone(text)) return { port: null };
  const port = /^\d{1,5}$/.test(text) ? Number(text) : 0;
  return port < 1 || port > 65_535 ? `"${text}" is no UDP port; write 1 to 65535.` : { port };
}

/** What a column with one time in it is, with the least and the most seconds that it takes. */
const TIMES: Readonly<
  Partial<
    Record<
      SignInColumn,
      {
        readonly field: "quietSeconds" | "againSeconds" | "deadSeconds" | "testSeconds";
        readonly none: 0 | null;
        readonly most: number;
      }
    >
  >
> = {
  quiet: { field: "quietSeconds", none: 0, most: 65_535 },
  again: { field: "againSeconds", none: null, most: 1_000_000 },
  dead: { field: "deadSeconds", none: 0, most: 86_400 },
  test: { field: "testSeconds", none: null, most: 86_400 },
};

/** What a row is read with. */
interface Reading {
  readonly edits: PlanEdits;
  readonly index: PlanIndex;
  readonly timers: SignIn["timers"];
}

function readTimer({ timers }: Reading, column: SignInColumn, text: string): Fields | string {
  const time = TIMES[column];
  if (time !== undefined) {
    const seconds = isNone(text) ? time.none : parseSeconds(text);
    if (seconds === null && !isNone(text)) return `"${text}" is no time; write 60 s, 10 min, 1 h or none.`;
    if (seconds !== null && (seconds > time.most || (seconds < 1 && time.none === null)))
      return `"${text}" is not from 1 s to ${formatLease(time.most)}.`;
    return { timers: { ...timers, [time.field]: seconds } };
  }
  const times = readTimes(text);
  if (typeof times === "string") return times;
  const most = column === "asks" ? 3600 : 1000;
  if (times.seconds > most) return `At most ${formatLease(most)} each time.`;
  return column === "asks"
    ? { timers: { ...timers, tries: times.tries, waitSeconds: times.seconds } }
    : { timers: { ...timers, serverTries: times.tries, serverSeconds: times.seconds } };
}

const renamed = <V, F>(read: string | V, to: (value: V) => F): F | string =>
  typeof read === "string" ? read : to(read);

/** Fields whose cell says one value of a kind. */
function readCell(reading: Reading, column: SignInColumn, text: string): Fields | string {
  const { edits, index } = reading;
  switch (column) {
    case "name":
      return text === "" || text.length > 80 ? "A profile has a name of 1 to 80 characters." : { name: text };
    case "servers":
      return readProfileServers(edits, text);
    case "stage":
      return renamed(readChoice(STAGES, text), ({ value: stage }) => ({ stage }));
    case "hosts":
      return renamed(readChoice(PORT_HOSTS, text), ({ value: hosts }) => ({ hosts }));
    case "order":
      return renamed(readChoice(ORDERS, text), ({ value: order }) => ({ order }));
    case "byMac":
    case "byAnswer":
      return renamed(readYes(text), ({ is }) => ({ [column]: is }));
    case "takesOver":
      return renamed(readYes(text), ({ is }) => ({ signInWins: is }));
    case "visitors":
    case "failed":
    case "serverDown":
    case "serverDownVoice":
      return renamed(readVlan(index, text), ({ vid }) => ({ [column]: vid }));
    case "before":
      return renamed(isNone(text) ? [] : readServices(index, text), (before) => ({ before: [...before] }));
    case "port":
      return renamed(readPort(text), ({ port }) => ({ port: port ?? BLANK_SIGN_IN.port }));
    case "accounting":
      return renamed(readPort(text), ({ port }) => ({ accountingPort: port }));
    case "changes":
      return renamed(readPort(text), ({ port }) => ({ changePort: port }));
    case "sends":
      return renamed(readAttributes(text), (sends) => ({ sends }));
    case "certificate": {
      const read = readDate(isNone(text) ? "" : text);
      return read.refusal ?? { certificateUntil: read.value };
    }
    case "secret":
    case "note":
      if (text.length > 120) return "At most 120 characters here.";
      return column === "note" ? { note: text } : { secretPlace: text };
    default:
      return readTimer(reading, column, text);
  }
}

const yes = (is: boolean): string => (is ? "yes" : "no");
const orNone = (value: number | null): string => (value === null ? "none" : String(value));

/** What a cell says, as it is read. */
export function signInCellText(index: PlanIndex, profile: SignIn, column: SignInColumn): string {
  const { timers } = profile;
  const time = TIMES[column];
  if (time !== undefined) {
    const seconds = timers[time.field];
    return seconds === null || seconds === 0 ? "none" : formatLease(seconds);
  }
  switch (column) {
    case "servers":
      return serversText(index, profile.servers);
    case "stage":
      return choiceWord(STAGES, profile.stage);
    case "hosts":
      return choiceWord(PORT_HOSTS, profile.hosts);
    case "order":
      return choiceWord(ORDERS, profile.order);
    case "byMac":
    case "byAnswer":
      return yes(profile[column]);
    case "takesOver":
      return yes(profile.signInWins);
    case "visitors":
    case "failed":
    case "serverDown":
    case "serverDownVoice":
      return vlanText(index, profile[column]);
    case "before":
      return profile.before.length === 0 ? "none" : servicesText(index, profile.before);
    case "asks":
      return `${timers.tries} x ${formatLease(timers.waitSeconds)}`;
    case "serverAsks":
      return `${timers.serverTries} x ${formatLease(timers.serverSeconds)}`;
    case "port":
      return String(profile.port);
    case "accounting":
      return orNone(profile.accountingPort);
    case "changes":
      return orNone(profile.changePort);
    case "sends":
      return attributesText(profile.sends);
    case "certificate":
      return profile.certificateUntil ?? "none";
    case "secret":
      return profile.secretPlace;
    default:
      return profile[column as "name" | "note"];
  }
}

function writeRow(
  { edits, ids, index }: EditContext,
  id: string | null,
  cells: RowCells<SignInColumn>,
): Refusal {
  const known = id === null ? null : edits.need("signIn", id);
  // Cells of one row may set several of the timers: each goes on from those before it.
  let timers = (known ?? BLANK_SIGN_IN).timers;
  const fields = readCells<SignInColumn, SignIn>(cells, id === null, (column, text) => {
    const read = readCell({ edits, index, timers }, column, text);
    if (typeof read !== "string" && read.timers !== undefined) timers = read.timers;
    return read;
  });
  if (typeof fields === "string") return fields;
  const name = fields.name ?? known?.name;
  if (name === undefined) return "A new profile needs its name: write or paste it first.";
  const other = edits.all("signIn").find((other) => alike(other.name, name) && other.id !== known?.id);
  if (other !== undefined) return `There is a profile ${other.name} already.`;
  if (known === null && edits.all("signIn").length >= MOST.signIn)
    return `A site has at most ${MOST.signIn} sign-in profiles.`;
  edits.put("signIn", { ...BLANK_SIGN_IN, ...known, ...fields, name, id: known?.id ?? ids() });
  return null;
}

/** Writes a block of texts onto sign-in profiles; rows beyond `onto` are new ones, which need their name. */
export const pasteSignIns = (
  context: EditContext,
  rows: readonly (readonly string[])[],
  from: SignInColumn,
  onto: readonly string[],
): Refusal => pasteInto(SIGN_IN_COLUMNS, { rows, from, onto }, (id, cells) => writeRow(context, id, cells));

/**
 * Removes sign-in profiles. Their ports go on asking for a sign-in: by the profile that is left where there is
 * one only, else by none until somebody says which.
 */
export function removeSignIns({ edits }: Pick<EditContext, "edits">, ids: readonly string[]): void {
  const gone = new Set<string | null>(ids);
  for (const port of edits.all("port"))
    if (gone.has(port.guards.profile))
      edits.patch("port", port.id, { guards: { ...port.guards, profile: null } });
  for (const { id, profile } of edits.all("ssid"))
    if (gone.has(profile)) edits.patch("ssid", id, { profile: null });
  for (const id of ids) edits.remove("signIn", edits.need("signIn", id).id);
}
