import {
  LACKS,
  WAYS_IN,
  type Baseline,
  type Device,
  type Lack,
  type PlanIndex,
  type WayIn,
} from "../../plan";
import { addressesText, readAddresses } from "../site/survey-text";
import { countChecked } from "../count-text";
import { readYes } from "../yes-text";

/** What can be written of how gear is administered: the field, its word, and a hint. */
export const BASELINE_FIELDS = [
  ["waysIn", "Ways in", "web over TLS, SSH"],
  ["idleMinutes", "Signed out after", "10 min"],
  ["passwordLength", "Password, fewest characters", "14"],
  ["passwordDays", "Password changed", "never, 365 days"],
  ["nameServers", "Name servers", "10.24.10.1"],
  ["timeServers", "Time servers", "10.24.10.1"],
  ["logTo", "Log sent to", "10.24.10.20"],
  ["clock", "Clock", "site, UTC"],
  ["uplinks", "Ports to other gear", "by hand, automatic"],
  ["describes", "Says where they lead", "yes, no"],
] as const;
export type BaselineField = (typeof BASELINE_FIELDS)[number][0];

export const WAY_IN_WORDS: Readonly<Record<WayIn, string>> = {
  https: "web over TLS",
  http: "web without TLS",
  ssh: "SSH",
  telnet: "Telnet",
  snmpV3: "SNMPv3",
  snmpV2: "SNMPv1 or v2c",
  console: "console",
};

/** What some gear does not do, as it is said and typed. */
export const LACK_WORDS: Readonly<Record<Lack, string>> = {
  https: "web over TLS",
  ssh: "SSH",
  snmpV3: "SNMPv3",
  idle: "signing out",
  passwords: "rules for passwords",
  names: "name servers",
  time: "time servers",
  log: "a log sent away",
  descriptions: "descriptions of ports",
};

const CLOCK = { open: "", site: "site", utc: "UTC" } as const;
const UPLINKS = { open: "", byHand: "by hand", automatic: "automatic" } as const;
const DESCRIBES = { open: "", yes: "yes", no: "no" } as const;

const days = (value: number | null): string => {
  if (value === null) return "";
  return value === 0 ? "never" : `${value} days`;
};

/** A field as it can be written in again; empty where it is not decided. */
export function baselineText(baseline: Baseline, field: BaselineField): string {
  const texts: Readonly<Record<BaselineField, string>> = {
    waysIn: WAYS_IN.filter((way) => baseline.waysIn.includes(way))
      .map((way) => WAY_IN_WORDS[way])
      .join(", "),
    idleMinutes: baseline.idleMinutes === null ? "" : `${baseline.idleMinutes} min`,
    passwordLength: baseline.passwordLength === null ? "" : String(baseline.passwordLength),
    passwordDays: days(baseline.passwordDays),
    nameServers: addressesText(baseline.nameServers),
    timeServers: addressesText(baseline.timeServers),
    logTo: addressesText(baseline.logTo),
    clock: CLOCK[baseline.clock],
    uplinks: UPLINKS[baseline.uplinks],
    describes: DESCRIBES[baseline.describes],
  };
  return texts[field];
}

/** The difference of a time zone from UTC on a day, as "UTC+01:00"; empty for a zone that nobody knows. */
function offsetOn(timeZone: string, day: string): string {
  try {
    const parts = new Intl.DateTimeFormat("en-GB", { timeZone, timeZoneName: "longOffset" }).formatToParts(
      new Date(`${day}T12:00:00Z`),
    );
    const name = parts.find(({ type }) => type === "timeZoneName")?.value ?? "";
    return /^GMT([+-]00:00)?$/.test(name) ? "UTC" : name.replace("GMT", "UTC");
  } catch {
    return "";
  }
}

/** The year whose rules of summer time are told; they are those of the time zone database that runs here. */
const YEAR = 2026;

/** A device's clock in words: the time zone with its summer time. Empty where it is not decided. */
export function clockText({ plan }: Pick<PlanIndex, "plan">, { clock }: Baseline): string {
  const { timeZone } = plan.site;
  if (clock !== "site") return CLOCK[clock];
  const [winter, summer] = [offsetOn(timeZone, `${YEAR}-01-15`), offsetOn(timeZone, `${YEAR}-07-15`)];
  if (winter === "") return timeZone;
  return `${timeZone}: ${winter}${winter === summer ? ", no summer time" : ` in January, ${summer} in July`}`;
}

type Fields = Partial<Baseline>;

const WAY_IN_PATTERNS: readonly (readonly [WayIn, RegExp])[] = [
  ["https", /^(https|web over tls|web \(?tls\)?|tls)$/i],
  ["http", /^(http|web without tls|web)$/i],
  ["ssh", /^ssh(v?2)?$/i],
  ["telnet", /^telnet$/i],
  ["snmpV3", /^snmp ?v?3$/i],
  ["snmpV2", /^snmp( ?v?[12]c?( or v?2c?)?)?$/i],
  ["console", /^(console|serial)( only)?$/i],
];

