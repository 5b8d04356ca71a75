"use client";

import { counted } from "@/core/repairs";
import type { SeenPass } from "@/http/contracts/answers";
import { hereText } from "../sites/here-text";

/** How it stands with a link or a token. */
function stateOf({ isWithdrawn, isOver, endsAt }: SeenPass): string {
  if (isWithdrawn) return "withdrawn";
  return isOver ? `over since ${hereText(endsAt)}` : `until ${hereText(endsAt)}`;
}

/** Links or tokens, whether they still open, and who came by them. */
export function PassList({
  label,
  passes,
  about,
  onWithdraw,
}: {
  label: string;
  passes: readonly SeenPass[];
  about: (pass: SeenPass) => string;
  onWithdraw: (id: string) => void;
}) {
  if (passes.length === 0) return null;
  return (
    <ul aria-label={label} className="pt-2 text-13">
      {passes.map((pass) => (
        <li key={pass.id} className="border-t border-hair py-2">
          <div className="flex flex-wrap items-center gap-2">
            <span className="min-w-[12rem] flex-1 [overflow-wrap:anywhere]">
              <b className="font-semibold">{pass.title}</b>, {about(pass)}
              <span className="text-ink2" suppressHydrationWarning>
                , {stateOf(pass)}, by {pass.madeBy.name}
              </span>
            </span>
            {pass.isWithdrawn || pass.isOver ? null : (
              <button
                type="button"
                className="button"
                aria-label={`Withdraw ${pass.title}, ${about(pass)}`}
                onClick={() => onWithdraw(pass.id)}
              >
                Withdraw
              </button>
            )}
          </div>
          <Visits pass={pass} />
        </li>
      ))}
    </ul>
  );
}

function Visits({ pass: { visits, seen } }: { pass: SeenPass }) {
  if (visits === 0) return <p className="text-ink2">not opened yet</p>;
  return (
    <details>
      <summary className="cursor-pointer text-ink2">
        asked {counted(visits, "time", "times")}; the last {counted(seen.length, "visit", "visits")}
      </summary>
      <ul className="mono pt-1 pl-4 text-12">
        {seen.map(({ beganAt, lastAt, cameFrom, asked }) => (
          <li key={`${beganAt} ${cameFrom}`} suppressHydrationWarning>
            {hereText(beganAt)} to {hereText(lastAt)}, {cameFrom === "" ? "address unknown" : cameFrom},{" "}
            {asked}×
          </li>
        ))}
      </ul>
    </details>
  );
}
