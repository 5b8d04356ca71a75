"use client";

import { useState } from "react";
import { toast } from "sonner";
import { clashSides, encodedClashSides, integrityFault, type ClashSides } from "@/core/formats";
import { entityOf, KINDS, nameOf, type Choose, type PlanIndex, type Winner } from "@/core/plan";
import { Modal } from "../kit/Modal";
import { Radios } from "../kit/Radios";
import type { Stuck } from "../plan-store/held";
import type { StepClash } from "../plan-store/plan-state";
import { namerOf } from "../plan-store/store";
import { useHeld, usePlan } from "../plan-store/use-plan";

/** One field that two people want different things of. */
interface Row extends ClashSides {
  readonly key: string;
  readonly name: string;
}
const keyOf = ({ id, field }: { readonly id: string; readonly field: string | null }) => `${id} ${field}`;

const named = (index: PlanIndex, id: string): string => {
  const kind = KINDS.find((kind) => entityOf(index.plan, kind, id) !== undefined);
  return kind === undefined ? "Something that was removed" : nameOf(index, kind, id);
};

/**
 * Somebody else changed the same first: a person chooses, field by field, and closing the question decides
 * nothing.
 */
export function ClashDialog() {
  const stuck = usePlan((state) => state.held?.stuck[0] ?? null);
  const step = usePlan((state) => state.stepClash);
  const asking = usePlan((state) => state.asking);
  if (!asking || (stuck === null && step === null)) return null;
  return step === null ? (
    <StuckQuestion key={stuck?.batch.id} stuck={stuck as Stuck} />
  ) : (
    <StepQuestion step={step} />
  );
}

function StuckQuestion({ stuck }: { stuck: Stuck }) {
  const ask = usePlan((state) => state.ask);
  const decide = usePlan((state) => state.decide);
  const withdraw = usePlan((state) => state.withdraw);
  const { index } = useHeld();
  const rows = stuck.clashes.map((clash): Row => ({
    ...clashSides(index, clash),
    key: keyOf(clash),
    name: named(index, clash.id),
  }));
  const fault = stuck.fault === null ? null : integrityFault(stuck.fault, namerOf(index)).sentence;
  return (
    <Modal
      open
      onOpenChange={ask}
      title="Somebody changed the same"
      wide
      description={
        `Your change "${stuck.batch.summary}" is not saved yet, because somebody else ` +
        "changed the same meanwhile. Close this to decide later: both stay until then."
      }
    >
      {fault === null ? (
        <Questions rows={rows} sides={["Yours", "Theirs"]} onChosen={decide} />
      ) : (
        <>
          <p className="mb-3 text-15">It no longer fits the plan: {fault}</p>
          <button type="button" className="button" onClick={withdraw}>
            Take my change back
          </button>
        </>
      )}
    </Modal>
  );
}

function StepQuestion({ step }: { step: StepClash }) {
  const ask = usePlan((state) => state.ask);
  const decideStep = usePlan((state) => state.decideStep);
  const { index } = useHeld();
  const rows = step.clashes.map((clash): Row => ({
    ...encodedClashSides(index, clash),
    key: keyOf(clash),
    name: named(index, clash.id),
  }));
  const send = async (choose: Choose) => {
    const refusal = await decideStep(choose);
    if (refusal !== null) toast.error(refusal, { duration: 8000 });
  };
  return (
    <Modal
      open
      onOpenChange={ask}
      title={step.way === "undo" ? "Undo meets a later change" : "Bringing back meets a later change"}
      wide
      description={step.sentence}
    >
      <Questions
        rows={rows}
        sides={[step.way === "undo" ? "As it was before" : "Brought back", "As it is now"]}
        onChosen={(choose) => void send(choose)}
      />
    </Modal>
  );
}

/** The fields one by one, none chosen beforehand. */
function Questions({
  rows,
  sides,
  onChosen,
}: {
  rows: readonly Row[];
  sides: readonly [string, string];
  onChosen: (choose: Choose) => void;
}) {
  const [chosen, setChosen] = useState<ReadonlyMap<string, Winner>>(new Map());
  const all = (winner: Winner) => setChosen(new Map(rows.map(({ key }) => [key, winner])));
  const left = rows.filter(({ key }) => !chosen.has(key)).length;
  return (
    <>
      <ul className="mb-4">
        {rows.map((row) => (
          <li key={row.key} className="border-t border-hair py-2">
            <h3 className="mb-1 text-14">
              {row.name}: {row.field}
            </h3>
            <Radios<Winner | "">
              label={`${row.name}: ${row.field}`}
              value={chosen.get(row.key) ?? ""}
              choices={[
                ["mine", `${sides[0]}: ${row.mine}`],
                ["theirs", `${sides[1]}: ${row.theirs}`],
              ]}
              onChoose={(winner) => {
                if (winner !== "") setChosen(new Map([...chosen, [row.key, winner]]));
              }}
            />
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap items-center gap-2">
        {rows.length < 2 ? null : (
          <>
            <button type="button" className="button" onClick={() => all("mine")}>
              All: {sides[0].toLowerCase()}
            </button>
            <button type="button" className="button" onClick={() => all("theirs")}>
              All: {sides[1].toLowerCase()}
            </button>
          </>
        )}
        <span className="flex-1" />
        <button
          type="button"
          className="button go"
          disabled={left > 0}
          onClick={() => onChosen((clash) => chosen.get(keyOf(clash)) ?? null)}
        >
          {left === 0 ? "Save what is chosen" : `${left} to choose`}
        </button>
      </div>
    </>
  );
}
