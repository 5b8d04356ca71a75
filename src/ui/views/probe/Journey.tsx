"use client";

import { keepProbe } from "@/core/commands";
import { useState } from "react";
import { toast } from "sonner";
import { compareOutcomes, questionWords, type Outcome } from "@/core/probe";
import { useUi } from "../../frame/use-ui";
import { showView } from "../../frame/views";
import { Segmented } from "../../kit/Segmented";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { LazyDiagram } from "../hardware/LazyDiagram";
import { LitPath } from "./LitPath";
import { ListenPanel } from "./ListenPanel";
import { StepStrip } from "./StepStrip";
import { useOutcome } from "./use-probe";
import { WhatItShows } from "./WhatItShows";

type Below = "way" | "drawing" | "wire";
const BELOW: readonly (readonly [Below, string])[] = [
  ["way", "The way and what it shows"],
  ["drawing", "On the drawing"],
  ["wire", "On the wire"],
];

/**
 * One journey: its steps, and below them the way it went, the same lit on the drawing, or the frames on a
 * wire.
 */
export function Journey({ outcome }: { outcome: Outcome }) {
  const index = useIndex();
  const set = useUi((state) => state.set);
  const compared = useUi((state) => state.compared);
  const other = useOutcome(compared);
  const edit = usePlan((state) => state.edit);
  const [below, setBelow] = useState<Below>("way");
  // A false server or a false sender is always meant to be kept out, whatever it comes to now.
  const passes = outcome.cause === null && outcome.attack === null;
  const keep = () => {
    const name = questionWords(index, outcome.question);
    const refusal = edit(
      keepProbe({ name, question: outcome.question, passes, segment: outcome.lease?.segment ?? null }),
    );
    if (refusal !== null) toast.error(refusal);
    else toast.success(passes ? "Kept: it has to get through." : "Kept: it has to be stopped.");
  };
  const parting = other === null ? null : compareOutcomes(outcome, other);
  return (
    <>
      <StepStrip outcome={outcome} />
      {other === null || parting === null ? null : (
        <section aria-label="Compared with" className="border-b border-ink">
          <p className="flex items-center gap-2 px-4 py-2 text-13">
            <span className="text-ink2">Beside it:</span>
            <b className="font-semibold">{questionWords(index, other.question)}</b>
            <span>{parting.sentence}</span>
            <button type="button" className="button ml-auto" onClick={() => set({ compared: null })}>
              Put away
            </button>
          </p>
          <StepStrip outcome={other} differsAt={parting.at} />
        </section>
      )}
      <div className="flex flex-wrap items-center gap-2 border-b border-hair px-4 py-2">
        <Segmented label="Below" value={below} choices={BELOW} onChoose={setBelow} />
        <span className="flex-1" />
        <OnSite outcome={outcome} />
        <button type="button" className="button" onClick={() => set({ compared: outcome.question })}>
          Lay aside to compare
        </button>
        <button type="button" className="button" onClick={keep}>
          Keep: {passes ? "has to pass" : "has to be stopped"}
        </button>
      </div>
      {below === "drawing" ? (
        <LazyDiagram lit={outcome} />
      ) : (
        <div className="min-h-0 flex-1 overflow-auto pb-6" tabIndex={-1}>
          {below === "way" ? (
            <>
              <LitPath outcome={outcome} />
              {outcome.attack === null && outcome.question.from.at !== "internet" ? (
                <WhatItShows outcome={outcome} />
              ) : null}
              {outcome.phone === null ? null : <Phone outcome={outcome.phone} />}
            </>
          ) : (
            <ListenPanel outcome={outcome} />
          )}
        </div>
      )}
    </>
  );
}

/** What was asked is not so on site: it is written down as a reading, and what explains it is looked for. */
function OnSite({ outcome: { question } }: { outcome: Outcome }) {
  const index = useIndex();
  const set = useUi((state) => state.set);
  const { from, goal, as, family } = question;
  if (as.as !== "client") return null;
  const complain = () => {
    set({ testsTab: "wrong", complaint: { from, goal, family } });
    showView(index.plan.site.id, "tests");
  };
  return (
    <button type="button" className="button" onClick={complain}>
      On site it is otherwise
    </button>
  );
}

/** The phone in front of the PC, with what it gets for itself. */
const Phone = ({ outcome }: { outcome: Outcome }) => (
  <section aria-label="The phone" className="border-t border-hair">
    <h2 className="px-4 pt-3 text-14">The phone in front of it</h2>
    <WhatItShows outcome={outcome} />
  </section>
);
