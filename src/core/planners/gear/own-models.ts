import { NO_ABILITIES, USUAL_ABILITIES, type Device, type OwnModel } from "../../plan";
import { modelsOf, type PortRun } from "../../catalogue";
import type { EditContext, Refusal } from "../planner";

const SPEEDS = [100, 1000, 2500, 5000, 10_000, 25_000, 40_000, 100_000];
/** "2.5G" or "100M" in Mbit/s; null for a speed that no port has, 1000 where none is written. */
function speedIn(text: string): number | null {
  const match = /(?<![\d.,])(\d{1,3}(?:[.,]\d)?)\s*([gm])(?![a-z]*\s*w)/i.exec(text);
  if (match === null) return 1000;
  const mbps = Number((match[1] ?? "").replace(",", ".")) * (match[2]?.toLowerCase() === "g" ? 1000 : 1);
  return SPEEDS.includes(mbps) ? mbps : null;
}
const POE: readonly (readonly [RegExp, number])[] = [
  [/\b(type\s*4|90\s*w)\b/i, 90_000],
  [/\b(type\s*3|60\s*w)\b/i, 60_000],
  [/\b(type\s*2|30\s*w)\b/i, 30_000],
  [/\b(type\s*1|15([.,]4)?\s*w)\b/i, 15_400],
  [/\bpoe\b/i, 30_000],
];

/** "24 copper 1G PoE": a run of ports as it is typed. Null when it can't be read. */
function readRun(text: string): PortRun | null {
  const match = /^\s*(\d{1,3})\s+(line\s+)?(copper|fibre|combo|direct attach)\b(.*)$/i.exec(text);
  if (match === null) return null;
  const [, count = "", line, medium = "", rest = ""] = match;
  const isLine = line !== undefined;
  const speed = speedIn(rest.replace(/\bnamed\s+\S+/i, ""));
  if (speed === null) return null;
  const kind =
    medium.toLowerCase() === "direct attach" ? "directAttach" : (medium.toLowerCase() as PortRun["medium"]);
  const named = /\bnamed\s+(\S{1,20})/i.exec(rest)?.[1];
  const own = kind === "fibre" ? "f" : "e";
  return {
    count: Number(count),
    prefix: isLine ? "Line " : "",
    soft: named ?? (isLine ? "w" : own),
    medium: kind,
    speedMbps: speed,
    poeMw: POE.find(([word]) => word.test(rest))?.[1] ?? 0,
  };
}

const SPEED_WORDS: Readonly<Record<number, string>> = {
  100: "100M",
  1000: "1G",
  2500: "2.5G",
  5000: "5G",
  10_000: "10G",
  25_000: "25G",
  40_000: "40G",
  100_000: "100G",
};
const POE_WORDS: Readonly<Record<number, string>> = {
  15_400: "type 1",
  30_000: "type 2",
  60_000: "type 3",
  90_000: "type 4",
};

/** Runs of ports as they can be typed in again. */
export const runsText = (runs: readonly PortRun[]): string =>
  runs
    .map((run) =>
      [
        String(run.count),
        run.prefix === "" ? "" : "line",
        run.medium === "directAttach" ? "direct attach" : run.medium,
        SPEED_WORDS[run.speedMbps] ?? `${run.speedMbps}M`,
        POE_WORDS[run.poeMw] ?? "",
        `named ${run.soft}`,
      ]
        .filter((word) => word !== "")
        .join(" "),
    )
    .join(", ");

export interface ModelText {
  readonly name: string;
  readonly kind: Device["kind"];
  readonly bridging: Device["bridging"];
  readonly ports: string;
  readonly budgetW: string;
  readonly oneLostW: string;
  readonly heightUnits: string;
}

const whole = (text: string, most: number): number | null =>
  /^\d{1,6}$/.test(text.trim()) && Number(text) <= most ? Number(text) : null;

/** The runs of ports that a text lists; a sentence about the first part that is none. */
function readRuns(text: string): PortRun[] | string {
  const runs: PortRun[] = [];
  for (const part of text.split(",").map((part) => part.trim())) {
    if (part === "") continue;
    const run = readRun(part);
    if (run === null || run.count < 1 || run.count > 512)
      return (
        `"${part}" is no run of ports; write how many, what they ` +
        "take and how fast, such as 24 copper 1G PoE or 4 fibre 10G."
      );
    runs.push(run);
  }
  return runs.length === 0 ? "Write the ports, such as 24 copper 1G PoE, 4 fibre 10G." : runs;
}

/** A whole number up to `most`, `empty` for no text; undefined for any other text. */
const wholeOr = (empty: number | null, text: string, most: number): number | null | undefined =>
  text.trim() === "" ? empty : (whole(text, most) ?? undefined);

/** A model of the site's own; with `id` the one that is changed. Devices made of it before stay as they are. */
// eslint-disable-next-line complexity -- one line for each field that can't be read
export function putModel({ edits, ids }: EditContext, id: string | null, typed: ModelText): Refusal {
  const name = typed.name.trim();
  if (name === "" || name.length > 80) return "Give the model a name of 1 to 80 characters.";
  if (
    modelsOf(edits.plan).some((model) => model.id !== id && model.model.toLowerCase() === name.toLowerCase())
  )
    return `There is a model called ${name} already; give this one another name.`;
  const runs = readRuns(typed.ports);
  if (typeof runs === "string") return runs;
  const budget = wholeOr(0, typed.budgetW, 10_000);
  const oneLost = wholeOr(null, typed.oneLostW, 10_000);
  const heightUnits = wholeOr(0, typed.heightUnits, 60);
  if (budget === undefined || budget === null) return `"${typed.budgetW}" is no budget; write whole watts.`;
  if (oneLost === undefined)
    return `"${typed.oneLostW}" is no budget; write whole watts, or leave it empty for one supply.`;
  if (heightUnits === undefined || heightUnits === null)
    return `"${typed.heightUnits}" is no height; write height units from 0 to 60.`;
  const known = id === null ? undefined : edits.get("deviceModel", id);
  const usual = typed.bridging === "vlan" ? USUAL_ABILITIES : NO_ABILITIES;
  const routes = typed.kind === "gateway" || typed.kind === "firewall";
  const model: OwnModel = {
    id: known?.id ?? ids(),
    name,
    kind: typed.kind,
    bridging: typed.bridging,
    runs,
    poeBudgetMw: budget * 1000,
    poeOneLostMw: oneLost === null ? null : oneLost * 1000,
    heightUnits,
    abilities: known?.bridging === typed.bridging ? known.abilities : { ...usual, routes },
  };
  edits.put("deviceModel", model);
  return null;
}

export function removeModel({ edits }: Pick<EditContext, "edits">, id: string): void {
  edits.remove("deviceModel", id);
}
