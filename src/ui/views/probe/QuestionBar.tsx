"use client";

import { useMemo } from "react";
import type { ProbeGoal, Service } from "@/core/plan";
import { catalogueOf, moments, momentWords, servicesCalled } from "@/core/policy";
import { plugKey, plugs } from "@/core/probe";
import { Combo } from "../../kit/Combo";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";
import { AsFields } from "./AsFields";
import { FamilyField } from "./FamilyField";
import { goalChoices, goalKey, goalOfKey } from "./goal-choices";

/** What is plugged in where, and what it asks for. */
export function QuestionBar() {
  const index = useIndex();
  const question = useUi((state) => state.probe);
  const set = useUi((state) => state.set);
  const select = useUi((state) => state.select);
  const { from, as, family, goal } = question;
  const places = useMemo(() => plugs(index), [index]);
  const goals = useMemo(() => goalChoices(index, family, places), [index, family, places]);
  const ask = (part: Partial<typeof question>) => {
    select(null);
    set({ probe: { ...question, ...part } });
  };
  return (
    <div className="flex flex-wrap items-center gap-2 border-b border-hair px-4 py-2">
      <span className="text-15">{from?.at === "internet" ? "Ask from" : "Plug in"}</span>
      <Combo
        label="What and where"
        value={from === null ? "" : plugKey(from)}
        empty="a laptop or a device, where?"
        choices={places.map(({ key, label, detail, group }) => ({ value: key, label, detail, group }))}
        onChoose={(key) => {
          const place = places.find((plug) => plug.key === key)?.from ?? null;
          ask({ from: place, as: place?.at === "port" ? as : { as: "client" } });
        }}
      />
      {from?.at !== "port" ? null : (
        <AsFields
          index={index}
          from={from}
          as={as}
          ask={(next, of) => ask({ as: next, family: of ?? family })}
        />
      )}
      {["falseServer", "falseRouter", "spoofer"].includes(as.as) ? null : (
        <>
          <span className="text-15">and ask for</span>
          <Combo
            label="What it asks for"
            value={goalKey(goal)}
            empty="an address"
            choices={goals}
            onChoose={(key) => ask({ goal: goalOfKey(key, "service" in goal ? goal.service : null) })}
          />
          <ServiceField goal={goal} write={(next) => ask({ goal: next })} />
          <WhenField minute={question.minute ?? null} write={(minute) => ask({ minute })} />
          {as.as === "typed" ? null : <FamilyField family={family} write={(next) => ask({ family: next })} />}
        </>
      )}
    </div>
  );
}

/** When it is asked: only where exceptions hold in some hours. */
function WhenField({ minute, write }: { minute: number | null; write: (minute: number | null) => void }) {
  const index = useIndex();
  const all = useMemo(() => moments(index), [index]);
  if (all.length === 0) return null;
  return (
    <label className="flex items-center gap-2 text-15">
      when
      <select
        className="field"
        value={minute === null || !all.includes(minute) ? "" : String(minute)}
        onChange={(event) => write(event.target.value === "" ? null : Number(event.target.value))}
      >
        <option value="">outside all hours</option>
        {all.map((minute) => (
          <option key={minute} value={minute}>
            {momentWords(index, minute)}
          </option>
        ))}
      </select>
    </label>
  );
}

const keyOf = (service: Service | null): string =>
  service === null ? "" : `${service.protocol} ${service.name}`;

function ServiceField({ goal, write }: { goal: ProbeGoal; write: (goal: ProbeGoal) => void }) {
  const index = useIndex();
  if (!("service" in goal)) return null;
  const services = catalogueOf(index.plan);
  return (
    <label className="flex items-center gap-2 text-15">
      by
      <select
        className="field"
        value={goal.service === null ? "" : keyOf(goal.service)}
        onChange={(event) => {
          const known = services.find((service) => keyOf(service) === event.target.value);
          if (known !== undefined || event.target.value === "") write({ ...goal, service: known ?? null });
        }}
      >
        <option value="">anything</option>
        {services.map((service) => (
          <option key={keyOf(service)} value={keyOf(service)}>
            {servicesCalled(index.plan, service.name).length > 1
              ? `${service.name}, ${service.protocol.toUpperCase()}`
              : service.name}
          </option>
        ))}
        {goal.service === null ||
        services.some((service) => keyOf(service) === keyOf(goal.service)) ? null : (
          <option value={keyOf(goal.service)}>{goal.service.name}</option>
        )}
      </select>
    </label>
  );
}
