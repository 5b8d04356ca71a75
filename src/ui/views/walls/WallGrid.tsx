"use client";

import { clsx } from "clsx";
import { wallEndName, type PlanIndex, type WallEnd } from "@/core/plan";
import { sameEnd, wallCell, wallEnds } from "@/core/policy";
import { segmentsInOrder } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import { useCells } from "../../grid/use-cells";
import { useIndex } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";

const MOST_CHIPS = 4;

/** The segments of an end as tape; the internet and the gateway have none. */
function Chips({ index, end }: { index: PlanIndex; end: WallEnd }) {
  const segments =
    end.at === "zone" ? segmentsInOrder(index).filter((segment) => segment.zone === end.zone) : [];
  return (
    <>
      {segments.slice(0, MOST_CHIPS).map((segment) => (
        <SegmentChip key={segment.id} segment={segment} height={16} />
      ))}
      {segments.length > MOST_CHIPS ? (
        <span className="text-12 text-ink2">+{segments.length - MOST_CHIPS}</span>
      ) : null}
    </>
  );
}

/** The grid of all pairs: a wall is hatched, a door is blank paper with its services written in it. */
export function WallGrid() {
  const index = useIndex();
  const select = useUi((state) => state.select);
  const selection = useUi((state) => state.selection);
  const ends = wallEnds(index);
  const chosen = selection?.what === "wall" ? selection : null;
  const last = { row: ends.length - 1, column: ends.length - 1 };
  const { table, at, go, onKeyDown } = useCells(last, { row: 1, column: 0 }, (place) => {
    const [from, to] = [ends[place.row], ends[place.column]];
    if (from !== undefined && to !== undefined && wallCell(index, from, to).kind !== "itself")
      select({ what: "wall", from, to });
  });
  return (
    <table
      ref={table}
      role="grid"
      aria-label="Walls between zones"
      className="table close still lead !w-auto min-w-full"
      onKeyDown={onKeyDown}
    >
      <thead>
        <tr>
          <th scope="col" className="align-bottom">
            from \ to
          </th>
          {ends.map((end) => {
            const crossed = chosen !== null && sameEnd(chosen.to, end);
            return (
              <th
                key={wallEndName(index, end)}
                scope="col"
                className={clsx(
                  "!h-11 !px-[3px] !whitespace-normal text-center align-bottom",
                  crossed ? "bg-act-wash" : "",
                )}
              >
                <span className="flex flex-col items-center gap-1 text-ink">
                  <span className="flex gap-[3px]">
                    <Chips index={index} end={end} />
                  </span>
                  {wallEndName(index, end)}
                </span>
              </th>
            );
          })}
        </tr>
      </thead>
      <tbody>
        {ends.map((from, row) => (
          <tr key={wallEndName(index, from)}>
            <th
              scope="row"
              className={clsx(
                "!pl-4 border-t border-hair text-13 !text-ink",
                chosen !== null && sameEnd(chosen.from, from) ? "bg-act-wash" : "",
              )}
            >
              <span className="flex items-center gap-[5px]">
                <Chips index={index} end={from} />
                {wallEndName(index, from)}
              </span>
            </th>
            {ends.map((to, column) => (
              <WallGridCell
                key={wallEndName(index, to)}
                index={index}
                from={from}
                to={to}
                place={`${row}-${column}`}
                tabbable={at.row === row && at.column === column}
                isChosen={chosen !== null && sameEnd(chosen.from, from) && sameEnd(chosen.to, to)}
                crossed={chosen !== null && (sameEnd(chosen.from, from) || sameEnd(chosen.to, to))}
                choose={() => go({ row, column })}
              />
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

interface CellProps {
  readonly index: PlanIndex;
  readonly from: WallEnd;
  readonly to: WallEnd;
  readonly place: string;
  readonly tabbable: boolean;
  readonly isChosen: boolean;
  readonly crossed: boolean;
  readonly choose: () => void;
}

const doorLook = (door: string) => (door === "closed" ? "hatched" : "");

function cellText(cell: ReturnType<typeof wallCell>): string {
  if (cell.kind === "itself") return "itself";
  if (cell.kind === "inside") return cell.open ? "open inside" : "kept apart inside";
  return cell.text;
}

function WallGridCell({ index, from, to, place, tabbable, isChosen, crossed, choose }: CellProps) {
  const cell = wallCell(index, from, to);
  const look = cell.kind === "wall" ? doorLook(cell.door) : "bg-hair";
  const text = cellText(cell);
  return (
    <td
      role="gridcell"
      data-cell={place}
      tabIndex={tabbable ? 0 : -1}
      aria-selected={isChosen}
      aria-label={`${wallEndName(index, from)} to ${wallEndName(index, to)}: ${text}`}
      className={clsx(
        "centre min-w-[44px] cursor-pointer border-l border-hair !px-1 text-12 font-medium",
        look,
        crossed && cell.kind === "wall" ? "bg-act-wash" : "",
        isChosen ? "outline-2 -outline-offset-2 outline-act" : "",
      )}
      onMouseDown={(event) => {
        event.preventDefault();
        choose();
      }}
    >
      {cell.kind === "wall" && cell.door !== "closed" ? (
        <span className="block max-w-[132px] truncate">{cell.text}</span>
      ) : null}
      {cell.kind === "inside" && cell.open ? <span>inside</span> : null}
    </td>
  );
}
