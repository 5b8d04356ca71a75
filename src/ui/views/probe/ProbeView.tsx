"use client";

import { useEffect, useMemo } from "react";
import { plugKey, plugs } from "@/core/probe";
import { SERVICES } from "@/core/policy";
import { Combo } from "../../kit/Combo";
import { SeveritySign } from "../../kit/signs";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";
import { LitPath } from "./LitPath";
import { StepStrip } from "./StepStrip";
import { useProbe } from "./use-probe";
import { WhatItShows } from "./WhatItShows";

/** Plug something in and see: the address it gets, the way it takes, where it stops and why. */
export function ProbeView() {
  const index = useIndex();
  const question = useUi((state) => state.probe);
  const { from, goal } = question;
  const set = useUi((state) => state.set);
  const select = useUi((state) => state.select);
  const outcome = useProbe();
  const places = useMemo(() => plugs(index), [index]);
  useEffect(() => { if (outcome !== null) set({ probed: true }); }, [outcome, set]);
  const targets = useMemo(() => [...index.plan.host.values()].map((host) => ({ value: host.id, label: host.name, detail: host.place, group: "a device" })), [index]);
  const goalValue = goal.to === "host" ? goal.host : goal.to;
  const ask = (question: Parameters<typeof set>[0]["probe"]) => { if (question !== undefined) { select(null); set({ probe: question }); } };
  const service = "service" in goal ? goal.service : null;
  const choosePlug = (key: string) => ask({ ...question, from: places.find((plug) => plug.key === key)?.from ?? null });
  const chooseGoal = (value: string) => ask({ ...question, goal: value === "address" ? { to: "address" } : value === "internet" ? { to: "internet", service } : { to: "host", host: value, service } });
  const chooseService = (name: string) => {
    const chosen = SERVICES.find((s) => s.name === name) ?? null;
    if ("service" in goal) ask({ ...question, goal: { ...goal, service: chosen } });
  };
  return (
    <main className="sheet">
      <div className="head flex-wrap py-1">
        <h1 className="sr-only">Probe</h1>
        <span className="text-15">Plug in</span>
        <Combo label="What and where" value={from === null ? "" : plugKey(from)} empty="a laptop or a device, where?" choices={places.map((plug) => ({ value: plug.key, label: plug.label, detail: plug.detail, group: plug.group }))} onChoose={choosePlug} />
        <span className="text-15">and ask for</span>
        <Combo label="What it asks for" value={goalValue} empty="an address" choices={[{ value: "address", label: "an address" }, { value: "internet", label: "the internet" }, ...targets]} onChoose={chooseGoal} />
        {!("service" in goal) ? null : (
          <label className="flex items-center gap-2 text-15">by
            <select className="field" value={service?.name ?? ""} onChange={(event) => chooseService(event.target.value)}><option value="">anything</option>{SERVICES.map((s) => <option key={s.name} value={s.name}>{s.name}</option>)}</select>
          </label>
        )}
        <span className="push" />
        {outcome === null ? null : outcome.stopsAt === null ? <p role="status" className="text-18 !text-sound font-semibold">✓ all {outcome.steps.length} steps pass</p>
          : <p role="status" className="flex items-center gap-2 text-18 !text-stop font-semibold"><SeveritySign severity="stop" size={18} />stops at step {outcome.stopsAt}</p>}
      </div>
      {outcome === null ? <Empty hasPlaces={places.length > 0} /> : (
        <div className="min-h-0 flex-1 overflow-auto pb-6" tabIndex={-1}>
          <StepStrip outcome={outcome} />
          <LitPath outcome={outcome} />
          <WhatItShows outcome={outcome} />
        </div>
      )}
    </main>
  );
}

const Empty = ({ hasPlaces }: { hasPlaces: boolean }) => (
  <div className="max-w-[60ch] p-4 text-15">
    <p className="mb-2">What “plug the laptop in and see” shows on the ladder, this shows at the desk: choose where something is plugged in and what it asks for. The journey appears step by step, with the tag on every hop; where it stops, you see the first cause and its repair.</p>
    {hasPlaces ? null : <p className="text-ink2">There is nothing to plug into yet. Add a switch or a gateway on Hardware first.</p>}
  </div>
);
