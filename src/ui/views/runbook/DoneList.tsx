"use client";

import { clsx } from "clsx";
import { useMemo, useState } from "react";
import { nameOf, type PlanIndex } from "@/core/plan";
import { CAME_WORDS, photosLeftBehind, type Recorded, type TickCame, type Visit } from "@/core/records";
import { whenText } from "../../kit/when-text";
import { Photos } from "../../record-store/Photos";

const SIGNS: Readonly<Record<TickCame, readonly [sign: string, colour: string]>> = {
  done: ["✓", "text-sound"],
  differs: ["≠", "text-warn"],
  cannot: ["✕", "text-stop"],
};
/** As many are shown before the rest is asked for. */
const FIRST_SHOWN = 12;

/** Photos of steps that were taken back: they can still be looked at, and taken out. */
export function LeftBehind({
  record,
  onTakeOut,
}: {
  record: readonly Recorded[];
  onTakeOut: (photo: string) => void;
}) {
  const left = useMemo(() => photosLeftBehind(record), [record]);
  if (left.length === 0) return null;
  return (
    <section className="border-t border-hair px-4 py-3 text-13">
      <h3 className="font-semibold">Photos of steps that were taken back</h3>
      {left.map(({ title, photos }) => (
        <div key={photos[0]}>
          {title}
          <Photos ids={photos} of={title} onTakeOut={onTakeOut} entry={null} />
        </div>
      ))}
    </section>
  );
}

/** What was ticked in a visit, the last first; each can be taken back. */
export function DoneList({
  index,
  visit,
  onTakeBack,
  onTakeOut,
}: {
  index: PlanIndex;
  visit: Visit;
  onTakeBack: (tick: string) => void;
  onTakeOut: (photo: string) => void;
}) {
  const [isWhole, setWhole] = useState(false);
  const all = [...visit.ticks].reverse();
  if (all.length === 0) return null;
  return (
    <section className="border-t border-hair text-13">
      <h3 className="px-4 pt-3 pb-1 font-semibold">Ticked</h3>
      <ol aria-label="Ticked">
        {(isWhole ? all : all.slice(0, FIRST_SHOWN)).map(({ by, tick }) => {
          const [sign, colour] = SIGNS[tick.came];
          const { device, title } = tick.step;
          const on = device === null ? "" : ` on ${nameOf(index, "device", device)}`;
          return (
            <li
              key={tick.id}
              className={clsx(
                "grid grid-cols-[20px_minmax(0,1fr)_auto] items-center gap-2 border-t border-hair",
                "px-4 py-1",
              )}
            >
              <b className={colour} title={CAME_WORDS[tick.came]}>
                {sign}
              </b>
              <span>
                {title}
                {on}
                {tick.came === "done" ? "" : `: ${CAME_WORDS[tick.came]}`}
                <span className="block text-12 text-ink2">
                  {by}, {whenText(tick.at, index.plan.site.timeZone)}
                  {tick.read === "" ? "" : `; read: ${tick.read}`}
                  {tick.note === "" ? "" : `; ${tick.note}`}
                </span>
                <Photos ids={tick.photos} of={title} onTakeOut={onTakeOut} entry={tick.id} />
              </span>
              <button
                type="button"
                className="button tall"
                aria-label={`Take back: ${title}${on}`}
                onClick={() => onTakeBack(tick.id)}
              >
                Take back
              </button>
            </li>
          );
        })}
      </ol>
      {all.length <= FIRST_SHOWN || isWhole ? null : (
        <p className="p-4">
          <button type="button" className="button tall" onClick={() => setWhole(true)}>
            Show all {all.length}
          </button>
        </p>
      )}
    </section>
  );
}
