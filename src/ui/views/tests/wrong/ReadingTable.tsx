"use client";

import { clsx } from "clsx";
import { onPlan, outcomeText, type Answer } from "@/core/diagnosis";
import type { PlanIndex } from "@/core/plan";
import type { readingsOf } from "@/core/records";
import { whenText } from "../../../kit/when-text";

export type Standing = ReturnType<typeof readingsOf>;

/** What was read, as far as it fits a cell. */
const readText = ({ came, read, note }: Standing[number]["taken"]): string =>
  came === "expected" ? "as planned" : read || note || "otherwise";

/** The readings that are laid beside faults, numbered as the columns below. */
export function ReadingTable({
  index,
  answer,
  standing,
  shown,
}: {
  index: PlanIndex;
  answer: Answer;
  standing: Standing;
  shown: readonly number[];
}) {
  const wrong = answer.isAsPlanned.filter((isAsPlanned) => !isAsPlanned).length;
  const left = standing.length - shown.length;
  return (
    <section aria-label="What was read" className="border-b border-ink">
      <p className="px-4 py-2 text-13 text-ink2">
        {standing.length} {standing.length === 1 ? "reading" : "readings"}, {wrong} of them not as planned
        {left === 0 ? "" : `; ${left} more that are as planned count, too`}
      </p>
      <div className="overflow-x-auto">
        <table className="w-full text-13">
          <thead>
            <tr className="text-left text-ink2">
              {["", "Where", "Done", "Has to be", "Read", "Who, when"].map((head) => (
                <th key={head} scope="col" className="px-2 py-1 font-medium first:pl-4">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {shown.map((at, number) => {
              const [reading, asked] = [standing[at], answer.asked[at]];
              if (reading === undefined || asked === undefined) return null;
              const isRight = answer.isAsPlanned[at] === true;
              const planned = onPlan(index, reading.reading.ask).expected;
              return (
                <tr key={reading.taken.id} className="border-t border-hair align-top">
                  <td className="py-1 pl-4 font-semibold">{number + 1}</td>
                  <td className="px-2 py-1">{asked.at}</td>
                  <td className="px-2 py-1">{reading.taken.test.does}</td>
                  <td className="mono px-2 py-1 text-12">{outcomeText(index, planned, planned)}</td>
                  <td
                    className={clsx(
                      "mono min-w-32 px-2 py-1 text-12 whitespace-pre-wrap [overflow-wrap:anywhere]",
                      isRight ? "" : "font-semibold text-stop",
                    )}
                  >
                    {readText(reading.taken)}
                  </td>
                  <td className="px-2 py-1 text-ink2">
                    {reading.by} {whenText(reading.taken.at, index.plan.site.timeZone)}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </section>
  );
}
