"use client";

import { useMemo, useRef } from "react";
import { nameOf, type PlanIndex } from "@/core/plan";
import type { Runbook, Step } from "@/core/runbook";
import { useWidth } from "../../kit/use-width";

const NAMES = 150;
const LANE = 26;
const TOP = 30;
const WIDEST = 15;

/** Steps in a row in which the laptop reaches a device, both included; or in between, where it comes back. */
interface Run {
  readonly first: number;
  readonly last: number;
  readonly isCut: boolean;
}

/** The runs of a device: the jackets where it is reached, and the cuts between them. */
function runsOf(steps: readonly Step[], device: string): Run[] {
  const runs: Run[] = [];
  for (const [at, { reaches }] of steps.entries()) {
    if (!reaches.has(device)) continue;
    const before = runs.at(-1);
    if (before !== undefined && before.last === at - 1) runs[runs.length - 1] = { ...before, last: at };
    else {
      if (before !== undefined) runs.push({ first: before.last + 1, last: at - 1, isCut: true });
      runs.push({ first: at, last: at, isCut: false });
    }
  }
  return runs;
}

interface LanesProps {
  readonly index: PlanIndex;
  readonly runbook: Runbook;
  readonly at: number | null;
}

/**
 * The proof as a picture: a device is a row, a step a column; the jacket is there while the laptop reaches the
 * device. The rules that stand upright are moves of the laptop.
 */
export function Lanes({ index, runbook, at }: LanesProps) {
  const { devices, steps } = runbook;
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 740);
  const step = Math.min(WIDEST, Math.max(2, (width - NAMES - 24) / Math.max(1, steps.length)));
  const x = (number: number) => NAMES + number * step;
  const lanes = useMemo(
    () => devices.map((device) => ({ device, runs: runsOf(steps, device.id) })),
    [devices, steps],
  );
  const moves = steps.flatMap(({ kind, card }, number) =>
    kind === "move" && card !== null ? [{ number, port: card.port }] : [],
  );
  const height = TOP + devices.length * LANE + 38;
  return (
    <div
      ref={box}
      className="max-h-[285px] flex-none overflow-auto border-b border-ink print:max-h-none"
      tabIndex={0}
      role="group"
      aria-label="Which devices the laptop reaches after each step"
    >
      <svg
        width={Math.max(width, x(steps.length) + 16)}
        height={height}
        role="img"
        aria-label={
          `${steps.length} steps, ${devices.length} devices; the laptop is plugged in ` +
          `${moves.length} times. The table below says the same in words.`
        }
        className="block text-12"
      >
        <text x={16} y={18} fill="var(--ink2)">
          The laptop reaches
        </text>
        {moves.map(({ number, port }, i) => (
          <g key={number}>
            <path d={`M${x(number) + 0.5} 8V${height - 34}`} stroke="var(--rule)" />
            {x(moves[i + 1]?.number ?? steps.length) - x(number) > 70 ? (
              <text x={x(number) + 5} y={18} fontWeight={600} fill="var(--ink)">
                {shortly(nameOf(index, "port", port), x(moves[i + 1]?.number ?? steps.length) - x(number))}
              </text>
            ) : null}
          </g>
        ))}
        {lanes.map(({ device, runs }, row) => (
          <Lane key={device.id} name={device.name} runs={runs} row={row} step={step} end={steps.length} />
        ))}
        <text x={Math.max(width, x(steps.length)) - 8} y={height - 6} textAnchor="end" fill="var(--ink2)">
          dashed: out of reach from there, and back later
        </text>
        {at === null ? null : (
          <g>
            <rect
              x={x(at) - 0.5}
              y={TOP - 6}
              width={Math.max(4, step)}
              height={devices.length * LANE + 8}
              fill="none"
              stroke="var(--act)"
              strokeWidth={2}
            />
            <text x={x(at) + step / 2} y={height - 21} textAnchor="middle" fontWeight={700} fill="var(--act)">
              {at + 1}
            </text>
          </g>
        )}
      </svg>
    </div>
  );
}

/** As much of a name as there is room for. */
function shortly(name: string, room: number): string {
  const most = Math.floor(room / 7);
  return name.length <= most ? name : `${name.slice(0, Math.max(1, most - 1))}…`;
}

interface LaneProps {
  readonly name: string;
  readonly runs: readonly Run[];
  readonly row: number;
  readonly step: number;
  readonly end: number;
}

function Lane({ name, runs, row, step, end }: LaneProps) {
  const y = TOP + row * LANE;
  return (
    <g>
      <text x={16} y={y + 14} fontWeight={600} fill="var(--ink)">
        {shortly(name, NAMES - 20)}
      </text>
      <path d={`M${NAMES} ${y + 9.5}H${NAMES + end * step}`} stroke="var(--hair)" />
      {runs.map(({ first, last, isCut }) => (
        <rect
          key={first}
          x={NAMES + first * step + 1}
          y={y + 1.5}
          width={Math.max(1, (last - first + 1) * step - 2)}
          height={16}
          fill={isCut ? "none" : "var(--jacket)"}
          stroke={isCut ? "var(--warn)" : "none"}
          strokeDasharray={isCut ? "3 2" : undefined}
        />
      ))}
    </g>
  );
}
