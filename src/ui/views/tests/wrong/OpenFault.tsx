"use client";

import { useState } from "react";
import { v7 } from "uuid";
import { SUSPECT_KINDS, type ShownCandidate } from "@/core/diagnosis";
import { nameOf, type PlanIndex } from "@/core/plan";
import { MOST_NAMED, type FaultNamed } from "@/core/records";
import { counted } from "@/core/repairs";
import { useGoTo } from "../../../frame/go-to";
import { Fact } from "../../../margin/parts";
import { useRecord } from "../../../record-store/use-record";
import { changesOfFault } from "./use-diagnosis";

const percent = (share: number): string => `${Math.round(share * 100)} %`;
/** As many of the things that it is about can be opened from here. */
const MOST_OPENED = 3;

/** The readings that a fault explains; null where they are too many to be named: then it is all of them. */
function explainedOf(
  readings: readonly (string | null)[],
  explains: readonly boolean[],
): readonly string[] | null {
  const own = readings.flatMap((id, at) => (id !== null && explains[at] === true ? [id] : []));
  return own.length > MOST_NAMED ? null : own;
}

/** One fault: what it is, what it explains, what mends it; and that it was this. */
export function OpenFault({
  index,
  candidate,
  readings,
  isFirst,
  isPair,
}: {
  index: PlanIndex;
  candidate: ShownCandidate;
  /** The entries of the record that it was laid beside; null for those that are as planned. */
  readings: readonly (string | null)[];
  isFirst: boolean;
  isPair: boolean;
}) {
  const { add, record } = useRecord();
  const goTo = useGoTo();
  const [isBusy, setBusy] = useState(false);
  const { suspect, count, explains, share } = candidate;
  const { id, kind, words, mend } = suspect;
  const name = async () => {
    setBusy(true);
    const changes = await changesOfFault(
      id,
      record.map(({ entry }) => entry),
    ).catch(() => []);
    const entry: FaultNamed = {
      id: v7(),
      at: new Date().toISOString(),
      do: "fault",
      fault: { id: id.slice(0, 400), kind, words, mend, explains: explainedOf(readings, explains) },
      note: "",
      changes,
    };
    add(entry, []);
    setBusy(false);
  };
  return (
    <section aria-label="What is most likely">
      <header className="border-b border-hair px-4 pt-3 pb-3">
        <p className="text-12 text-ink2">{isFirst ? "Most likely" : "What is chosen"}</p>
        <h2 className="text-18 [overflow-wrap:anywhere]">{words}</h2>
      </header>
      <dl className="facts">
        <Fact name="Kind">{isPair ? "two at once" : SUSPECT_KINDS[kind].words}</Fact>
        <Fact name="Explains">
          {count} of {counted(explains.length, "reading", "readings")}
        </Fact>
        <Fact name="Share">{percent(share)} of what is believed</Fact>
      </dl>
      <div className="px-4 py-3">
        <h3 className="pb-1 text-13 font-semibold">Mend it</h3>
        <p className="text-13">{mend}</p>
        <div className="mt-2 flex flex-wrap gap-2">
          <button type="button" className="button go" disabled={isBusy} onClick={() => void name()}>
            It was this
          </button>
          {suspect.subjects.slice(0, MOST_OPENED).map((subject) => (
            <button
              key={`${subject.kind} ${subject.id}`}
              type="button"
              className="button wrap"
              onClick={() => goTo.entity(subject)}
            >
              Open {nameOf(index, subject.kind, subject.id)}
            </button>
          ))}
        </div>
        <p className="mt-2 text-12 text-ink2">
          “It was this” writes it into the record: where it is on a device that was set up by the record, the
          runbook has the step that mends it; what it explains is to be read again.
        </p>
      </div>
    </section>
  );
}
