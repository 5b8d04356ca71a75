import type { PathCell, Tape } from "@/core/sheets";
import { Band, Mark } from "../../tape/Band";

const WIDTH = 36;
const HEIGHT = 18;
const RING = 16;

/**
 * A VLAN at a port: the cable's tip where it is untagged, a band round the jacket where it is tagged, a
 * dashed hole where it is missing, a stroke through it where nobody needs it.
 */
export function PathMark({ tape, cell: { has, state } }: { tape: Tape; cell: PathCell }) {
  const middle = WIDTH / 2;
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      aria-hidden
      className="inline-block align-middle"
    >
      {has === "band" ? (
        <>
          <rect x={0} y={6} width={WIDTH} height={6} fill="var(--jacket)" />
          <rect x={middle - RING / 2 - 1} y={0} width={RING + 2} height={HEIGHT} fill="var(--ground)" />
          <Band tape={tape} x={middle - RING / 2} width={RING} height={HEIGHT} />
        </>
      ) : null}
      {has === "tip" ? (
        <>
          <rect x={middle} y={6} width={middle} height={6} fill="var(--jacket)" />
          <Band tape={tape} x={2} width={26} height={HEIGHT} />
          <Mark tape={tape} x={15} height={HEIGHT} />
        </>
      ) : null}
      {has === "none" && state === "right" ? (
        <circle cx={middle} cy={HEIGHT / 2} r={1.3} fill="var(--rule)" />
      ) : null}
      {state === "missing" ? (
        <rect
          x={middle - RING / 2}
          y={1}
          width={RING}
          height={HEIGHT - 2}
          fill="none"
          stroke="var(--stop)"
          strokeWidth={1.6}
          strokeDasharray="3 2"
        />
      ) : null}
      {state === "needless" ? (
        <path d={`M3 ${HEIGHT - 2} L${WIDTH - 3} 2`} stroke="var(--warn)" strokeWidth={2.4} />
      ) : null}
    </svg>
  );
}
