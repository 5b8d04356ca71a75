"use client";

import { clsx } from "clsx";
import { useMemo } from "react";
import type { HeardFile } from "@/core/heard";
import { guessTap, laidBeside, TAP_WORDS } from "@/core/listening";
import type { PlanIndex } from "@/core/plan";
import { plugs } from "@/core/probe";
import { capturedReadings } from "@/core/records";
import { counted } from "@/core/repairs";
import { Combo } from "../../../kit/Combo";
import { CaptureFile } from "./CaptureFile";
import { LaidLines } from "./LaidLines";
import { NeighbourTable } from "./NeighbourTable";
import { TapChoice } from "./TapChoice";
import { TakeHeard } from "./TakeHeard";
import { sayTaken, sayWhere, useCapture } from "./use-capture";

/** A capture that was taken on site, beside what should be heard where it was taken. */
export function Captures({ index, onWrong }: { index: PlanIndex; onWrong: () => void }) {
  const { plan } = index;
  const { heard, name, port: said } = useCapture(plan.site.id);
  // A port that the plan no longer has is asked for anew.
  const port = said !== null && plan.port.has(said) ? said : null;
  const ports = useMemo(
    () =>
      plugs(index).flatMap(({ from, label, detail, group }) =>
        from.at === "port" && from.tag === null ? [{ value: from.port, label, detail, group }] : [],
      ),
    [index],
  );
  return (
    <div className="min-h-0 flex-1 overflow-auto print:overflow-visible">
      <CaptureFile site={plan.site.id} />
      {heard === null ? null : <Summary name={name} heard={heard} />}
      {heard === null || heard.frames === 0 ? null : (
        <>
          <div className="flex flex-wrap items-center gap-2 border-b border-hair px-4 py-2 text-15">
            <span>Taken at</span>
            <Combo
              label="Port"
              value={port ?? ""}
              empty="which port?"
              choices={ports}
              onChoose={(id) => sayWhere({ port: id })}
            />
          </div>
          {port === null ? (
            <p role="status" className="max-w-[64ch] p-4 text-15">
              Say at which port it was taken: what was heard is laid beside what should be heard there.
            </p>
          ) : (
            <Heard index={index} port={port} heard={heard} onWrong={onWrong} />
          )}
        </>
      )}
      <NeighbourTable index={index} onWrong={onWrong} />
    </div>
  );
}

const stationsOf = ({ facts }: HeardFile): number =>
  new Set(facts.tags.flatMap(({ senders }) => Object.keys(senders))).size;

/** What the file is, and how far it could be read. */
function Summary({ name, heard }: { name: string; heard: HeardFile }) {
  const { frames, cutFrames, unread, seconds, stopped, leftOut } = heard;
  if (frames === 0)
    return (
      <p role="alert" className="border-b border-hair px-4 py-2 text-stop">
        <b className="font-semibold [overflow-wrap:anywhere]">{name}</b>:{" "}
        {stopped ?? "There are no frames in it."}
      </p>
    );
  const [cut, other] = [cutFrames, unread].map((count) => counted(count, "frame", "frames"));
  const notes = [
    ...(stopped === null ? [] : [stopped]),
    ...(cutFrames === 0
      ? []
      : [`Of ${cut} only the beginning was kept: what is missing may still have been said.`]),
    ...(unread === 0 ? [] : [`${other} could not be read: too short, or of a kind other than Ethernet.`]),
    ...(leftOut ? ["There was more in it than is kept: the first of each kind are shown."] : []),
  ];
  return (
    <div className="border-b border-hair px-4 py-2 text-13">
      <p role="status">
        <b className={clsx("font-semibold [overflow-wrap:anywhere]")}>{name}</b>:{" "}
        {counted(frames, "frame", "frames")} of {counted(stationsOf(heard), "station", "stations")} in{" "}
        {seconds.toFixed(seconds < 10 ? 1 : 0)} s
      </p>
      {notes.map((words) => (
        <p key={words} className="text-warn">
          {words}
        </p>
      ))}
    </div>
  );
}

function Heard({
  index,
  port,
  heard,
  onWrong,
}: {
  index: PlanIndex;
  port: string;
  heard: HeardFile;
  onWrong: () => void;
}) {
  const guessed = useMemo(() => guessTap(heard), [heard]);
  const { tap: said, isTaken } = useCapture(index.plan.site.id);
  const tap = said ?? guessed;
  const laid = useMemo(() => laidBeside(index, port, tap, heard), [index, port, tap, heard]);
  const readings = useMemo(() => capturedReadings(index, port, laid), [index, port, laid]);
  return (
    <>
      <TapChoice tap={tap} isGuess={said === null} onChoose={(tap) => sayWhere({ tap: tap })} />
      {laid.lines.length === 0 ? (
        <p role="status" className="max-w-[64ch] p-4 text-15">
          Nothing that the plan speaks of was heard at {TAP_WORDS[tap.position]}. That is no proof that
          nothing is wrong: capture for a minute while a device asks for its address.
        </p>
      ) : (
        <>
          <TakeHeard
            readings={readings}
            lines={laid.lines}
            isTaken={isTaken}
            onTaken={sayTaken}
            onWrong={onWrong}
          />
          <LaidLines index={index} laid={laid} />
        </>
      )}
    </>
  );
}
