"use client";

import { useMemo, useState } from "react";
import { askedOf, type Ask } from "@/core/diagnosis";
import type { PlanIndex, ProbeGoal } from "@/core/plan";
import { byNaturalText } from "@/core/kernel";
import { asClient, plugs } from "@/core/probe";
import { Combo, type Choice } from "../../../kit/Combo";
import { goalChoices, goalKey, goalOfKey } from "../../probe/goal-choices";

interface FormProps {
  readonly index: PlanIndex;
  readonly costText: (ask: Ask) => string;
  readonly isWorking: boolean;
  readonly onLook: (ask: Ask) => void;
}

const TRIES = {
  ask: { at: "host", who: "Who", empty: "who is asked?" },
  plug: { at: "port", who: "Where", empty: "which port?" },
  join: { at: "ssid", who: "Where", empty: "which name, at which access point?" },
} as const;

/** Somebody asks for something: a device of the site, or the laptop at a port or on the air. */
export function TryForm({
  way,
  index,
  costText,
  isWorking,
  onLook,
}: FormProps & { way: keyof typeof TRIES }) {
  const { at, who, empty } = TRIES[way];
  const [key, setKey] = useState("");
  const [goal, setGoal] = useState<ProbeGoal>({ to: "address" });
  const places = useMemo(() => plugs(index), [index]);
  const goals = useMemo(() => goalChoices(index, 4, places), [index, places]);
  const own = places.filter(({ from }) => from.at === at);
  const from = own.find((plug) => plug.key === key)?.from ?? null;
  const ask: Ask | null = from === null ? null : { what: "try", question: asClient(from, goal) };
  return (
    <div className="flex flex-wrap items-center gap-2 text-15">
      <Combo
        label={who}
        value={key}
        empty={empty}
        choices={own.map(({ key: value, label, detail }) => ({ value, label, detail }))}
        onChoose={setKey}
      />
      <span>asks for</span>
      <Combo
        label="What it asks for"
        value={goalKey(goal)}
        empty="an address"
        choices={goals}
        onChoose={(chosen) => setGoal(goalOfKey(chosen, null))}
      />
      <LookButton {...{ ask, index, costText, isWorking, onLook }} />
    </div>
  );
}

function LookButton({ ask, index, costText, isWorking, onLook }: FormProps & { ask: Ask | null }) {
  return (
    <>
      <button
        type="button"
        className="button go"
        disabled={ask === null || isWorking}
        onClick={() => {
          if (ask !== null) onLook(ask);
        }}
      >
        Look
      </button>
      <span className="text-13 text-ink2">
        {ask === null ? "" : `${askedOf(index, ask).place || "no place"}: ${costText(ask)}`}
      </span>
    </>
  );
}

const LOOKS = {
  read: { label: "Device", empty: "which device?" },
  follow: { label: "Port", empty: "the cable in which port?" },
  listen: { label: "Port", empty: "at which port?" },
} as const;

/** Everything that can be read: gear, and what is entered on end devices. */
function devicesOf(index: PlanIndex): Choice[] {
  const gear = [...index.plan.device.values()].map(({ id, name, place }) => ({
    value: `device ${id}`,
    label: name,
    detail: place,
    group: "gear: what is set on it",
  }));
  const hosts = [...index.plan.host.values()].map(({ id, name, place }) => ({
    value: `host ${id}`,
    label: name,
    detail: place,
    group: "end devices: what is entered",
  }));
  const byName = (a: Choice, b: Choice) => byNaturalText(a.label, b.label);
  return [...gear.sort(byName), ...hosts.sort(byName)];
}

export function portChoices(index: PlanIndex): Choice[] {
  return plugs(index).flatMap(({ from, label, detail }) =>
    from.at === "port" ? [{ value: from.port, label, detail }] : [],
  );
}

function askAt(way: keyof typeof LOOKS, key: string): Ask | null {
  if (key === "") return null;
  if (way === "listen") return { what: "listen", port: key };
  if (way === "follow") return { what: "look", look: { on: "cable", port: key } };
  const [kind, id = ""] = key.split(" ");
  return { what: "look", look: kind === "host" ? { on: "host", host: id } : { on: "device", device: id } };
}

/** A look at something that is there: a device’s pages, where a cable leads, what is heard at a port. */
export function LookForm({ way, ...form }: FormProps & { way: keyof typeof LOOKS }) {
  const { label, empty } = LOOKS[way];
  const { index } = form;
  const [key, setKey] = useState("");
  const choices = useMemo(() => (way === "read" ? devicesOf(index) : portChoices(index)), [index, way]);
  return (
    <div className="flex flex-wrap items-center gap-2 text-15">
      <Combo label={label} value={key} empty={empty} choices={choices} onChoose={setKey} />
      <LookButton ask={askAt(way, key)} {...form} />
    </div>
  );
}
