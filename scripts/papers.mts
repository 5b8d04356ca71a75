// Sets the papers or the drawing of a plan: a job as JSON on the input, the file on the output. The server runs
// it beside itself, so that nobody waits behind it.
import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { PaperJob } from "../src/application/paper-exports";
import { openPlan } from "../src/core/formats";
import { must } from "../src/core/kernel";
import { packFor, packStudy, reportFor, type Reader } from "../src/core/pack";
import { PlanIndex, TAPE_COLOURS, type Plan } from "../src/core/plan";
import { photosOfFile, recordsOfFile } from "../src/core/records";
import { documentOf } from "../src/paper/document";
import type { Picture } from "../src/paper/drawing";
import type { Inks } from "../src/paper/inks";
import { pdfOf } from "../src/paper/pdf";
import { drawCables } from "../src/ui/views/hardware/cable-ends";
import { shapeOf } from "../src/ui/views/hardware/drawing-shape";
import { placedBy } from "../src/ui/views/hardware/nodes-edges";
import { NO_MARKS, pictureOf } from "../src/ui/views/hardware/picture-of";
import { layout } from "../src/workers/layout";
import { paperFonts } from "./paper-fonts";

const STYLES = readFileSync(join("src", "app", "globals.css"), "utf8");
/** The colour of a tape on the light ground, which stands first in the styles. */
const tape = (name: string): string => new RegExp(`--tape-${name}: (#[0-9a-f]{6});`).exec(STYLES)?.[1] ?? "";
const INKS: Inks = Object.fromEntries(
  TAPE_COLOURS.map((name) => [name, { base: tape(name), on: tape(`${name}-on`) }]),
);

async function drawing(plan: Plan): Promise<Picture | null> {
  const index = PlanIndex.of(plan);
  if (plan.device.size === 0) return null;
  const { boxes, cables } = shapeOf(index);
  const laid = await layout(boxes, cables, () => undefined);
  const drawn = drawCables(index, laid);
  return pictureOf(index, { drawn, placed: placedBy(index, laid), marks: NO_MARKS }, tape);
}

async function papers(
  { revision, records, photos, today, made }: PaperJob,
  plan: Plan,
  kind: Reader | "report",
) {
  const read = await recordsOfFile({ records }, () => Promise.resolve());
  const record = must(read.ok ? read.value : null, "a record of ours");
  const found = photosOfFile({ photos }, record);
  const pictures = must(found.ok ? found.value : null, "photos of ours");
  const study = packStudy({ ...{ plan, revision, today, record, made }, sheet: null, before: null });
  const pack = kind === "report" ? reportFor(study) : packFor(study, kind, []);
  const given = {
    ...({ size: "A4", inks: INKS } as const),
    drawing: kind === "report" ? null : await drawing(plan),
    photos: new Map(
      pictures.map(({ id, jpeg }) => [id, `data:image/jpeg;base64,${Buffer.from(jpeg).toString("base64")}`]),
    ),
  };
  return pdfOf(documentOf(pack, given), paperFonts());
}

async function main(): Promise<void> {
  const pieces: Buffer[] = [];
  for await (const piece of process.stdin) pieces.push(piece as Buffer);
  const job = JSON.parse(Buffer.concat(pieces).toString("utf8")) as PaperJob;
  const opened = openPlan(job.plan);
  const plan = must(opened.ok ? opened.value : null, "a plan of ours");
  const { kind } = job;
  process.stdout.write(
    kind === "drawing" ? must(await drawing(plan), "gear").svg : await papers(job, plan, kind),
  );
}

void main();
