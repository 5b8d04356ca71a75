"use client";

import { useEffect, useMemo, useRef, useState } from "react";
import { v7 } from "uuid";
import { expectedLines, type Expected, type Judged, type SiteTest } from "@/core/commissioning";
import type { PlanIndex } from "@/core/plan";
import {
  isStillAsked,
  MOST_READ,
  takenTest,
  type Photo,
  type RecordEntry,
  type TestCame,
  type TestStanding,
  type TestTaken,
} from "@/core/records";
import { whenText } from "../../kit/when-text";
import { Fact } from "../../margin/parts";
import { PhotoPicker } from "../../record-store/PhotoPicker";
import { Photos } from "../../record-store/Photos";
import { judgedRead } from "./judged";

interface Props {
  readonly index: PlanIndex;
  readonly standing: TestStanding;
  /** What it proves, in words, and what stays unproven where it is skipped. */
  readonly proves: readonly string[];
  readonly alone: readonly string[];
  /** Whether the one before was written down here: then the hand goes on with this one. */
  readonly goesOn: boolean;
  readonly onTaken: (entry: RecordEntry, photos: readonly Photo[]) => void;
  readonly onSkip: () => void;
  readonly onTakeBack: (id: string) => void;
  /** Asks what explains that a reading is otherwise. */
  readonly onWrong: () => void;
  readonly onTakeOut: (photo: string) => void;
}

const MOST_SHOWN = 8;

/** What is asked to be typed, for each kind of reading. */
const ASKED: Readonly<Record<Expected["is"], string>> = {
  lease: "What is read, where it is otherwise: an address, “none”, or all that the laptop prints",
  "no lease": "What is read, where it is otherwise: the address that it gets, or all that the laptop prints",
  "no link": "What is read, where it is otherwise: “link”, or the address that it gets",
  answer: "What comes back, where it is otherwise: “nothing”",
  silence: "What comes back, where it is otherwise: “an answer”",
  measured: "What the instrument shows: a figure, or what it says is wrong",
  shown: "What it shows, where it is otherwise: its table of ports or VLANs can be pasted whole",
};

/** What was read, as an entry of the record. */
function entryOf(
  index: PlanIndex,
  test: SiteTest,
  taken: Pick<TestTaken, "came" | "read" | "says" | "note" | "photos">,
): RecordEntry {
  return { id: v7(), at: new Date().toISOString(), do: "test", test: takenTest(index, test), ...taken };
}

/** One reading, large: what is done where, what has to be read, and what was. */
export function TakeTest(props: Props) {
  const { index, standing, proves, alone, goesOn, onTaken, onSkip } = props;
  const { test } = standing;
  const [text, setText] = useState("");
  const [note, setNote] = useState("");
  const [photos, setPhotos] = useState<readonly Photo[]>([]);
  const [isReading, setReading] = useState(false);
  const section = useRef<HTMLElement>(null);
  useEffect(() => {
    if (goesOn) section.current?.scrollIntoView({ block: "start" });
  }, [goesOn]);
  const read = text.trim();
  const { judged } = useMemo(
    () => judgedRead(index, test.id, test.expected, read),
    [index, test.id, test.expected, read],
  );
  const take = (came: TestCame) =>
    onTaken(
      entryOf(index, test, {
        came,
        read,
        says: judged?.words ?? "",
        note: note.trim(),
        photos: photos.map(({ id }) => id),
      }),
      photos,
    );
  return (
    <section aria-label="Reading" ref={section} className="print:hidden">
      <header className="px-4 pt-3 pb-2">
        <p className="text-12 text-ink2">{test.place === "" ? "No place is known" : test.place}</p>
        <h2 id="reading-now" className="text-22 [overflow-wrap:anywhere]">
          {test.at}
        </h2>
        <p className="text-15">{test.does}</p>
      </header>
      <section aria-label="Has to be read">
        <dl className="facts">
          {expectedLines(index, test.expected).map(([name, value]) => (
            <Fact key={`${name} ${value}`} name={name}>
              {value}
            </Fact>
          ))}
        </dl>
      </section>
      <Last {...props} />
      <AsExpected
        isHeldBack={isReading || judged?.isRight === false}
        goesOn={goesOn}
        onTake={() => take("expected")}
        onSkip={onSkip}
      />
      <Field label={ASKED[test.expected.is]} most={MOST_READ} rows={2} value={text} onChange={setText} />
      <p role="status" className="px-4 pt-1 text-13">
        {read === "" ? null : <Verdict judged={judged} />}
      </p>
      <Field label="Note (never a password)" most={2000} rows={1} value={note} onChange={setNote} />
      <PhotoPicker photos={photos} onChange={setPhotos} isBusy={isReading} onBusy={setReading} />
      <div className="flex flex-wrap gap-2 p-4">
        <button
          type="button"
          className={judged?.isRight === false ? "button go tall flex-1" : "button tall flex-1"}
          disabled={isReading || judged?.isRight === true || (read === "" && note.trim() === "")}
          onClick={() => take("otherwise")}
        >
          Otherwise
        </button>
        <button
          type="button"
          className="button tall flex-1"
          disabled={isReading || note.trim() === ""}
          onClick={() => take("cannot")}
        >
          Can’t be read
        </button>
      </div>
      <p className="px-4 pb-2 text-12 text-ink2">
        For “Otherwise” type what is read, or a note; for “Can’t be read” a note says why.
      </p>
      <Proves proves={proves} alone={alone} />
    </section>
  );
}

