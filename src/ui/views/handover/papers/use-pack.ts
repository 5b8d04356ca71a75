"use client";

import { useRef, useState } from "react";
import { counted } from "@/core/repairs";
import { downloadBlob, fileName } from "../../../kit/download";
import { useHeld, usePlan } from "../../../plan-store/use-plan";
import { useWholeRecord } from "../../../record-store/use-record";
import { makePack, type Wanted } from "./make-pack";

const NOT_MADE = "The papers could not be made in this browser; reload the page and try again.";
const TYPES = { pdf: "application/pdf", zip: "application/zip" } as const;

/** How it stands with the pack that is being made, or was. */
export type PackWork =
  | { readonly is: "idle" }
  /** `of` says what is counted. */
  | { readonly is: "working"; readonly done: number; readonly all: number; readonly of: string }
  | { readonly is: "made"; readonly says: string }
  | { readonly is: "refused"; readonly sentence: string };

const named = ({ sheet, reader, as }: Wanted): string =>
  `${sheet === null ? "as-it-stands" : `sheet-${sheet.letter}`}-${reader}.${as}`;

/** Makes packs one at a time and hands each to the browser to keep. */
export function usePack() {
  const site = usePlan((state) => state.site);
  const held = useHeld();
  const whole = useWholeRecord();
  const [work, setWork] = useState<PackWork>({ is: "idle" });
  const running = useRef<AbortController | null>(null);
  const stop = () => {
    running.current?.abort();
    running.current = null;
    setWork({ is: "idle" });
  };
  const make = async (wanted: Wanted) => {
    running.current?.abort();
    const own = new AbortController();
    running.current = own;
    const isCurrent = () => running.current === own;
    const of = wanted.as === "zip" ? "files" : "percent";
    setWork({ is: "working", done: 0, all: 0, of });
    const tell = (done: number, all: number) => {
      if (isCurrent()) setWork({ is: "working", done, all, of });
    };
    const made = await makePack({ site, held, whole }, wanted, { signal: own.signal, tell }).catch(
      () => NOT_MADE,
    );
    if (!isCurrent()) return;
    running.current = null;
    if (typeof made === "string") return setWork({ is: "refused", sentence: made });
    const name = fileName(held.index.plan.site.name, named(wanted));
    downloadBlob(name, new Blob([made.bytes as BlobPart], { type: TYPES[wanted.as] }));
    const left =
      made.missing === 0
        ? ""
        : ` ${counted(made.missing, "photo", "photos")} of the record could not be had.`;
    const size = Math.ceil(made.bytes.length / 1000);
    setWork({ is: "made", says: `${name} is written: ${size} kB.${left}` });
  };
  return { work, make, stop };
}
