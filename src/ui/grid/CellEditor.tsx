import { clsx } from "clsx";
import { useEffect, useId, useRef, type ReactNode } from "react";
import type { Grid } from "./use-grid";
import type { Editing } from "./use-writing";

interface Props {
  readonly editing: Editing;
  readonly grid: Grid;
  readonly label: string;
  readonly offers: readonly string[];
  readonly right: boolean;
  readonly reading: ReactNode;
}

/** The open cell: a text field over it, and below it the sentence why what was typed can't stand. */
export function CellEditor({ editing, grid, label, offers, right, reading }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const list = useId();
  const message = useId();
  const below = useRef<HTMLDivElement>(null);
  const read = reading !== undefined && reading !== null;
  // On the last rows in sight the reading would lie under the edge.
  useEffect(() => {
    if (read) below.current?.scrollIntoView({ block: "nearest", inline: "nearest" });
  }, [read]);
  useEffect(() => {
    const field = input.current;
    field?.focus();
    // Typing began with one character: it must not be selected, or the next one would replace it.
    if (field !== null)
      field.setSelectionRange(field.value.length > 1 ? 0 : field.value.length, field.value.length);
  }, []);
  return (
    <div className="absolute inset-0 z-20">
      <input
        ref={input}
        value={editing.text}
        aria-label={label}
        aria-invalid={editing.refusal !== null}
        aria-describedby={editing.refusal === null ? undefined : message}
        list={offers.length > 0 ? list : undefined}
        onChange={(event) => grid.type(event.target.value)}
        onBlur={() => grid.finish(null)}
        onDoubleClick={(event) => event.stopPropagation()}
        onMouseDown={(event) => event.stopPropagation()}
        autoComplete="off"
        spellCheck={false}
        className={clsx(
          "h-full w-full min-w-[72px] border-2 bg-panel px-1 outline-none",
          editing.refusal === null ? "border-act" : "border-stop",
          right ? "text-right" : "",
        )}
      />
      {offers.length > 0 ? (
        <datalist id={list}>
          {offers.map((offer) => (
            <option key={offer} value={offer} />
          ))}
        </datalist>
      ) : null}
      {read ? (
        <div
          ref={below}
          role="status"
          className={clsx(
            "absolute top-full left-0 z-20 min-w-full border border-act bg-act-wash px-2 py-[6px]",
            "text-left font-sans font-normal whitespace-normal",
          )}
        >
          {reading}
        </div>
      ) : null}
      {editing.refusal === null ? null : (
        <p
          id={message}
          role="alert"
          className={clsx(
            "absolute top-full z-30 mt-[2px] w-72 border border-stop bg-stop-wash p-2 text-left",
            "font-sans text-13 font-normal whitespace-normal text-stop",
            right ? "right-0" : "left-0",
          )}
        >
          {editing.refusal}
        </p>
      )}
    </div>
  );
}
