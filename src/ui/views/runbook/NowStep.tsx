"use client";

import { useEffect, useMemo, useRef, useState } from "react";
import { byNaturalText } from "@/core/kernel";
import type { PlanIndex } from "@/core/plan";
import { partsOf, siteAsIs, type Photo, type Recorded, type Tick, type TickCame } from "@/core/records";
import { secondsToStart, type Step } from "@/core/runbook";
import { StepParts } from "../../margin/runbook/StepParts";
import { PhotoPicker } from "../../record-store/PhotoPicker";
import { ReadBack } from "./ReadBack";
import { WaitTimer } from "./WaitTimer";

interface Props {
  readonly index: PlanIndex;
  readonly record: readonly Recorded[];
  readonly step: Step;
  /** Which step of the visit it is, and of how many. */
  readonly number: number;
  readonly all: number;
  /** Whether the one before was ticked here: then the hand goes on with this one. */
  readonly goesOn: boolean;
  /** False where it can't be written down so. */
  readonly onTick: (came: TickCame, said: Said, parts: ReadonlySet<number> | null) => boolean;
}

/** What is written down with a step, beside how it came out. */
export interface Said extends Pick<Tick, "read" | "note"> {
  readonly photos: readonly Photo[];
}

/** How long one waits at a step for a device to start; null where nobody has read that. */
function waitOf(
  index: PlanIndex,
  { operation }: Step,
): { readonly name: string; readonly seconds: number } | null {
  const device = operation?.page === "power" ? index.plan.device.get(operation.device) : undefined;
  const seconds = device === undefined ? null : secondsToStart(index, device);
  return device === undefined || seconds === null ? null : { name: device.name, seconds };
}

/** What the note of a step is for. */
function noteLabel({ kind }: Step, asked: "differs" | "cannot" | null): string {
  if (asked === "cannot") return "Why it can't be done";
  return kind === "permit" ? "Who signed, and until when it holds" : "Note (never a password)";
}

/** The step that is to be done now, large: what is entered, from where, and how it came out. */
export function NowStep({ index, record, step, number, all, goesOn, onTick }: Props) {
  const [asked, setAsked] = useState<"differs" | "cannot" | null>(null);
  const [note, setNote] = useState("");
  const [photos, setPhotos] = useState<readonly Photo[]>([]);
  const [isReading, setReading] = useState(false);
  const said = { read: "", note: note.trim(), photos };
  const wait = waitOf(index, step);
  const section = useRef<HTMLElement>(null);
  const done = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (!goesOn) return;
    done.current?.focus({ preventScroll: true });
    section.current?.scrollIntoView({ block: "start" });
  }, [goesOn]);
  return (
    <section aria-label="Now" ref={section}>
      <header className="px-4 pt-3 pb-2">
        <p className="text-12 text-ink2">
          Step {number} of {all}
        </p>
        <h2 id="now-step" className="text-22">
          {step.title}
        </h2>
      </header>
      <StepParts index={index} step={step} />
      {wait === null ? null : <WaitTimer seconds={wait.seconds} what={`${wait.name} starting`} />}
      <label className="block px-4 pt-2 text-13">
        <span className="text-ink2">{noteLabel(step, asked)}</span>
        <textarea
          className="field mt-1 block w-full"
          rows={2}
          maxLength={2000}
          value={note}
          onChange={(event) => setNote(event.target.value)}
        />
      </label>
      <PhotoPicker photos={photos} onChange={setPhotos} isBusy={isReading} onBusy={setReading} />
      {asked === "differs" ? (
        <Differs
          parts={{ index, record, step }}
          isReading={isReading}
          hasMore={note.trim() !== "" || photos.length > 0}
          onCancel={() => setAsked(null)}
          onRecord={(read, parts) => onTick("differs", { ...said, read }, parts) && setAsked(null)}
        />
      ) : (
        <div className="flex flex-wrap gap-2 p-4">
          {asked === "cannot" ? (
            <>
              <button
                type="button"
                className="button go tall flex-1"
                disabled={note.trim() === "" || isReading}
                onClick={() => onTick("cannot", said, null)}
              >
                Write down that it can’t be done
              </button>
              <button type="button" className="button tall" onClick={() => setAsked(null)}>
                Cancel
              </button>
            </>
          ) : (
            <>
              <button
                type="button"
                ref={done}
                aria-describedby="now-step"
                className="button go tall flex-[2]"
                disabled={(step.kind === "permit" && note.trim() === "") || isReading}
                onClick={() => onTick("done", said, null)}
              >
                {step.kind === "permit" ? "Signed" : "Done"}
              </button>
              {step.kind === "do" ? (
                <>
                  <button type="button" className="button tall flex-1" onClick={() => setAsked("differs")}>
                    Differs …
                  </button>
                  <button type="button" className="button tall flex-1" onClick={() => setAsked("cannot")}>
                    Can’t be done …
                  </button>
                </>
              ) : null}
            </>
          )}
        </div>
      )}
    </section>
  );
}

