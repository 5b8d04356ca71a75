import type { ReactNode } from "react";
import type { Reading } from "@/core/survey";

/**
 * A room's line as it was typed: numbers bold, what was taken for a mistake of typing dotted, what could not
 * be read in the stop colour.
 */
export function NeedsText({ line, readings }: { line: string; readings: readonly Reading[] }) {
  const parts: ReactNode[] = [];
  let at = 0;
  for (const reading of readings) {
    parts.push(line.slice(at, reading.start));
    const text = line.slice(reading.start, reading.end);
    const number = /^\d+/.exec(text)?.[0] ?? "";
    const rest = text.slice(number.length);
    const doubt = reading.guessed ? "border-b-2 border-dotted border-ink2" : "";
    const look = reading.problem === null ? doubt : "border-b-2 border-dotted border-stop text-stop";
    parts.push(
      <span
        key={reading.start}
        className={look}
        title={reading.problem ?? (reading.readAs === null ? undefined : `read as ${reading.readAs}`)}
      >
        <b className="font-bold">{number}</b>
        {rest}
      </span>,
    );
    at = reading.end;
  }
  parts.push(line.slice(at));
  return <span className="whitespace-normal">{parts}</span>;
}
