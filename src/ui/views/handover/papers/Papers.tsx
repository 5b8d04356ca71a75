"use client";

import { useState } from "react";
import { partsFor, type Reader } from "@/core/pack";
import type { IssuedSheet } from "@/core/records";
import { SIZES, type Size } from "@/paper/page";
import { Segmented } from "../../../kit/Segmented";
import { PaperFields } from "./PaperFields";
import { PackState } from "./PackState";
import { usePack } from "./use-pack";

const READERS_TO_CHOOSE: readonly (readonly [Reader, string])[] = [
  ["installer", "Next installer"],
  ["customer", "Customer"],
  ["electrician", "Electrician"],
];
const SIZES_TO_CHOOSE = SIZES.map((size) => [size, size] as const);
const FOR: Readonly<Record<Reader, string>> = {
  installer: "Everything that the next one who works here has to know. Notes of your own stay with you.",
  customer:
    "Plain words: what there is, what may reach what, whom to call when. No addresses, no rules, no insides " +
    "of security.",
  electrician: "Cables, sockets, cabinets, power and lengths.",
};
const NOW = "now";

/** The papers of a sheet for one of three readers, and what stands on them beside the plan. */
export function Papers({ sheets }: { sheets: readonly IssuedSheet[] }) {
  const standing = sheets.filter(({ isWithdrawn }) => !isWithdrawn);
  const [of, setOf] = useState<string | null>(null);
  const [reader, setReader] = useState<Reader>("installer");
  const [size, setSize] = useState<Size>("A4");
  const [leftOut, setLeftOut] = useState<ReadonlySet<string>>(new Set());
  const { work, make, stop } = usePack();
  const chosen = of ?? standing.at(-1)?.issue.id ?? NOW;
  const sheet = sheets.find(({ issue }) => issue.id === chosen) ?? null;
  const parts = partsFor(reader);
  const ask = (as: "pdf" | "zip") => void make({ sheet, reader, size, leftOut: [...leftOut], as });
  const isNone = parts.every(({ key }) => leftOut.has(key));
  return (
    <div className="grid min-[1100px]:grid-cols-2">
      <section aria-label="The pack" className="border-hair text-13 min-[1100px]:border-r">
        <div className="flex flex-wrap items-center gap-2 px-4 pt-3">
          <h2 className="text-15">The pack of</h2>
          <select
            aria-label="State"
            className="field min-w-0"
            value={chosen}
            onChange={(event) => setOf(event.target.value)}
          >
            {standing.toReversed().map(({ letter, issue }) => (
              <option key={issue.id} value={issue.id}>
                {letter} {issue.sheet.name}
              </option>
            ))}
            <option value={NOW}>the plan as it is now</option>
          </select>
        </div>
        <div className="flex flex-wrap items-center gap-3 px-4 pt-3">
          <Segmented label="For" value={reader} choices={READERS_TO_CHOOSE} onChoose={setReader} />
          <Segmented label="Paper" value={size} choices={SIZES_TO_CHOOSE} onChoose={setSize} />
        </div>
        <p className="px-4 pt-2 text-ink2">{FOR[reader]}</p>
        <fieldset className="px-4 pt-2">
          <legend className="sr-only">Parts</legend>
          <ul>
            {parts.map(({ key, title }) => (
              <li key={key}>
                <label className="flex min-h-7 items-center gap-2">
                  <input
                    type="checkbox"
                    checked={!leftOut.has(key)}
                    onChange={({ target }) =>
                      setLeftOut((now) => {
                        const next = new Set(now);
                        if (target.checked) next.delete(key);
                        else next.add(key);
                        return next;
                      })
                    }
                  />
                  {title}
                </label>
              </li>
            ))}
          </ul>
        </fieldset>
        <p className="flex flex-wrap items-center gap-2 px-4 py-3">
          <button
            type="button"
            className="button go"
            disabled={isNone || work.is === "working"}
            onClick={() => ask("pdf")}
          >
            Make PDF
          </button>
          <button
            type="button"
            className="button"
            disabled={isNone || work.is === "working"}
            onClick={() => ask("zip")}
          >
            Make ZIP, a file for each part
          </button>
          {isNone ? <span className="text-warn">Choose at least one part.</span> : null}
        </p>
        <PackState work={work} onStop={stop} />
      </section>
      <PaperFields />
    </div>
  );
}