interface DiffersProps {
  readonly parts: { readonly index: PlanIndex; readonly record: readonly Recorded[]; readonly step: Step };
  readonly isReading: boolean;
  /** Whether there is a note or a photo: these go with a tick, and would be lost with a reading. */
  readonly hasMore: boolean;
  readonly onRecord: (read: string, parts: ReadonlySet<number>) => void;
  readonly onCancel: () => void;
}

/** What of a step did take, and what is read where it did not. */
function Differs({ parts: { index, record, step }, isReading, hasMore, onRecord, onCancel }: DiffersProps) {
  const words = useMemo(() => {
    const asIs = siteAsIs(
      index,
      record.map(({ entry }) => entry),
    );
    // What is not powered has nothing on it.
    if (asIs === null || step.operation === null || step.operation.page === "power") return [];
    return partsOf(index, asIs, step.operation)
      .map((part, at) => ({ part, at }))
      .sort((a, b) => byNaturalText(a.part, b.part));
  }, [index, record, step]);
  const [took, setTook] = useState<ReadonlySet<number>>(new Set());
  const [read, setRead] = useState("");
  const [isPasting, setPasting] = useState(false);
  const toggle = (at: number) => {
    const next = new Set(took);
    if (!next.delete(at)) next.add(at);
    setTook(next);
  };
  if (isPasting)
    return (
      <div className="mt-3 border-t border-hair">
        <ReadBack
          index={index}
          known={{ record, before: null }}
          first={step.device}
          close={() => setPasting(false)}
        />
      </div>
    );
  return (
    <div className="p-4 text-13">
      <fieldset hidden={words.length === 0}>
        <legend className="mb-1 font-semibold">What of it is on the device now</legend>
        {words.map(({ part, at }) => (
          <label key={at} className="flex min-h-11 items-center gap-3 border-t border-hair">
            <input type="checkbox" className="h-5 w-5" checked={took.has(at)} onChange={() => toggle(at)} />
            {part}
          </label>
        ))}
      </fieldset>
      <label className="mt-2 block">
        <span className="text-ink2">What is read instead</span>
        <input
          className="field mt-1 block min-h-11 w-full"
          maxLength={400}
          value={read}
          onChange={(event) => setRead(event.target.value)}
        />
      </label>
      <p className="mt-3 flex flex-wrap gap-2">
        <button
          type="button"
          className="button go tall flex-1"
          disabled={isReading}
          onClick={() => onRecord(read.trim(), took)}
        >
          Write it down; find the order anew
        </button>
        <button
          type="button"
          className="button tall"
          disabled={hasMore || isReading}
          onClick={() => setPasting(true)}
        >
          Paste what it shows …
        </button>
        <button type="button" className="button tall" onClick={onCancel}>
          Cancel
        </button>
      </p>
      {hasMore ? (
        <p className="mt-2 text-ink2">
          The note and photos go with what is written down here. To paste instead, leave them out.
        </p>
      ) : null}
    </div>
  );
}
