import { proxy, wrap } from "comlink";
import { sheetBefore, type PackOf } from "@/core/pack";
import { PlanIndex, TAPE_COLOURS, type Plan } from "@/core/plan";
import { issuedSheets, type IssuedSheet } from "@/core/records";
import type { Inks } from "@/paper/inks";
import type { Size } from "@/paper/page";
import type { PackAs, PaperWorker } from "@/workers/paper.worker";
import type { Held } from "../../../plan-store/held";
import type { WholeRecord } from "../../../record-store/use-record";
import { drawingOf } from "../../hardware/save-drawing";
import { issuedState } from "../use-compared";

/** The colours of tapes as the page has them. */
export function tapeInks(): Inks {
  const style = getComputedStyle(document.documentElement);
  const colour = (name: string) => style.getPropertyValue(`--tape-${name}`).trim();
  return Object.fromEntries(
    TAPE_COLOURS.map((name) => [name, { base: colour(name), on: colour(`${name}-on`) }]),
  );
}

/** What somebody asks for. */
export interface Wanted {
  readonly sheet: IssuedSheet | null;
  readonly reader: PackAs["reader"];
  readonly size: Size;
  readonly leftOut: readonly string[];
  readonly as: "pdf" | "zip";
}

/** A pack that was made: its bytes, and how many of its photos could not be had. */
export interface MadePack {
  readonly bytes: Uint8Array;
  readonly missing: number;
}

interface From {
  readonly site: string;
  readonly held: Held;
  readonly whole: () => Promise<WholeRecord>;
}

/** The sheet before, as far as its state can be had: that it can't keeps no pack from being made. */
async function stateBefore({ site, held }: From, before: IssuedSheet | undefined): Promise<PackOf["before"]> {
  if (before === undefined) return null;
  const state = await issuedState(site, held, before);
  return typeof state === "string"
    ? null
    : { name: `${before.letter} ${before.issue.sheet.name}`, plan: state };
}

/**
 * Makes the papers of a sheet, or of the plan as it is, in a worker of its own; a sentence where they can't be
 * made. `signal` calls it off, `tell` hears how far it is.
 */
export async function makePack(
  from: From,
  { sheet, reader, size, leftOut, as }: Wanted,
  { signal, tell }: { readonly signal: AbortSignal; readonly tell: (done: number, all: number) => void },
): Promise<MadePack | string> {
  const { site, held } = from;
  const { record, photos, missing } = await from.whole();
  const plan: Plan | string = sheet === null ? held.index.plan : await issuedState(site, held, sheet);
  if (typeof plan === "string") return plan;
  const before = await stateBefore(from, sheetBefore(issuedSheets(record), sheet));
  const drawing =
    leftOut.includes("drawing") || reader === "report" ? null : await drawingOf(PlanIndex.of(plan));
  if (signal.aborted) return "";
  const of: PackOf = {
    plan,
    revision: sheet?.issue.sheet.revision ?? held.revision,
    today: held.index.today,
    record,
    sheet: sheet?.issue.id ?? null,
    before,
    made: new Date().toISOString(),
  };
  const how: PackAs = { reader, size, leftOut, as, inks: tapeInks(), drawing, photos };
  const worker = new Worker(new URL("../../../../workers/paper.worker.ts", import.meta.url), {
    type: "module",
  });
  signal.addEventListener("abort", () => worker.terminate());
  try {
    return { bytes: await wrap<PaperWorker>(worker).pack(of, how, proxy(tell)), missing };
  } finally {
    worker.terminate();
  }
}
