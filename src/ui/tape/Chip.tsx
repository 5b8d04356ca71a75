import type { Segment } from "@/core/plan";
import type { Tape } from "@/core/sheets";
import { Band, Mark } from "./Band";

const WIDTH = 28;

/** A segment's tape with its mark, as it stands beside names everywhere. */
export function Chip({
  tape,
  name,
  height = 18,
}: {
  tape: Pick<Tape, "base" | "tracer" | "mark">;
  name: string;
  height?: number;
}) {
  return (
    <svg
      width={WIDTH}
      height={height}
      viewBox={`0 0 ${WIDTH} ${height}`}
      role="img"
      aria-label={`${tape.mark}, ${name}`}
      className="inline-block align-middle"
      style={{ flex: "none" }}
    >
      <Band tape={tape} x={0} width={WIDTH} height={height} />
      <Mark tape={tape} x={WIDTH / 2} height={height} />
    </svg>
  );
}

export const SegmentChip = ({ segment, height }: { segment: Segment; height?: number }) => (
  <Chip
    tape={{ ...segment.tape, mark: segment.mark }}
    name={segment.name}
    {...(height === undefined ? {} : { height })}
  />
);

/** "white, traced blue": a tape in words, since colour alone tells nothing to some. */
export const tapeWords = ({ base, tracer }: Pick<Tape, "base" | "tracer">): string =>
  tracer === null ? `${base}, no tracer` : `${base}, traced ${tracer}`;
