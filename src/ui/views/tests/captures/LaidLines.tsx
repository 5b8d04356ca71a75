"use client";

import { clsx } from "clsx";
import { useState } from "react";
import type { Laid, LaidLine } from "@/core/listening";
import type { PlanIndex } from "@/core/plan";
import { laidTable } from "@/core/records";
import { csv, CSV_TYPE, download, fileName } from "../../../kit/download";
import { Segmented } from "../../../kit/Segmented";

type Way = "otherwise" | "all";

const SIGNS: Readonly<Record<LaidLine["verdict"], readonly [sign: string, words: string, colour: string]>> = {
  right: ["✓", "As planned", "text-sound"],
  otherwise: ["✕", "Otherwise", "text-stop"],
  note: ["·", "Note", "text-ink2"],
};
/** As many lines stand on the screen; all are in the CSV. */
const MOST_LINES = 300;

/** What was heard beside what is planned, line by line. */
export function LaidLines({ index, laid }: { index: PlanIndex; laid: Laid }) {
  const wrong = laid.lines.filter(({ verdict }) => verdict === "otherwise");
  const [way, setWay] = useState<Way>("all");
  const lines = way === "otherwise" ? wrong : laid.lines;
  const left = lines.length - MOST_LINES;
  return (
    <section aria-label="What was heard">
      <div className="flex flex-wrap items-center gap-3 border-b border-hair px-4 py-2 print:hidden">
        <Segmented
          label="Lines shown"
          value={way}
          choices={[
            ["all", `All ${laid.lines.length}`],
            ["otherwise", `Otherwise ${wrong.length}`],
          ]}
          onChoose={setWay}
        />
        <button
          type="button"
          className="button ml-auto"
          onClick={() =>
            download(fileName(index.plan.site.name, "heard.csv"), CSV_TYPE, csv(laidTable(laid)))
          }
        >
          Save as CSV
        </button>
      </div>
      <LaidList lines={lines} />
      {left > 0 ? (
        <p className="px-4 py-2 text-13 text-ink2">And {left} more, which are in the CSV.</p>
      ) : null}
    </section>
  );
}

/** Lines one below the other, as many as fit a screen. */
export const LaidList = ({ lines }: { lines: readonly LaidLine[] }) => (
  <ul>
    {lines.slice(0, MOST_LINES).map((line, at) => (
      <Line key={`${at} ${line.about}`} line={line} />
    ))}
  </ul>
);

function Line({ line: { about, planned, heard, verdict, says } }: { line: LaidLine }) {
  const [sign, words, colour] = SIGNS[verdict];
  return (
    <li
      className={clsx(
        "grid gap-x-4 border-b border-hair px-4 py-2 text-13",
        "min-[700px]:grid-cols-[minmax(0,2fr)_minmax(0,3fr)_minmax(0,3fr)]",
      )}
    >
      <span className="flex gap-2">
        <b className={`w-4 flex-none text-center ${colour}`} aria-label={words} role="img">
          {sign}
        </b>
        <span className="font-semibold [overflow-wrap:anywhere]">{about}</span>
      </span>
      <span className="[overflow-wrap:anywhere] max-[700px]:pl-6">
        <span className="text-ink2">Heard </span>
        <span className={`mono text-12 ${verdict === "otherwise" ? "font-semibold text-stop" : ""}`}>
          {heard}
        </span>
      </span>
      <span className="[overflow-wrap:anywhere] max-[700px]:pl-6">
        {planned === "" ? null : (
          <>
            <span className="text-ink2">Planned </span>
            <span className="mono text-12">{planned}</span>
          </>
        )}
      </span>
      {says === "" ? null : <span className="col-span-full pl-6">{says}</span>}
    </li>
  );
}
