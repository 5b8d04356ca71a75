import { expose, transfer } from "comlink";
import { labelAddress, type Label } from "@/core/labels";
import { packFor, packStudy, reportFor, type PackOf, type Reader } from "@/core/pack";
import { documentOf } from "@/paper/document";
import type { Picture } from "@/paper/drawing";
import type { Inks } from "@/paper/inks";
import type { LabelForm } from "@/paper/label-sheets";
import { labelDocument, labelSheets } from "@/paper/labels";
import { Measure } from "@/paper/measure";
import type { Size } from "@/paper/page";
import { pdfOf } from "@/paper/pdf";
import { zipOf } from "@/paper/zip";
import { base64, paperFonts } from "./paper-fonts";

/** How a pack is wanted. */
export interface PackAs {
  /** For whom; "report" is the job report. */
  readonly reader: Reader | "report";
  readonly size: Size;
  readonly leftOut: readonly string[];
  /** One file with bookmarks, or a file for each part in a ZIP. */
  readonly as: "pdf" | "zip";
  readonly inks: Inks;
  readonly drawing: Picture | null;
  readonly photos: readonly { readonly id: string; readonly jpeg: Uint8Array }[];
}

/** Makes a pack off the page's thread: its bytes. `tell` hears how many of how many files are set. */
async function pack(
  of: PackOf,
  { reader, size, leftOut, as, inks, drawing, photos }: PackAs,
  tell: (done: number, all: number) => void,
): Promise<Uint8Array> {
  const fonts = await paperFonts();
  const study = packStudy(of);
  const made = reader === "report" ? reportFor(study) : packFor(study, reader, leftOut);
  const given = {
    size,
    inks,
    drawing,
    photos: new Map(photos.map(({ id, jpeg }) => [id, `data:image/jpeg;base64,${base64(jpeg)}`])),
  };
  if (as === "pdf") {
    const bytes = await pdfOf(documentOf(made, given), fonts, tell);
    return transfer(bytes, [bytes.buffer]);
  }
  const files: [string, Uint8Array][] = [];
  for (const [at, part] of made.parts.entries()) {
    tell(at, made.parts.length);
    const name = `${String(at + 1).padStart(2, "0")}-${part.key}.pdf`;
    files.push([name, await pdfOf(documentOf({ ...made, parts: [part] }, given), fonts)]);
  }
  if (drawing !== null && made.parts.some(({ key }) => key === "drawing"))
    files.push(["drawing.svg", new TextEncoder().encode(drawing.svg)]);
  const bytes = zipOf(files, of.made);
  return transfer(bytes, [bytes.buffer]);
}

/** How labels are wanted. */
export interface LabelsAs {
  readonly form: LabelForm;
  readonly skip: number;
  readonly inks: Inks;
  /** Where Dianome is, for the codes; empty for labels without. */
  readonly linkBase: string;
  readonly site: string;
  readonly as: "pdf" | "svg";
}
/** Labels as a file: a PDF, one SVG, or several of them in a ZIP. */
export interface MadeLabels {
  readonly bytes: Uint8Array;
  readonly ending: "pdf" | "svg" | "zip";
  readonly sheets: number;
  /** How many have type that is too small to be read at arm's length. */
  readonly tooSmall: number;
}

/** Sets labels off the page's thread. */
async function labels(
  all: readonly Label[],
  { form, skip, inks, linkBase, site, as }: LabelsAs,
  made: string,
): Promise<MadeLabels> {
  const fonts = await paperFonts();
  const { sheets, tooSmall } = labelSheets(all, {
    form,
    skip,
    inks,
    address: ({ opens }) => (linkBase === "" || opens === null ? null : labelAddress(linkBase, site, opens)),
    measure: new Measure(fonts),
    outlined: as === "svg",
  });
  const told = { sheets: sheets.length, tooSmall };
  const sent = (bytes: Uint8Array, ending: MadeLabels["ending"]): MadeLabels =>
    transfer({ bytes, ending, ...told }, [bytes.buffer]);
  if (as === "pdf") return sent(await pdfOf(labelDocument(sheets), fonts), "pdf");
  const files = sheets.map(({ svg }) => new TextEncoder().encode(svg));
  const [only] = files;
  if (only !== undefined && files.length === 1) return sent(only, "svg");
  return sent(
    zipOf(
      files.map((bytes, at) => [`labels-${at + 1}.svg`, bytes] as const),
      made,
    ),
    "zip",
  );
}

const api = { pack, labels };
export type PaperWorker = typeof api;

expose(api);
