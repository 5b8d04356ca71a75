"use client";

import { useEffect, useMemo, useState } from "react";
import { v7 } from "uuid";
import { makeOrderDrill, scoreOf, type OrderDrill, type OrderScore } from "@/core/drills";
import { counted } from "@/core/repairs";
import type { PlanIndex } from "@/core/plan";
import type { Move } from "@/core/runbook";
import { keptOrder, type KeptOrder } from "../../../drill-store/forms";
import { readKept, writeKept } from "../../../drill-store/kept";
import { drillRoom } from "../../../drill-store/remote";
import { addTry } from "../../../drill-store/tries";
import { Segmented } from "../../../kit/Segmented";
import { useHeld } from "../../../plan-store/use-plan";
import { RehearsalBoard } from "../../runbook/RehearsalBoard";

type LevelText = "1" | "2" | "3";
const LEVELS: readonly (readonly [LevelText, string])[] = [
  ["1", "One trunk"],
  ["2", "Two trunks"],
  ["3", "Three trunks"],
];

const newTry = (level: KeptOrder["level"], revision: number): KeptOrder => ({
  version: 1,
  level,
  seed: (crypto.getRandomValues(new Uint32Array(1))[0] ?? 0) % 2_000_000_000,
  revision,
  id: v7(),
  moves: [],
});

const keyOf = (index: PlanIndex): string => `dianome:order:${index.plan.site.id}`;

/** What is kept of an order on this site, as long as the site is the same. */
function keptOn(index: PlanIndex, revision: number): KeptOrder {
  const kept = readKept(keyOf(index), keptOrder);
  return kept?.revision === revision ? kept : newTry(1, revision);
}

/** A job on copies of the site's own devices, in an order of one's own: what was done stays done. */
export function OrderTab({ index, onOver }: { index: PlanIndex; onOver: () => void }) {
  const { revision } = useHeld();
  // What is played stays the site as it was begun on, whoever changes the plan meanwhile.
  const [on, setOn] = useState(() => ({ index, kept: keptOn(index, revision) }));
  const { kept } = on;
  const drill = useMemo(
    () => makeOrderDrill(on.index, kept.level, kept.seed),
    [on.index, kept.level, kept.seed],
  );
  const now = useMemo(() => drill?.rehearsal.after(kept.moves) ?? null, [drill, kept.moves]);
  const write = (next: KeptOrder, of: PlanIndex = on.index) => {
    setOn({ index: of, kept: next });
    writeKept(keyOf(index), next);
  };
  const begin = (level: KeptOrder["level"]) => write(newTry(level, revision), index);
  const move = (next: Move) => {
    const moves = [...kept.moves, next];
    write({ ...kept, moves });
    const after = drill?.rehearsal.after(moves);
    if (after?.isDone !== true) return;
    const { lockedOut, unreached } = scoreOf(after.told);
    const tried = { id: kept.id, what: "order" as const, number: kept.level };
    void addTry({ ...tried, isSolved: true, score: lockedOut + unreached }).then(onOver);
  };
  return (
    <section aria-label="Order of work">
      <div className="flex flex-wrap items-center gap-3 px-4 py-3">
        <Segmented
          label="How much"
          value={`${kept.level}` as LevelText}
          choices={LEVELS}
          onChoose={(level) => begin(Number(level) as KeptOrder["level"])}
        />
        <button type="button" className="button" onClick={() => begin(kept.level)}>
          Another job
        </button>
      </div>
      {drill === null || now === null ? (
        <p className="px-4 text-15">
          This site has no cable between two switches that answer in the same VLAN and carry more than that:
          there is no order to get wrong.
        </p>
      ) : (
        <>
          <Job drill={drill} />
          <RehearsalBoard ports={drill.rehearsal.ports()} now={now} onMove={move} onBack={null}>
            <p className="max-w-[64ch] p-4 text-15">
              Say where the laptop is plugged in and what you do next. What is done stays done.
            </p>
          </RehearsalBoard>
          {now.isDone ? <Over index={on.index} kept={kept} drill={drill} score={scoreOf(now.told)} /> : null}
        </>
      )}
    </section>
  );
}

function Job({ drill }: { drill: OrderDrill }) {
  return (
    <div className="mx-4 mb-3 border border-ink bg-panel px-[18px] py-3">
      <p className="text-18 leading-snug">{drill.told}</p>
      <p className="mt-2 text-13 text-ink2">
        To be set on both ends: {drill.trunks.join("; ")}. {counted(drill.count, "thing", "things")} to do; a
        device that does not answer any more, and one that is tried in vain, are mistakes.
      </p>
    </div>
  );
}

const scoreText = ({ lockedOut, unreached, walks }: OrderScore): string =>
  `${counted(lockedOut, "lock-out", "lock-outs")}, ${unreached} tried in vain, ` +
  `${counted(walks, "walk", "walks")} with the laptop`;

type Best = Awaited<ReturnType<ReturnType<typeof drillRoom>["bestOrder"]>>;

interface OverProps {
  readonly index: PlanIndex;
  readonly kept: KeptOrder;
  readonly drill: OrderDrill;
  readonly score: OrderScore;
}

/** How it went, beside the best order there is. */
function Over({ index, kept, drill, score }: OverProps) {
  const [best, setBest] = useState<Best | undefined>();
  const { level, seed } = kept;
  useEffect(() => {
    let isCurrent = true;
    void drillRoom()
      .bestOrder(index.plan, level, seed)
      // Without a worker the order stands as it was done, and no other beside it.
      .catch(() => null)
      .then((found) => {
        if (isCurrent) setBest(found);
      });
    return () => {
      isCurrent = false;
    };
  }, [index, level, seed]);
  const told = best === undefined || best === null ? [] : drill.rehearsal.after(best.moves).told;
  const ports = new Map(drill.rehearsal.ports().map(({ id, name }) => [id, name]));
  return (
    <div className="p-4">
      <p role="status" className="text-15 text-sound">
        ✓ Everything is on the devices as planned: {scoreText(score)}.
      </p>
      {best === undefined ? (
        <p role="status" className="mt-2 text-15 text-ink2">
          Looking for the best order …
        </p>
      ) : null}
      {best === undefined || best === null ? null : (
        <div className="mt-2">
          <h3 className="text-13 font-semibold">The best there is: {scoreText(best.score)}</h3>
          <ol className="ml-5 list-decimal text-15">
            {told.map(({ operation, title, port }) => (
              <li key={operation}>
                {title} <span className="text-13 text-ink2">with the laptop at {ports.get(port) ?? ""}</span>
              </li>
            ))}
          </ol>
        </div>
      )}
    </div>
  );
}
