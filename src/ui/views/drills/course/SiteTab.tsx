"use client";

import type { DrillProgress, Level } from "@/core/drills";
import { startDrill, useDrill } from "../../../drill-store/store";
import { useHeld } from "../../../plan-store/use-plan";
import { mineOf, type Progress } from "../../../drill-store/use-progress";
import { LEVELS } from "./CourseTab";

const ALL: readonly Level[] = [1, 2, 3];
const MOST_SEED = 2 ** 31 - 2;

function mineText(mine: DrillProgress | null): string {
  if (mine === null) return "not tried yet";
  const fastest = mine.best === null ? "" : `, the fastest in ${mine.best} min`;
  return `${mine.solved} of ${mine.tries} solved${fastest}`;
}

/** A fault in a copy of the site at hand, another one each time. */
export function SiteTab({ progress }: { progress: Progress }) {
  const { index, revision } = useHeld();
  const { trouble } = useDrill();
  const { id, name } = index.plan.site;
  const begin = (number: Level) => {
    const seed = crypto.getRandomValues(new Uint32Array(1))[0] ?? 0;
    startDrill(id, index.plan, revision, { what: "site", number, seed: seed % MOST_SEED });
  };
  return (
    <section aria-label="A fault on this site" className="p-4">
      <p className="max-w-[72ch] text-15">
        A fault is planted in a copy of {name}, another one each time. The plan itself, its history and its
        checks know nothing of it.
      </p>
      {trouble === null ? null : (
        <p role="alert" className="mt-3 text-15 text-stop">
          {trouble}
        </p>
      )}
      <ul className="mt-3 max-w-[72ch] border-t border-hair">
        {ALL.map((level) => {
          const mine = mineOf(progress, "site", level);
          return (
            <li key={level} className="flex flex-wrap items-center gap-3 border-b border-hair py-2 text-15">
              <span className="mono w-16 text-13 text-ink2">Level {level}</span>
              <span className="min-w-0 flex-1">{LEVELS[level]}</span>
              <span className="text-13 text-ink2">{mineText(mine)}</span>
              <button
                type="button"
                className="button"
                aria-label={`Plant a fault of level ${level}`}
                onClick={() => begin(level)}
              >
                Plant one
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