function readWaysIn(text: string): Fields | string {
  const parts = text.split(/\s*[,;+]\s*/).filter((part) => part !== "");
  const read = parts.map((part) => ({
    part,
    way: WAY_IN_PATTERNS.find(([, like]) => like.test(part))?.[0] ?? null,
  }));
  const bad = read.find(({ way }) => way === null);
  if (bad !== undefined)
    return `"${bad.part}" is no way in; write some of ${Object.values(WAY_IN_WORDS).join(", ")}.`;
  const found = new Set(read.map(({ way }) => way));
  return { waysIn: WAYS_IN.filter((way) => found.has(way)) };
}

function readMinutes(text: string): Fields | string {
  if (text === "") return { idleMinutes: null };
  const minutes = countChecked(text.replace(/\s*(min|minutes?)\.?$/i, ""), 1440);
  return minutes === null || minutes < 1
    ? `"${text}" is no time; write whole minutes from 1 to 1440, such as 10 min.`
    : { idleMinutes: minutes };
}

function readLength(text: string): Fields | string {
  if (text === "") return { passwordLength: null };
  const length = countChecked(text, 128);
  return length === null || length < 1
    ? `"${text}" is no number of characters from 1 to 128. The password itself is never written down here.`
    : { passwordLength: length };
}

function readDays(text: string): Fields | string {
  if (text === "") return { passwordDays: null };
  if (/^never$/i.test(text)) return { passwordDays: 0 };
  const count = countChecked(text.replace(/\s*(d|days?)\.?$/i, ""), 3650);
  return count === null
    ? `"${text}" is no number of days up to 3650; write 365 days, or never.`
    : { passwordDays: count };
}

function readServers(
  field: "nameServers" | "timeServers" | "logTo",
  most: number,
  text: string,
): Fields | string {
  const read = readAddresses(text, most);
  return read.refusal ?? { [field]: read.value ?? [] };
}

function readClock(text: string): Fields | string {
  if (text === "") return { clock: "open" };
  if (/^utc$/i.test(text)) return { clock: "utc" };
  return /^(site|local)('?s)?( time)?$/i.test(text)
    ? { clock: "site" }
    : `"${text}" is no clock; write "site" for the site's own time zone, or UTC.`;
}

function readUplinks(text: string): Fields | string {
  if (text === "") return { uplinks: "open" };
  if (/^(by ?hand|hand|manual)$/i.test(text)) return { uplinks: "byHand" };
  return /^auto(matic)?$/i.test(text)
    ? { uplinks: "automatic" }
    : `"${text}" is no way to set ports to other gear; write "by hand" or "automatic".`;
}

function readDescribes(text: string): Fields | string {
  if (text === "") return { describes: "open" };
  const yes = readYes(text);
  return typeof yes === "string" ? yes : { describes: yes.is ? "yes" : "no" };
}

/** What is typed into a field as settings; a sentence where it can't be read. */
export function readBaseline(field: BaselineField, typed: string): Fields | string {
  const text = typed.trim() === "–" ? "" : typed.trim();
  const readers: Readonly<Record<BaselineField, () => Fields | string>> = {
    waysIn: () => readWaysIn(text),
    idleMinutes: () => readMinutes(text),
    passwordLength: () => readLength(text),
    passwordDays: () => readDays(text),
    nameServers: () => readServers("nameServers", 4, text),
    timeServers: () => readServers("timeServers", 8, text),
    logTo: () => readServers("logTo", 4, text),
    clock: () => readClock(text),
    uplinks: () => readUplinks(text),
    describes: () => readDescribes(text),
  };
  return readers[field]();
}

/** What a device lacks, with commas between. */
export const lacksText = ({ abilities }: Pick<Device, "abilities">): string =>
  LACKS.filter((lack) => abilities.lacks.includes(lack))
    .map((lack) => LACK_WORDS[lack])
    .join(", ");

/** What is typed of what a device does not do; a sentence where it can't be read. */
export function readLacks(text: string): Lack[] | string {
  const parts = text.split(/\s*[,;]\s*/).filter((part) => part !== "" && part !== "–");
  const read = parts.map((part) => ({
    part,
    lack:
      LACKS.find(
        (lack) =>
          lack.toLowerCase() === part.toLowerCase() || LACK_WORDS[lack].toLowerCase() === part.toLowerCase(),
      ) ?? null,
  }));
  const bad = read.find(({ lack }) => lack === null);
  if (bad !== undefined)
    return (
      `"${bad.part}" is nothing that a baseline asks for; ` +
      `write some of ${Object.values(LACK_WORDS).join(", ")}.`
    );
  return LACKS.filter((lacking) => read.some(({ lack }) => lack === lacking));
}
