"use client";

import { movePool } from "@/core/commands";
import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { toast } from "sonner";
import { formatPrefix } from "@/core/address";
import type { Segment } from "@/core/plan";
import { rowScope, type Ruler } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Band, Mark } from "../../tape/Band";
import { PinMark, RulerBar } from "./RulerBar";
import { layoutOf, offsetLabel, placeOf } from "./ruler-scale";

const BAR_Y = 30;
const BAR_PX = 18;
const HEIGHT_PX = 74;
const CHOSEN_HEIGHT_PX = 92;
const BIG_STEP = 10;

export const rulerHeight = (chosen: boolean): number => (chosen ? CHOSEN_HEIGHT_PX : HEIGHT_PX);

interface Props {
  readonly segment: Segment;
  readonly ruler: Ruler;
  readonly width: number;
  readonly largest: number;
  readonly quiet: string;
  readonly chosen: boolean;
  readonly choose: () => void;
}

/**
 * One subnet drawn to scale. Of the chosen one the pool's edges can be dragged, or moved with the arrow keys;
 * Enter writes, Esc leaves it.
 */
export function RulerRow({ segment, ruler, width, largest, quiet, chosen, choose }: Props) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const list = usePlan((state) => state.list);
  const select = useUi((state) => state.select);
  const selection = useUi((state) => state.selection);
  const [moving, setMoving] = useState<{ first: number; last: number } | null>(null);
  const drag = useRef<"first" | "last" | null>(null);
  const scope = rowScope(index, segment);
  const simple =
    scope !== undefined && scope.pools.length === 1 && scope.exclusions.length === 0
      ? ruler.pools[0]
      : undefined;
  const pool = moving ?? (simple === undefined ? null : { first: simple.first, last: simple.last });
  const shown: Ruler =
    pool === null || moving === null
      ? ruler
      : { ...ruler, pools: [{ ...pool, count: pool.last - pool.first + 1 }] };
  const { whole, glass } = layoutOf(ruler, width, largest);
  const fine = glass ?? whole;
  // The edges are taken on the scale that shows both of them.
  const grip = glass !== null && (pool === null || pool.last <= glass.to) ? glass : whole;
  const height = rulerHeight(chosen);
  const trouble = new Set(
    list.filter((f) => f.family === "addresses").flatMap((f) => f.subjects.map((s) => s.id)),
  );
  const said =
    pool === null
      ? ""
      : `.${offsetLabel(ruler, pool.first)} to ` +
        `.${offsetLabel(ruler, pool.last)}, count ${pool.last - pool.first + 1}`;

  const moveTo = (end: "first" | "last", offset: number) => {
    if (pool === null) return;
    const inside = Math.max(ruler.usable.first, Math.min(offset, ruler.usable.last));
    setMoving(
      end === "first"
        ? { first: Math.min(inside, pool.last), last: pool.last }
        : { first: pool.first, last: Math.max(inside, pool.first) },
    );
  };
  const write = () => {
    if (
      moving !== null &&
      simple !== undefined &&
      (moving.first !== simple.first || moving.last !== simple.last)
    ) {
      const refusal = edit(movePool({ segment: segment.id, ...moving, said }));
      if (refusal !== null) toast.error(refusal);
    }
    setMoving(null);
  };
  const onKeyDown = (end: "first" | "last") => (event: KeyboardEvent) => {
    if (pool === null) return;
    const step = {
      ArrowLeft: -1,
      ArrowDown: -1,
      ArrowRight: 1,
      ArrowUp: 1,
      PageDown: -BIG_STEP,
      PageUp: BIG_STEP,
    }[event.key];
    if (step !== undefined) moveTo(end, pool[end] + step);
    else if (event.key === "Enter") write();
    else if (event.key === "Escape") setMoving(null);
    else return;
    event.preventDefault();
  };
  const onPointerMove = (event: PointerEvent<SVGSVGElement>) => {
    if (drag.current === null) return;
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left;
    const offset = Math.floor((x - grip.x) / grip.px) + grip.from;
    moveTo(
      drag.current,
      drag.current === "last" ? offset - (x < placeOf(grip, offset) + grip.px / 2 ? 1 : 0) : offset,
    );
  };
  const handle = (end: "first" | "last", x: number) => (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`${segment.name}: ${end === "first" ? "first" : "last"} address of the pool`}
      aria-valuemin={ruler.usable.first}
      aria-valuemax={ruler.usable.last}
      aria-valuenow={pool?.[end] ?? 0}
      aria-valuetext={said}
      className="cursor-ew-resize outline-none focus-visible:[&>rect:last-child]:fill-ink"
      onKeyDown={onKeyDown(end)}
      onBlur={write}
      onPointerDown={(event) => {
        drag.current = end;
        event.currentTarget.ownerSVGElement?.setPointerCapture(event.pointerId);
        event.currentTarget.focus();
        event.preventDefault();
      }}
    >
      <rect x={x - 12} y={BAR_Y - 6} width={24} height={BAR_PX + 12} fill="transparent" />
      <rect x={x - 2} y={BAR_Y - 4} width={4} height={BAR_PX + 8} rx={1} fill="var(--act)" />
    </g>
  );
  const [from, to] = pool === null ? [0, 0] : [placeOf(grip, pool.first), placeOf(grip, pool.last + 1)];
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="group"
      aria-label={`${segment.name}, ${formatPrefix(ruler.prefix)}`}
      onClick={choose}
      onPointerMove={onPointerMove}
      onPointerUp={() => {
        if (drag.current !== null) {
          drag.current = null;
          write();
        }
      }}
      className={`block border-b ${chosen ? "border-act bg-act-wash shadow-[inset_3px_0_0_var(--act)]" : "cursor-pointer border-hair hover:bg-hover"}`}
    >
      <g transform="translate(16 22)">
        <Band tape={segment.tape} x={0} width={28} height={18} />
        <Mark tape={{ ...segment.tape, mark: segment.mark }} x={14} height={18} />
      </g>
      <text x={50} y={36} fontSize={13} fontWeight={600} fill="var(--ink)">
        {segment.name.length > 12 ? `${segment.name.slice(0, 11)}…` : segment.name}
      </text>
      <text x={16} y={57} fontSize={12} className="mono" fill="var(--ink2)">
        {formatPrefix(ruler.prefix).slice(quiet.length)}
      </text>
      <RulerBar ruler={shown} segment={segment} scale={whole} y={BAR_Y} height={BAR_PX} full={false} />
      {glass === null ? null : (
        <>
          <rect
            x={whole.x - 1.5}
            y={BAR_Y - 2.5}
            width={(glass.to + 1) * whole.px + 3}
            height={BAR_PX + 5}
            fill="none"
            stroke="var(--ink2)"
            strokeDasharray="2 2"
          />
          <path
            d={
              `M${placeOf(whole, glass.to + 1) + 1.5} ${BAR_Y - 2}L${glass.x} ` +
              `${BAR_Y}M${placeOf(whole, glass.to + 1) + 1.5} ` +
              `${BAR_Y + BAR_PX + 2}L${glass.x} ${BAR_Y + BAR_PX}`
            }
            stroke="var(--ink2)"
            strokeDasharray="2 2"
            fill="none"
          />
          <RulerBar ruler={shown} segment={segment} scale={glass} y={BAR_Y} height={BAR_PX} full />
        </>
      )}
      {ruler.pins
        .map((pin) => ({ pin, on: pin.offset >= fine.from && pin.offset <= fine.to ? fine : whole }))
        .map(({ pin, on }) => (
          <PinMark
            key={pin.id}
            pin={pin}
            x={placeOf(on, pin.offset) + on.px / 2}
            top={BAR_Y - 14}
            base={BAR_Y}
            chosen={selection !== null && "id" in selection && selection.id === pin.id}
            trouble={trouble.has(pin.id)}
            choose={() =>
              select(pin.manner === "gear" ? { what: "interface", id: pin.id } : { what: "host", id: pin.id })
            }
          />
        ))}
      {chosen && pool !== null ? (
        <>
          <path
            d={
              `M${from} ${BAR_Y + BAR_PX + 28.5}H${to}M${from + 0.5} ` +
              `${BAR_Y + BAR_PX + 24}v9M${to - 0.5} ${BAR_Y + BAR_PX + 24}v9`
            }
            stroke="var(--act)"
            fill="none"
          />
          <text
            x={Math.min((from + to) / 2, width - 90)}
            y={BAR_Y + BAR_PX + 39}
            textAnchor="middle"
            fontSize={13}
            fontWeight={600}
            fill="var(--act)"
          >
            {said}
          </text>
          {handle("first", from)}
          {handle("last", to)}
        </>
      ) : null}
    </svg>
  );
}
