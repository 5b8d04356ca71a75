"use client";

import { useShallow } from "zustand/react/shallow";
import { MOST_THINGS } from "@/http/contracts/live-contracts";
import { othersIn, TAB, useLiveState } from "../live/live-store";
import type { Selection } from "./ui-state";
import { VIEWS, type ViewKey } from "./views";

/** Ids as the plan has them: nothing else may stand in a selector. */
const ID = /^[\da-f-]{36}$/;

/** What of the plan is selected, by its ids. */
export function thingsOf(selection: Selection | null): readonly string[] {
  if (selection === null) return [];
  if (selection.what === "ports") return [selection.device, ...selection.ids].slice(0, MOST_THINGS);
  return "id" in selection && selection.id !== null && ID.test(selection.id) ? [selection.id] : [];
}

const useOthers = () => useLiveState(useShallow(({ present }) => othersIn(present, TAB)));

/** "RV" of "Ruth Vale". */
const initials = (name: string): string =>
  name
    .split(/\s+/)
    .slice(0, 2)
    .map((word) => [...word][0] ?? "")
    .join("")
    .toUpperCase();

/** In the work order, beside a view: who else is there. */
export function OthersThere({ view }: { view: ViewKey }) {
  const there = useOthers().filter(({ sheet }) => sheet === view);
  if (there.length === 0) return null;
  const names = there.map(({ name }) => name).join(", ");
  return (
    <span
      role="img"
      aria-label={`Also there: ${names}`}
      title={names}
      className="border border-rule px-[3px] text-[10px] leading-[14px] font-semibold text-ink2"
    >
      {there.length === 1 ? initials(names) : there.length}
    </span>
  );
}

/** In the title block: who else has the site open, and where. */
export function OthersHere() {
  const others = useOthers();
  if (others.length === 0) return null;
  const where = others.map(({ name, sheet }) => {
    const title = VIEWS.find(({ key }) => key === sheet)?.title;
    return title === undefined ? name : `${name} on ${title}`;
  });
  return (
    <span className="flex items-center gap-[7px] border-r border-rule px-3" title={where.join(", ")}>
      <small className="text-12 text-ink2">Also here</small>
      {where.length > 2 ? `${where.length} others` : where.join(", ")}
    </span>
  );
}

/** Rows and drawn devices that somebody else has selected, marked quietly by a rule of style. */
export function OthersMarks() {
  const things = useLiveState(
    useShallow(({ present }) =>
      present.flatMap(({ tab, things: selected }) =>
        tab === TAB ? [] : selected.filter((id) => ID.test(id)),
      ),
    ),
  );
  if (things.length === 0) return null;
  const selectors = things.map((id) => `[data-id="${id}"]`);
  return <style>{`${selectors.join(",")}{box-shadow:inset -3px 0 0 var(--ink2)}`}</style>;
}

/** In the margin: who else has this selected. */
export function OthersAtThis({ selection }: { selection: Selection | null }) {
  const [first] = thingsOf(selection);
  const names = useLiveState(
    useShallow(({ present }) => [
      ...new Set(
        present.flatMap(({ tab, name, things }) =>
          tab !== TAB && first !== undefined && things.includes(first) ? [name] : [],
        ),
      ),
    ]),
  );
  if (names.length === 0) return null;
  return (
    <p role="status" className="border-b border-hair px-4 py-2 text-13 text-ink2">
      {names.join(", ")} {names.length === 1 ? "has" : "have"} this selected, too.
    </p>
  );
}
