"use client";

import { useEffect, useMemo, useState } from "react";
import type { Family } from "@/core/address";
import { askedOf } from "@/core/diagnosis";
import type { PlanIndex, ProbeGoal, ProbePlace } from "@/core/plan";
import { asClient, plugKey, plugs } from "@/core/probe";
import { useUi } from "../../../frame/use-ui";
import { Combo } from "../../../kit/Combo";
import { goalChoices, goalKey, goalOfKey } from "../../probe/goal-choices";
import { FamilyField } from "../../probe/FamilyField";
import { TypedReading } from "./TypedReading";

/** What somebody saw that no test of the sheet asks for: who, what was asked for, what came of it. */
export function NewReading({ index, isFirst }: { index: PlanIndex; isFirst: boolean }) {
  // What was asked on Probe, where one came from there.
  const complaint = useUi((state) => state.complaint);
  const [from, setFrom] = useState<ProbePlace | null>(complaint?.from ?? null);
  const [goal, setGoal] = useState<ProbeGoal>(complaint?.goal ?? { to: "address" });
  const [family, setFamily] = useState<Family>(complaint?.family ?? 4);
  const setUi = useUi((state) => state.set);
  useEffect(() => () => setUi({ complaint: null }), [setUi]);
  const places = useMemo(() => plugs(index), [index]);
  const goals = useMemo(() => goalChoices(index, family, places), [index, family, places]);
  const hasSix = [...index.plan.segment.values()].some(({ prefixes6 }) => prefixes6.length > 0);
  const asked =
    from === null ? null : askedOf(index, { what: "try", question: { ...asClient(from, goal), family } });
  return (
    <section aria-label="Another reading" className="px-4 py-3">
      <h2 className="text-15 font-semibold">{isFirst ? "What does not work?" : "Something else was seen"}</h2>
      <div className="my-2 flex flex-wrap items-center gap-2">
        <Combo
          label="Who or where"
          value={from === null ? "" : plugKey(from)}
          empty="a device or a laptop, where?"
          choices={places.map(({ key, label, detail, group }) => ({ value: key, label, detail, group }))}
          onChoose={(key) => setFrom(places.find((plug) => plug.key === key)?.from ?? null)}
        />
        <span className="text-15">asks for</span>
        <Combo
          label="What it asks for"
          value={goalKey(goal)}
          empty="an address"
          choices={goals}
          onChoose={(key) => setGoal(goalOfKey(key, null))}
        />
        {hasSix || family === 6 ? <FamilyField family={family} write={setFamily} /> : null}
      </div>
      {asked === null ? null : (
        <>
          <p className="text-15">
            {asked.at}: {asked.does}
          </p>
          <TypedReading index={index} asked={asked} />
        </>
      )}
    </section>
  );
}
