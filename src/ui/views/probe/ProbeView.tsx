"use client";

import { useEffect } from "react";
import { plugs, type Outcome } from "@/core/probe";
import type { ProbeWay } from "../../frame/ui-state";
import { useUi } from "../../frame/use-ui";
import { Segmented } from "../../kit/Segmented";
import { SeveritySign } from "../../kit/signs";
import { useIndex } from "../../plan-store/use-plan";
import { Journey } from "./Journey";
import { KeptPanel } from "./KeptPanel";
import { QuestionBar } from "./QuestionBar";
import { ReachPanel } from "./ReachPanel";
import { useProbe } from "./use-probe";

const WAYS: readonly (readonly [ProbeWay, string])[] = [
  ["journey", "One journey"],
  ["kept", "Kept"],
  ["reach", "Reachability"],
];

/** How it ended, beside the head: kept out or not, all steps or where it stops. */
function Result({ outcome }: { outcome: Outcome }) {
  const { attack, stopsAt, steps } = outcome;
  const isGood = attack === null ? stopsAt === null : attack.reached.length === 0;
  const kept = attack === null ? `all ${steps.length} steps pass` : "kept out";
  if (isGood)
    return (
      <p role="status" className="!text-15 !text-sound font-semibold">
        ✓ {kept}
      </p>
    );
  return (
    <p role="status" className="flex items-center gap-2 !text-15 !text-stop font-semibold">
      <SeveritySign severity="stop" size={16} />
      {attack === null ? `stops at step ${stopsAt}` : `gets through to ${attack.reached.length}`}
    </p>
  );
}

/**
 * Plug something in and see: the address it gets, the way it takes, where it stops and why; the probes that
 * are kept; everybody against everybody.
 */
export function ProbeView() {
  const index = useIndex();
  const way = useUi((state) => state.probeWay);
  const set = useUi((state) => state.set);
  const select = useUi((state) => state.select);
  const outcome = useProbe();
  useEffect(() => {
    if (outcome !== null) set({ probed: true });
  }, [outcome, set]);
  return (
    <main className="sheet">
      <div className="head">
        <h1>Probe</h1>
        {way === "journey" && outcome !== null ? <Result outcome={outcome} /> : null}
        <span className="push" />
        <Segmented
          label="Ask"
          value={way}
          choices={WAYS}
          onChoose={(probeWay) => {
            select(null);
            set({ probeWay });
          }}
        />
      </div>
      {way === "kept" ? <KeptPanel /> : null}
      {way === "reach" ? <ReachPanel /> : null}
      {way === "journey" ? (
        <>
          <QuestionBar />
          {outcome === null ? <Empty hasPlaces={plugs(index).length > 0} /> : <Journey outcome={outcome} />}
        </>
      ) : null}
    </main>
  );
}

const Empty = ({ hasPlaces }: { hasPlaces: boolean }) => (
  <div className="max-w-[60ch] p-4 text-15">
    <p className="mb-2">
      What “plug the laptop in and see” shows on the ladder, this shows at the desk: choose where something is
      plugged in and what it asks for. The journey appears step by step, with the tag on every hop; where it
      stops, you see the first cause and its repair.
    </p>
    {hasPlaces ? null : (
      <p className="text-ink2">
        There is nothing to plug into yet. Add a switch or a gateway on Hardware first.
      </p>
    )}
  </div>
);
