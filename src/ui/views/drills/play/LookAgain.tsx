"use client";

import { useState } from "react";
import { askedOf, type Ask } from "@/core/diagnosis";
import { lookMinutes, MOVE_MINUTES, type Played } from "@/core/drills";
import type { PlanIndex } from "@/core/plan";
import type { Opened } from "@/workers/drill-room";
import { act } from "../../../drill-store/store";
import { MoveForm } from "./MoveForm";
import { LookForm, TryForm } from "./TryForm";

const WAYS = {
  ask: { label: "Ask somebody on site", minutes: 1 },
  plug: { label: "Plug the laptop in", minutes: 2 },
  join: { label: "Join a wireless name", minutes: 2 },
  read: { label: "Read a device", minutes: 4 },
  follow: { label: "Follow a cable", minutes: 5 },
  listen: { label: "Listen at a port", minutes: 5 },
  move: { label: "Move a cable", minutes: MOVE_MINUTES },
} as const;
type Way = keyof typeof WAYS;
const ALL = Object.keys(WAYS) as Way[];

/** What can be looked at next, and what it costs. */
export function LookAgain({
  index,
  opened,
  played,
  isWorking,
}: {
  index: PlanIndex;
  opened: Opened;
  played: Played;
  isWorking: boolean;
}) {
  const [way, setWay] = useState<Way | null>(null);
  const look = (ask: Ask) => act({ act: "read", ask });
  const minutesOf = (ask: Ask): number => {
    const { walk, look: minutes } = lookMinutes(askedOf(index, ask), played.place);
    return walk + minutes;
  };
  const costText = (ask: Ask): string => {
    const { walk, look: minutes } = lookMinutes(askedOf(index, ask), played.place);
    return walk === 0 ? `${minutes} min` : `${minutes} min, and ${walk} for the walk`;
  };
  const form = { index, costText, isWorking, onLook: look };
  return (
    <section aria-label="Look again" className="border-t border-ink px-4 py-3">
      <h2 className="text-15 font-semibold">Look again</h2>
      <div className="mt-2 grid grid-cols-3 gap-2 max-[1100px]:grid-cols-2 max-[480px]:grid-cols-1">
        {ALL.map((action) => (
          <button
            key={action}
            type="button"
            className="button tall !justify-between !px-3 !text-13 !font-semibold"
            aria-expanded={way === action}
            onClick={() => setWay(way === action ? null : action)}
          >
            {WAYS[action].label}
            <span className="mono text-13 font-normal text-ink2">{WAYS[action].minutes} min</span>
          </button>
        ))}
        {opened.complaints.map(({ ask, told }, at) => (
          <button
            key={told}
            type="button"
            className="button tall !justify-between !px-3 !text-13 !font-semibold"
            disabled={isWorking}
            onClick={() => look(ask)}
          >
            {opened.complaints.length === 1 ? "See it yourself" : `See complaint ${at + 1} yourself`}
            <span className="mono text-13 font-normal text-ink2">{minutesOf(ask)} min</span>
          </button>
        ))}
      </div>
      {way === null ? null : (
        <div className="mt-3 border border-hair bg-panel p-3">
          {way === "ask" || way === "plug" || way === "join" ? (
            <TryForm key={way} way={way} {...form} />
          ) : null}
          {way === "read" || way === "follow" || way === "listen" ? (
            <LookForm key={way} way={way} {...form} />
          ) : null}
          {way === "move" ? <MoveForm index={index} isMoved={played.isMoved} isWorking={isWorking} /> : null}
        </div>
      )}
    </section>
  );
}
