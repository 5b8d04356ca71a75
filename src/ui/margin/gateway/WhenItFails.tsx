"use client";

import { useMemo } from "react";
import type { Line } from "@/core/plan";
import { whenLineFails } from "@/core/ways-in";
import { ProgressSign, severityColour, SeveritySign } from "../../kit/signs";
import { useIndex } from "../../plan-store/use-plan";
import { Section } from "../parts";

/** What still works on the next line when this one fails, each tried with a packet or summed up. */
export function WhenItFails({ line }: { line: Line }) {
  const index = useIndex();
  const { next, noticed, things } = useMemo(() => whenLineFails(index, line), [index, line]);
  return (
    <Section title="When it fails">
      <p className="px-4">{takesOver(line, next, noticed)}</p>
      {things.length === 0 ? null : (
        <ul className="flex flex-col gap-1 px-4 pt-2">
          {things.map(({ what, works, says }) => (
            <li key={`${what} ${says}`} className="flex gap-2">
              <span className={`mt-[3px] flex-none ${works ? "text-sound" : severityColour("warn")}`}>
                {works ? <ProgressSign progress="sound" /> : <SeveritySign severity="warn" />}
              </span>
              <span>
                <b className="font-semibold">{what}</b> <span className="text-ink2">{says}</span>
              </span>
            </li>
          ))}
        </ul>
      )}
    </Section>
  );
}

function takesOver({ watch }: Line, next: Line | null, noticed: boolean): string {
  if (next === null) return "No other line takes over: nothing goes out.";
  return noticed
    ? `${next.name} takes over after ${watch.afterSeconds} s.`
    : `The loss is not noticed: ${next.name} does not take over until somebody switches over.`;
}