function Field({
  label,
  most,
  rows,
  value,
  onChange,
}: {
  label: string;
  most: number;
  rows: number;
  value: string;
  onChange: (value: string) => void;
}) {
  return (
    <label className="block px-4 pt-2 text-13">
      <span className="text-ink2">{label}</span>
      <textarea
        className="field mt-1 block w-full"
        rows={rows}
        maxLength={most}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
}

interface ExpectedProps {
  /** Whether it can't be said: a photo is being read, or what is typed says that it is otherwise. */
  readonly isHeldBack: boolean;
  readonly goesOn: boolean;
  readonly onTake: () => void;
  readonly onSkip: () => void;
}

/** One tap where all is as it has to be. */
function AsExpected({ isHeldBack, goesOn, onTake, onSkip }: ExpectedProps) {
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (goesOn) button.current?.focus({ preventScroll: true });
  }, [goesOn]);
  return (
    <div className="flex gap-2 px-4 pt-3 pb-1">
      <button
        type="button"
        ref={button}
        aria-describedby="reading-now"
        className={isHeldBack ? "button tall flex-[2]" : "button go tall flex-[2]"}
        disabled={isHeldBack}
        onClick={onTake}
      >
        As expected
      </button>
      <button type="button" className="button tall flex-1" onClick={onSkip}>
        Next
      </button>
    </div>
  );
}

function Verdict({ judged }: { judged: Judged | null }) {
  if (judged === null)
    return <span className="text-ink2">That does not tell by itself whether it is right: say so below.</span>;
  return (
    <span className={judged.isRight ? "text-sound" : "text-stop"}>
      {judged.isRight ? "✓" : "✕"} {judged.words}
    </span>
  );
}

const CAME = {
  expected: ["✓ As expected", "text-sound"],
  otherwise: ["✕ Otherwise", "text-stop"],
  cannot: ["– Can’t be read", "text-warn"],
} as const;

/** What was read last, by whom; it can be taken back. */
function Last({ index, standing, onTakeBack, onTakeOut, onWrong }: Props) {
  const { latest, state } = standing;
  if (latest === null) return null;
  const { taken, by, times } = latest;
  const [words, colour] = CAME[taken.came];
  return (
    <div className="mx-4 mt-2 border border-hair bg-paper p-2 text-13">
      <p>
        <b className={`${colour} font-semibold`}>{words}</b>
        {taken.says === "" ? "" : `: ${taken.says}`}
      </p>
      {state === "anew" ? (
        <p className="text-warn">
          The plan has changed since
          {isStillAsked(index, standing.test.expected, taken.test)
            ? ", and this proves more now than it did then"
            : `: then it had to be ${taken.test.expected.replaceAll("\n", "; ")}`}
          . Read it anew.
        </p>
      ) : null}
      {taken.read === "" ? null : <pre className="mono max-h-32 overflow-auto text-12">{taken.read}</pre>}
      {taken.note === "" ? null : <p>{taken.note}</p>}
      <p className="text-12 text-ink2">
        {by}, {whenText(taken.at, index.plan.site.timeZone)}
        {times > 1 ? `; read ${times} times` : ""}
      </p>
      <Photos ids={taken.photos} of={taken.test.at} onTakeOut={onTakeOut} entry={taken.id} />
      {taken.came === "otherwise" ? (
        <button type="button" className="button mt-1 mr-2" onClick={onWrong}>
          What is wrong?
        </button>
      ) : null}
      <button
        type="button"
        className="button mt-1"
        aria-label={`Take the reading back: ${taken.test.at}`}
        onClick={() => onTakeBack(taken.id)}
      >
        Take back
      </button>
    </div>
  );
}

const shortened = (all: readonly string[]): string =>
  all.length <= MOST_SHOWN
    ? all.join("; ")
    : `${all.slice(0, MOST_SHOWN).join("; ")}; and ${all.length - MOST_SHOWN} more`;

/** What hangs on this reading. */
function Proves({ proves, alone }: { proves: readonly string[]; alone: readonly string[] }) {
  return (
    <div className="border-t border-hair px-4 py-3 text-13">
      <p>
        <span className="text-ink2">Proves: </span>
        {shortened(proves)}.
      </p>
      {alone.length === 0 ? null : (
        <p className="mt-1">
          <span className="text-ink2">Left out, nothing else proves: </span>
          {alone.length === proves.length ? "all of that" : shortened(alone)}.
        </p>
      )}
    </div>
  );
}
