"use client";

import { sameEnd } from "@/core/policy";
import { ruleRows, type RuleEnd, type RuleRow } from "@/core/sheets";
import type { PlannedList } from "@/core/walls";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";

/** The rules that a device's walls need, each with what it is for. */
export function PlannedTable({ planned }: { planned: PlannedList }) {
  const index = useIndex();
  const select = useUi((state) => state.select);
  const selection = useUi((state) => state.selection);
  const serves = (row: RuleRow) =>
    selection?.what === "wall" &&
    row.walls.some((wall) => sameEnd(wall.from, selection.from) && sameEnd(wall.to, selection.to));
  return (
    <table className="table close lead" aria-label="Rules that the walls need">
      <thead>
        <tr>
          <th scope="col">Rule</th>
          <th scope="col">From</th>
          <th scope="col">To</th>
          <th scope="col">Lets through</th>
          <th scope="col">Reason</th>
        </tr>
      </thead>
      <tbody>
        {ruleRows(index, planned).map((row) => {
          const [wall] = row.walls;
          return (
            <tr key={row.number} className={serves(row) ? "selected" : ""}>
              <td className="mono">
                {wall === undefined ? (
                  row.number
                ) : (
                  <button
                    type="button"
                    className="min-h-6 min-w-6 text-left underline decoration-hair underline-offset-2"
                    aria-label={`Rule ${row.number}: show its wall`}
                    onClick={() => select({ what: "wall", from: wall.from, to: wall.to })}
                  >
                    {row.number}
                  </button>
                )}
              </td>
              <td>
                <RuleEnds ends={row.from} />
              </td>
              <td>
                <RuleEnds ends={row.to} />
              </td>
              <td className="!whitespace-normal font-medium">
                {row.closes ? (
                  <>
                    <span className="hatched mr-2 inline-block h-3 w-11 border border-rule align-[-2px]" />
                    closed
                  </>
                ) : (
                  row.lets
                )}
              </td>
              <td className="!whitespace-normal text-ink2">
                {row.when === "" ? null : <b className="mono mr-2 font-semibold text-ink">{row.when}</b>}
                {row.reason}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const MOST_IN_A_ROW = 4;

/** The ends of a rule: segments as tape, anything else in words. */
function RuleEnds({ ends }: { ends: readonly RuleEnd[] }) {
  if (ends.length === 0) return <>any</>;
  return (
    <span
      className={`flex items-center gap-[3px] ${ends.length > MOST_IN_A_ROW ? "min-w-[154px] flex-wrap" : ""}`}
    >
      {ends.map(({ segment, only }) =>
        segment === null ? (
          <span key={only}>{only}</span>
        ) : (
          <span key={segment.id} className="inline-flex items-center gap-1" title={segment.name}>
            <SegmentChip segment={segment} height={16} />
            {only === null ? null : <span className="mono">{only}</span>}
          </span>
        ),
      )}
    </span>
  );
}
