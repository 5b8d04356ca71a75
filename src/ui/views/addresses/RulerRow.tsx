"use client";

import { clsx } from "clsx";
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

/** The pool of the chosen subnet, whose edges are moved with the pointer or the keys before it is written. */
function usePoolEdges(segment: Segment, ruler: Ruler) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const [moving, setMoving] = useState<{ first: number; last: number } | null>(null);
  const scope = rowScope(index, segment);
  const isSimple = scope?.pools.length === 1 && scope.exclusions.length === 0;
  const written = isSimple ? ruler.pools[0] : undefined;
  const pool = moving ?? (written === undefined ? null : { first: written.first, last: written.last });
  const said = pool === null ? "" : poolWords(ruler, pool);
  const moveTo = (end: End, offset: number) => {
    if (pool === null) return;
    const inside = Math.max(ruler.usable.first, Math.min(offset, ruler.usable.last));
    setMoving(
      end === "first"
        ? { first: Math.min(inside, pool.last), last: pool.last }
        : { first: pool.first, last: Math.max(inside, pool.first) },
    );
  };
  const write = () => {
    const isMoved = moving?.first !== written?.first || moving?.last !== written?.last;
    if (moving !== null && written !== undefined && isMoved) {
      const refusal = edit(movePool({ segment: segment.id, ...moving, said }));
      if (refusal !== null) toast.error(refusal);
    }
    setMoving(null);
  };
  const onKeyDown = (end: End) => (event: KeyboardEvent) => {
    if (pool === null) return;
    const step = STEPS[event.key];
    if (step !== undefined) moveTo(end, pool[end] + step);
    else if (event.key === "Enter") write();
    else if (event.key === "Escape") setMoving(null);
    else return;
    event.preventDefault();
  };
  const shown: Ruler =
    moving === null ? ruler : { ...ruler, pools: [{ ...moving, count: moving.last - moving.first + 1 }] };
  return { pool, shown, said, moveTo, write, onKeyDown };
}

type PoolEdges = ReturnType<typeof usePoolEdges>;
type End = "first" | "last";
const STEPS: Partial<Record<string, number>> = {
  ArrowLeft: -1,
  ArrowDown: -1,
  ArrowRight: 1,
  ArrowUp: 1,
  PageDown: -BIG_STEP,
  PageUp: BIG_STEP,
};

const poolWords = (ruler: Ruler, { first, last }: { first: number; last: number }) =>
  `.${offsetLabel(ruler, first)} to .${offsetLabel(ruler, last)}, count ${last - first + 1}`;

/**
 * One subnet drawn to scale. Of the chosen one the pool's edges can be dragged, or moved with the arrow keys;
 * Enter writes, Esc leaves it.
 */
export function RulerRow({ segment, ruler, width, largest, quiet, chosen, choose }: Props) {
  const drag = useRef<End | null>(null);
  const edges = usePoolEdges(segment, ruler);
  const { pool, shown } = edges;
  const { whole, glass } = layoutOf(ruler, width, largest);
  // The edges are taken on the scale that shows both of them.
  const grip = glass !== null && (pool === null || pool.last <= glass.to) ? glass : whole;
  const height = rulerHeight(chosen);
  const onPointerMove = (event: PointerEvent<SVGSVGElement>) => {
    if (drag.current === null) return;
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left;
    const offset = Math.floor((x - grip.x) / grip.px) + grip.from;
    const isBefore = x < placeOf(grip, offset) + grip.px / 2;
    edges.moveTo(drag.current, drag.current === "last" && isBefore ? offset - 1 : offset);
  };
  const onPointerUp = () => {
    if (drag.current === null) return;
    drag.current = null;
    edges.write();
  };
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="group"
      aria-label={`${segment.name}, ${formatPrefix(ruler.prefix)}`}
      onClick={choose}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      className={clsx(
        "block border-b",
        chosen
          ? "border-act bg-act-wash shadow-[inset_3px_0_0_var(--act)]"
          : "cursor-pointer border-hair hover:bg-hover",
      )}
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
      {glass === null ? null : <Magnified ruler={shown} segment={segment} whole={whole} glass={glass} />}
      <Pins ruler={ruler} whole={whole} fine={glass ?? whole} />
      {chosen && pool !== null ? (
        <PoolMarks
          name={segment.name}
          ruler={ruler}
          edges={edges}
          grip={grip}
          width={width}
          begin={(end) => {
            drag.current = end;
          }}
        />
      ) : null}
    </svg>
  );
}

type Scale = ReturnType<typeof layoutOf>["whole"];

/** The part of a large subnet that is in use, drawn once more and larger. */
function Magnified({
  ruler,
  segment,
  whole,
  glass,
}: {
  ruler: Ruler;
  segment: Segment;
  whole: Scale;
  glass: Scale;
}) {
  const end = placeOf(whole, glass.to + 1) + 1.5;
  return (
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
          `M${end} ${BAR_Y - 2}L${glass.x} ${BAR_Y}` +
          `M${end} ${BAR_Y + BAR_PX + 2}L${glass.x} ${BAR_Y + BAR_PX}`
        }
        stroke="var(--ink2)"
        strokeDasharray="2 2"
        fill="none"
      />
      <RulerBar ruler={ruler} segment={segment} scale={glass} y={BAR_Y} height={BAR_PX} full />
    </>
  );
}

/** Everything with a fixed address, where it lies. */
function Pins({ ruler, whole, fine }: { ruler: Ruler; whole: Scale; fine: Scale }) {
  const list = usePlan((state) => state.list);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const trouble = new Set(
    list.filter((f) => f.family === "addresses").flatMap((f) => f.subjects.map((s) => s.id)),
  );
  return ruler.pins.map((pin) => {
    const on = pin.offset >= fine.from && pin.offset <= fine.to ? fine : whole;
    return (
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
    );
  });
}

/** The pool below the ruler in words, and a handle at each of its edges. */
function PoolMarks({
  name,
  ruler,
  edges,
  grip,
  width,
  begin,
}: {
  name: string;
  ruler: Ruler;
  edges: PoolEdges;
  grip: Scale;
  width: number;
  begin: (end: End) => void;
}) {
  const { pool, said } = edges;
  if (pool === null) return null;
  const [from, to] = [placeOf(grip, pool.first), placeOf(grip, pool.last + 1)];
  const below = BAR_Y + BAR_PX;
  const handle = (end: End, x: number) => (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`${name}: ${end} address of the pool`}
      aria-valuemin={ruler.usable.first}
      aria-valuemax={ruler.usable.last}
      aria-valuenow={pool[end]}
      aria-valuetext={said}
      className="cursor-ew-resize outline-none focus-visible:[&>rect:last-child]:fill-ink"
      onKeyDown={edges.onKeyDown(end)}
      onBlur={edges.write}
      onPointerDown={(event) => {
        begin(end);
        event.currentTarget.ownerSVGElement?.setPointerCapture(event.pointerId);
        event.currentTarget.focus();
        event.preventDefault();
      }}
    >
      <rect x={x - 12} y={BAR_Y - 6} width={24} height={BAR_PX + 12} fill="transparent" />
      <rect x={x - 2} y={BAR_Y - 4} width={4} height={BAR_PX + 8} rx={1} fill="var(--act)" />
    </g>
  );
  return (
    <>
      <path
        d={`M${from} ${below + 28.5}H${to}M${from + 0.5} ${below + 24}v9M${to - 0.5} ${below + 24}v9`}
        stroke="var(--act)"
        fill="none"
      />
      <text
        x={Math.min((from + to) / 2, width - 90)}
        y={below + 39}
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
  );
}
