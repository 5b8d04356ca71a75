"use client";

import { wrap } from "comlink";
import { useState } from "react";
import type { Label } from "@/core/labels";
import { counted } from "@/core/repairs";
import type { LabelForm } from "@/paper/label-sheets";
import type { PaperWorker } from "@/workers/paper.worker";
import { downloadBlob, fileName } from "../../../kit/download";
import { useIndex } from "../../../plan-store/use-plan";
import { tapeInks } from "./make-pack";

const NOT_MADE = "The labels could not be made in this browser; reload the page and try again.";
const TYPES = { pdf: "application/pdf", svg: "image/svg+xml", zip: "application/zip" } as const;

/** How it stands with the labels that were asked for. */
export type LabelWork =
  | { readonly is: "idle" }
  | { readonly is: "working" }
  /** What was made, so that it can be noted as printed. */
  | { readonly is: "made"; readonly says: string; readonly labels: readonly Label[] }
  | { readonly is: "refused"; readonly sentence: string };

interface Wanted {
  readonly labels: readonly Label[];
  readonly form: LabelForm;
  readonly skip: number;
  readonly as: "pdf" | "svg";
}

/** Sets labels in a worker of its own and hands the file to the browser to keep. */
export function useLabels() {
  const { site } = useIndex().plan;
  const [work, setWork] = useState<LabelWork>({ is: "idle" });
  const make = async ({ labels, form, skip, as }: Wanted) => {
    setWork({ is: "working" });
    const worker = new Worker(new URL("../../../../workers/paper.worker.ts", import.meta.url), {
      type: "module",
    });
    try {
      const how = { form, skip, inks: tapeInks(), linkBase: site.paper.linkBase, site: site.id, as };
      const made = await wrap<PaperWorker>(worker).labels(labels, how, new Date().toISOString());
      const name = fileName(site.name, `labels.${made.ending}`);
      downloadBlob(name, new Blob([made.bytes as BlobPart], { type: TYPES[made.ending] }));
      const small =
        made.tooSmall === 0
          ? ""
          : ` On ${counted(made.tooSmall, "label", "labels")} the type is below 4 points; take a larger one.`;
      const count = counted(labels.length, "label", "labels");
      const on = counted(made.sheets, "sheet", "sheets");
      setWork({ is: "made", says: `${name} is written: ${count} on ${on}.${small}`, labels });
    } catch {
      setWork({ is: "refused", sentence: NOT_MADE });
    } finally {
      worker.terminate();
    }
  };
  return { work, make, forget: () => setWork({ is: "idle" }) };
}
