"use client";

import { useRef, useState, type KeyboardEvent } from "react";
import { counted } from "@/core/repairs";
import { wallEndName, type PlanIndex, type WallEnd } from "@/core/plan";
import { doorsInOrder, sameEnd, serviceText, wallCell, wallEnds } from "@/core/policy";
import { segmentsInOrder } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
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

/** What may start talking to what: a wall is hatched, a door is blank paper with its services written in it. */
// eslint-disable-next-line max-lines-per-function -- one grid with its keys
export function WallsView() {
  const index = useIndex();
  const select = useUi((state) => state.select);
  const selection = useUi((state) => state.selection);
  const ends = wallEnds(index);
  const [wanted, setAt] = useState({ row: 1, column: 0 });
  const at = { row: Math.min(wanted.row, ends.length - 1), column: Math.min(wanted.column, ends.length - 1) };
  const grid = useRef<HTMLTableElement>(null);
  const chosen = selection?.what === "wall" ? selection : null;
  const closed = ends
    .flatMap((from) => ends.map((to) => wallCell(index, from, to)))
    .filter((cell) => cell.kind === "wall" && cell.door === "closed").length;
  const doors = doorsInOrder(index);
  const go = (row: number, column: number) => {
    const place = {
      row: Math.max(0, Math.min(row, ends.length - 1)),
      column: Math.max(0, Math.min(column, ends.length - 1)),
    };
    setAt(place);
    const [from, to] = [ends[place.row], ends[place.column]];
    if (from !== undefined && to !== undefined && wallCell(index, from, to).kind !== "itself")
      select({ what: "wall", from, to });
    grid.current?.querySelector<HTMLElement>(`[data-cell="${place.row}-${place.column}"]`)?.focus();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const step = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key];
    if (step === undefined) return;
    go(at.row + (step[0] ?? 0), at.column + (step[1] ?? 0));
    event.preventDefault();
  };
  return (
    <main className="sheet">
      <div className="head">
        <h1>Walls</h1>
        <p>the firewall rules in words: what may start talking to what; answers always return</p>
      </div>
      {index.plan.zone.size === 0 ? (
        <p className="max-w-[60ch] p-4 text-15">
          Walls stand between zones, and a zone comes with its first segment. Begin with the segments; until a
          door is opened, everything between zones stays closed.
        </p>
      ) : (
        <div className="min-h-0 flex-1 overflow-auto pb-6" tabIndex={-1}>
          <table
            ref={grid}
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
                      className={`!h-11 !px-[3px] !whitespace-normal text-center align-bottom ${crossed ? "bg-act-wash" : ""}`}
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
                    className={`!pl-4 border-t border-hair text-13 !text-ink ${chosen !== null && sameEnd(chosen.from, from) ? "bg-act-wash" : ""}`}
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
                      choose={() => go(row, column)}
                    />
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          <p className="flex h-8 items-center gap-5 px-4 text-12 text-ink2">
            <span className="inline-flex items-center gap-[6px]">
              <span className="hatched h-[14px] w-[26px] border border-hair" />
              closed, {counted(closed, "pair", "pairs")}
            </span>
            <span className="inline-flex items-center gap-[6px]">
              <span className="h-[14px] w-[26px] border border-hair" />a door,{" "}
              {counted(doors.length, "pair", "pairs")}: “open” or its services
            </span>
            <span className="inline-flex items-center gap-[6px]">
              <span className="h-[14px] w-[26px] border border-hair bg-hair" />
              within one zone
            </span>
          </p>
          <Doors />
        </div>
      )}
    </main>
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
      className={`centre min-w-[44px] cursor-pointer border-l border-hair !px-1 text-12 font-medium ${look} ${crossed && cell.kind === "wall" ? "bg-act-wash" : ""} ${isChosen ? "outline-2 -outline-offset-2 outline-act" : ""}`}
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

/** The doors one under the other, each with its reason; at the end the wall itself. */
function Doors() {
  const index = useIndex();
  const select = useUi((state) => state.select);
  const selection = useUi((state) => state.selection);
  return (
    <table className="table close border-t border-ink" aria-label="Doors">
      <thead>
        <tr>
          <th scope="col">From</th>
          <th scope="col">To</th>
          <th scope="col">Lets through</th>
          <th scope="col">Reason</th>
        </tr>
      </thead>
      <tbody>
        {doorsInOrder(index).map((wall) => {
          const chosen =
            selection?.what === "wall" &&
            sameEnd(selection.from, wall.from) &&
            sameEnd(selection.to, wall.to);
          return (
            <tr key={wall.id} className={chosen ? "selected" : ""}>
              <td>
                <button
                  type="button"
                  className="flex min-h-6 items-center gap-[5px]"
                  onClick={() => select({ what: "wall", from: wall.from, to: wall.to })}
                >
                  <Chips index={index} end={wall.from} />
                  {wallEndName(index, wall.from)}
                </button>
              </td>
              <td>
                <span className="flex items-center gap-[5px]">
                  <Chips index={index} end={wall.to} />
                  {wallEndName(index, wall.to)}
                </span>
              </td>
              <td className="!whitespace-normal font-medium">
                {wall.door === "open" ? "open" : wall.services.map(serviceText).join("; ")}
              </td>
              <td className="!whitespace-normal text-ink2">
                {wall.reason === "" ? "no reason given" : wall.reason}
              </td>
            </tr>
          );
        })}
        <tr>
          <td>any</td>
          <td>any other</td>
          <td className="font-medium">
            <span className="hatched mr-2 inline-block h-3 w-11 border border-rule align-[-2px]" />
            closed
          </td>
          <td className="text-ink2">the wall itself</td>
        </tr>
      </tbody>
    </table>
  );
}
