"use client";

import { useMemo, useState } from "react";
import { WRONG_MINUTES } from "@/core/drills";
import { byNaturalText } from "@/core/kernel";
import { nameOf, type PlanIndex } from "@/core/plan";
import type { Nameable } from "@/workers/drill-room";
import { act, type DrillState } from "../../../drill-store/store";
import { Combo, type Choice } from "../../../kit/Combo";

type Kind = Nameable["subjects"][number]["kind"];
/** The kinds of things in the order in which they are looked for, by what they are called together. */
const KINDS: Partial<Record<Kind, string>> = {
  host: "end devices",
  port: "ports",
  device: "gear",
  segment: "segments",
  ssid: "wireless names",
  scope: "DHCP scopes",
  zone: "zones",
  line: "internet lines",
  link: "cables",
};
const ORDER = Object.values(KINDS);

/** Everything that some fault is about, by its name. */
function thingsOf(index: PlanIndex, faults: readonly Nameable[]): Choice[] {
  const things = new Map(
    faults
      .flatMap(({ subjects }) => subjects)
      .map(({ kind, id }) => [
        `${kind} ${id}`,
        { value: `${kind} ${id}`, label: nameOf(index, kind, id), group: KINDS[kind] ?? "other" },
      ]),
  );
  return [...things.values()].sort(
    (a, b) => ORDER.indexOf(a.group) - ORDER.indexOf(b.group) || byNaturalText(a.label, b.label),
  );
}

const isAbout =
  (thing: string) =>
  ({ subjects }: Nameable): boolean =>
    thing === "" || subjects.some(({ kind, id }) => `${kind} ${id}` === thing);

/** "It is …": a fault is named out of all there could be; once it is right, it is mended. */
export function NameIt({ index, drill }: { index: PlanIndex; drill: DrillState }) {
  const { faults, played, isWorking } = drill;
  const [thing, setThing] = useState("");
  const [fault, setFault] = useState("");
  const things = useMemo(() => thingsOf(index, faults), [index, faults]);
  const about = useMemo(() => faults.filter(isAbout(thing)), [faults, thing]);
  const isMending = (played?.named ?? []).some((named, at) => named && played?.mended[at] !== true);
  const choices = about.map(({ id, words, mend }) => ({ value: id, label: isMending ? mend : words }));
  const chosen = about.some(({ id }) => id === fault) ? fault : "";
  const choose = (next: string) => {
    setThing(next);
    setFault("");
  };
  const say = () => {
    act({ act: isMending ? "mend" : "name", fault: chosen });
    setFault("");
  };
  return (
    <section
      aria-label={isMending ? "Mend it" : "Name it"}
      className="flex flex-wrap items-center gap-2 border-t border-ink bg-act-wash px-4 py-2"
    >
      <span className="text-15">{isMending ? "Mend it:" : "It is"}</span>
      <Combo label="About" value={thing} empty="about anything" choices={things} onChoose={choose} />
      <Combo
        label={isMending ? "What is done" : "The fault"}
        value={chosen}
        empty={isMending ? "what is done?" : "which fault?"}
        choices={choices}
        onChoose={setFault}
      />
      <span className="text-13 text-ink2">
        {isMending ? "it was named; now put it right" : `a wrong name costs ${WRONG_MINUTES} min`}
      </span>
      <button type="button" className="button go ml-auto" disabled={chosen === "" || isWorking} onClick={say}>
        {isMending ? "Mend it" : "Name it"}
      </button>
    </section>
  );
}
