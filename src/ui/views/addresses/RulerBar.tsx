import type { Segment } from "@/core/plan";
import type { Pin, Ruler } from "@/core/sheets";
import { numberStep, offsetLabel, placeOf, shownPart, type Scale } from "./ruler-scale";

/**
 * The bar of a ruler on one scale: gateway, static block, pool in the segment's tape, ticks and numbers
 * below.
 */
// eslint-disable-next-line max-lines-per-function -- one bar, drawn from left to right
export function RulerBar({
  ruler,
  segment,
  scale,
  y,
  height,
  full,
}: {
  ruler: Ruler;
  segment: Segment;
  scale: Scale;
  y: number;
  height: number;
  full: boolean;
}) {
  const left = placeOf(scale, scale.from);
  const width = (scale.to - scale.from + 1) * scale.px;
  const fixed = ruler.staticBlock === null ? null : shownPart(scale, ruler.staticBlock);
  const step = numberStep(scale.px);
  const numbers = Array.from(
    { length: Math.ceil((scale.to - scale.from + 1) / step) },
    (_, i) => scale.from + i * step,
  );
  return (
    <>
      <rect
        x={left + 0.5}
        y={y + 0.5}
        width={Math.max(1, width - 1)}
        height={height - 1}
        fill="var(--panel)"
        stroke="var(--rule)"
      />
      {fixed === null ? null : (
        <rect
          x={fixed.x}
          y={y + 0.5}
          width={fixed.width}
          height={height - 1}
          fill="url(#static-block)"
          stroke="var(--ink2)"
        />
      )}
      {ruler.pools.map((pool) => {
        const part = shownPart(scale, pool);
        if (part === null) return null;
        const text = full ? `pool ${pool.count}` : String(pool.count);
        return (
          <g key={pool.first}>
            <rect
              x={part.x}
              y={y + 0.5}
              width={part.width}
              height={height - 1}
              fill={`var(--tape-${segment.tape.base})`}
              stroke="var(--tape-edge)"
            />
            {segment.tape.tracer === null ? null : (
              <rect
                x={part.x + 0.5}
                y={y + height - 5}
                width={Math.max(0, part.width - 1)}
                height={2.5}
                fill={`var(--tape-${segment.tape.tracer})`}
              />
            )}
            {part.width > text.length * 7 + 8 ? (
              <text
                x={part.x + part.width / 2}
                y={y + height / 2 + 4.2 - (segment.tape.tracer === null ? 0 : 1.5)}
                textAnchor="middle"
                fontSize={12}
                fontWeight={600}
                fill={`var(--tape-${segment.tape.base}-on)`}
              >
                {text}
              </text>
            ) : null}
          </g>
        );
      })}
      {ruler.gateways.map((offset) =>
        offset < scale.from || offset > scale.to ? null : (
          <rect
            key={offset}
            x={placeOf(scale, offset)}
            y={y}
            width={Math.max(scale.px, 2)}
            height={height}
            fill="var(--ink)"
          />
        ),
      )}
      {numbers.map((offset) => {
        const x = placeOf(scale, offset) + Math.min(scale.px, 24) / 2;
        return (
          <g key={offset}>
            <path d={`M${x} ${y + height}v5`} stroke="var(--rule)" />
            <text
              x={x}
              y={y + height + 17}
              textAnchor="middle"
              fontSize={12}
              className="mono"
              fill="var(--ink2)"
            >
              {offsetLabel(ruler, offset)}
            </text>
          </g>
        );
      })}
    </>
  );
}

/** A reservation is a ring, a static address a square. */
function PinHead({
  reserved,
  x,
  top,
  colour,
}: {
  reserved: boolean;
  x: number;
  top: number;
  colour: string;
}) {
  return reserved ? (
    <circle cx={x} cy={top + 3.5} r={3.3} fill="var(--panel)" stroke={colour} strokeWidth={1.5} />
  ) : (
    <rect x={x - 3.5} y={top} width={7} height={7} fill={colour} />
  );
}

/**
 * A fixed address as a pin: a square head for one typed in or the gear's, a ring for a reserved one, a
 * triangle for one in trouble.
 */
export function PinMark({
  pin,
  x,
  top,
  base,
  chosen,
  trouble,
  choose,
}: {
  pin: Pin;
  x: number;
  top: number;
  base: number;
  chosen: boolean;
  trouble: boolean;
  choose: () => void;
}) {
  const plain = chosen ? "var(--act)" : "var(--ink)";
  const colour = trouble ? "var(--warn)" : plain;
  return (
    <g
      className="cursor-pointer"
      onClick={(event) => {
        event.stopPropagation();
        choose();
      }}
    >
      <title>{pin.name}</title>
      <rect x={x - 6} y={top - 6} width={12} height={base - top + 6} fill="transparent" />
      <path d={`M${x} ${top + 6}V${base}`} stroke={colour} strokeWidth={1.5} />
      {trouble ? (
        <path
          d={`M${x} ${top - 5}l7 12h-14z`}
          fill="var(--panel)"
          stroke={colour}
          strokeWidth={1.8}
          strokeLinejoin="round"
        />
      ) : (
        <PinHead reserved={pin.manner === "reserved"} x={x} top={top} colour={colour} />
      )}
    </g>
  );
}
