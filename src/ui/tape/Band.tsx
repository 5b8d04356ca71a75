import type { Tape } from "@/core/sheets";

type Colours = Pick<Tape, "base" | "tracer">;

/** One piece of tape with its tracer. */
export function Band({
  tape,
  x,
  width,
  height,
}: {
  tape: Colours;
  x: number;
  width: number;
  height: number;
}) {
  return (
    <>
      <rect
        x={x + 0.5}
        y={0.5}
        width={width - 1}
        height={height - 1}
        rx={1.5}
        fill={`var(--tape-${tape.base})`}
        stroke="var(--tape-edge)"
      />
      {tape.tracer === null ? null : (
        <rect x={x + 1} y={height - 4.5} width={width - 2} height={2.5} fill={`var(--tape-${tape.tracer})`} />
      )}
    </>
  );
}

export function Mark({ tape, x, height }: { tape: Colours & Pick<Tape, "mark">; x: number; height: number }) {
  return (
    <text
      x={x}
      y={height / 2 + 4.1 - (tape.tracer === null ? 0 : 1.4)}
      fill={`var(--tape-${tape.base}-on)`}
      textAnchor="middle"
      className="mono"
      fontSize={12}
      fontWeight={700}
    >
      {tape.mark}
    </text>
  );
}
