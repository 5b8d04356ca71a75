"use client";

import { clsx } from "clsx";
import { dropProbe, expectProbe } from "@/core/commands";
import { useMemo } from "react";
import { v7 } from "uuid";
import { counted } from "@/core/repairs";
import { byNaturalText } from "@/core/kernel";
import type { Expectation } from "@/core/plan";
import { askKept } from "@/core/probe";
import { useUi } from "../../frame/use-ui";
import { SeveritySign } from "../../kit/signs";
import { useIndex, usePlan } from "../../plan-store/use-plan";

/** The probes that are kept with what has to come of them, all asked again on the plan as it is now. */
// eslint-disable-next-line max-lines-per-function -- one table with its tools
export function KeptPanel() {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const set = useUi((state) => state.set);
  const results = useMemo(
    () =>
      [...index.plan.expectation.values()]
        .sort((a, b) => byNaturalText(a.name, b.name))
        .map((kept) => ({ kept, result: askKept(index, kept, v7) })),
    [index],
  );
  if (results.length === 0)
    return (
      <p className="max-w-[60ch] p-4 text-15">
        A probe that is kept is asked again after every change: “the card terminal reaches its bank”, “a guest
        never reaches the gear”. Ask one journey, then choose Keep.
      </p>
    );
  const broken = results.filter(({ result }) => !result.holds).length;
  const show = ({ question }: Expectation) =>
    set({
      probe: { from: question.from, as: question.as, family: question.family, goal: question.goal },
      probeWay: "journey",
    });
  const turn = (kept: Expectation) => edit(expectProbe({ probe: kept.id, passes: !kept.passes }));
  const drop = (kept: Expectation) => edit(dropProbe({ probe: kept.id }));
  return (
    <div className="min-h-0 flex-1 overflow-auto pb-6" tabIndex={-1}>
      <p
        role="status"
        className={clsx(
          "flex items-center gap-2 px-4 py-2 text-15 font-semibold",
          broken === 0 ? "text-sound" : "text-stop",
        )}
      >
        {broken === 0 ? (
          `✓ ${counted(results.length, "kept probe comes", "kept probes come")} ` +
          `out as ${results.length === 1 ? "it has" : "they have"} to`
        ) : (
          <>
            <SeveritySign severity="stop" />
            {broken} of {results.length} come out otherwise
          </>
        )}
      </p>
      <table className="table" aria-label="Kept probes">
        <thead>
          <tr>
            <th scope="col" className="!pl-4">
              probe
            </th>
            <th scope="col">has to</th>
            <th scope="col">now</th>
            <th scope="col">
              <span className="sr-only">do</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {results.map(({ kept, result }) => (
            <tr key={kept.id}>
              <td className="!pl-4 !whitespace-normal">
                <button type="button" className="text-left hover:underline" onClick={() => show(kept)}>
                  {kept.name}
                </button>
              </td>
              <td>
                <button
                  type="button"
                  className="button"
                  title="Turn round what has to come of it"
                  onClick={() => turn(kept)}
                >
                  {kept.passes ? "pass" : "be stopped"}
                </button>
              </td>
              <td className={`max-w-[52ch] !whitespace-normal ${result.holds ? "" : "text-stop"}`}>
                {result.holds ? "✓ " : ""}
                {result.says}
              </td>
              <td className="text-right">
                <button
                  type="button"
                  className="button"
                  aria-label={`Keep ${kept.name} no longer`}
                  onClick={() => drop(kept)}
                >
                  Drop
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
