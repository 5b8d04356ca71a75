import {
  BaseEdge,
  EdgeLabelRenderer,
  getSmoothStepPath,
  Position,
  useStore,
  type Edge,
  type EdgeProps,
} from "@xyflow/react";
import type { Jacket, Tape } from "@/core/sheets";
import type { LayoutPoint } from "@/workers/layout-model";
import { tapePlace, type DrawnCable } from "./cable-ends";

export type CableData = {
  readonly from: string;
  readonly to: string;
  readonly route: readonly LayoutPoint[] | null;
  readonly jacket: Jacket;
  readonly missing: readonly Tape[];
  readonly chosen: boolean;
  readonly tapeAt: DrawnCable["tapeAt"];
  readonly light: "plain" | "lit" | "dim";
};

const MOST_RINGS = 14;
const RING_PX = 6;
const TIP_PX = 11;
const ACROSS_PX = 14;
/** From further away neither numbers nor tape can be read; leaving them out keeps a large drawing fluid. */
const LEAST_ZOOM = 0.35;

/**
 * The rings round a piece of the cable: the tip first, then each VLAN by its number, dashed where one is
 * missing.
 */
function Rings({ jacket, missing, upright }: { jacket: Jacket; missing: readonly Tape[]; upright: boolean }) {
  const rings = [
    ...jacket.rings.map((tape) => ({ tape, long: false, ghost: false })),
    ...missing.map((tape) => ({ tape, long: false, ghost: true })),
  ].sort((a, b) => a.tape.vid - b.tape.vid);
  const all = [
    ...(jacket.tip === null ? [] : [{ tape: jacket.tip, long: true, ghost: false }]),
    ...rings,
  ].slice(0, MOST_RINGS);
  return (
    <span className={`flex items-center gap-px ${upright ? "flex-col" : ""}`}>
      {all.map(({ tape, long, ghost }) => {
        const [along, across] = [long ? TIP_PX : RING_PX, ACROSS_PX];
        const tracer =
          `linear-gradient(${upright ? "90deg" : "180deg"}, var(--tape-${tape.base}) 55%, ` +
          `var(--tape-${tape.tracer ?? tape.base}) 55% 85%, var(--tape-${tape.base}) 85%)`;
        return (
          <span
            key={`${tape.vid} ${ghost}`}
            title={`${tape.name} (${tape.vid})`}
            className="block"
            style={{
              width: upright ? across : along,
              height: upright ? along : across,
              ...(ghost
                ? { border: "1.5px dashed var(--stop)", background: "var(--panel)" }
                : { border: "1px solid var(--tape-edge)", background: tracer }),
            }}
          />
        );
      })}
    </span>
  );
}

const BESIDE = ["translate(4px, -16px)", "translate(-20px, -16px)"] as const;
const BELOW = "translate(6px, 4px)";
const ABOVE = "translate(6px, -16px)";

/** Where the port numbers of a cable's two ends stand, so that neither lies on the cable. */
function numberPlaces(sideways: boolean, forward: boolean): readonly [string, string] {
  if (sideways) return forward ? BESIDE : [BESIDE[1], BESIDE[0]];
  return forward ? [BELOW, ABOVE] : [ABOVE, BELOW];
}

function strokeOf({ light, missing, chosen }: CableData): string {
  if (light === "lit") return "var(--act)";
  if (missing.length > 0 && light === "plain") return "var(--stop)";
  return chosen ? "var(--act)" : "var(--jacket)";
}

function widthOf({ light, chosen }: CableData): number {
  if (light === "lit") return 9;
  return chosen ? 7 : 5;
}

/** A cable as a dark jacket with its tape where it has room and the port numbers at its ends. */
export function CableEdge({
  id,
  sourceX,
  sourceY,
  targetX,
  targetY,
  sourcePosition,
  targetPosition,
  data,
}: EdgeProps<Edge<CableData>>) {
  const near = useStore(({ transform }) => transform[2] > LEAST_ZOOM);
  if (data === undefined) return null;
  const [free, freeX, freeY] = getSmoothStepPath({
    sourceX,
    sourceY,
    targetX,
    targetY,
    sourcePosition,
    targetPosition,
    borderRadius: 4,
  });
  const { route } = data;
  const path = route === null ? free : `M${route.map(({ x, y }) => `${x} ${y}`).join("L")}`;
  const label =
    route === null
      ? { x: freeX, y: freeY, upright: Math.abs(sourceX - targetX) < 8 }
      : tapePlace(route, data.tapeAt);
  const [start, end] =
    route === null
      ? [
          { x: sourceX, y: sourceY },
          { x: targetX, y: targetY },
        ]
      : [route[0] ?? label, route.at(-1) ?? label];
  const second = route?.[1] ?? end;
  const sideways =
    route === null
      ? sourcePosition === Position.Left || sourcePosition === Position.Right
      : second.y === start.y;
  const [atStart, atEnd] = numberPlaces(sideways, sideways ? start.x <= end.x : start.y <= end.y);
  const number = "mono pointer-events-none absolute bg-panel/80 px-[2px] text-12 leading-none text-ink2";
  return (
    <>
      <BaseEdge
        id={id}
        path={path}
        interactionWidth={18}
        style={{
          stroke: strokeOf(data),
          strokeWidth: widthOf(data),
          opacity: data.light === "dim" ? 0.4 : 1,
        }}
      />
      {!near ? null : (
        <EdgeLabelRenderer>
          <span className={number} style={{ transform: `${atStart} translate(${start.x}px, ${start.y}px)` }}>
            {data.from}
          </span>
          <span className={number} style={{ transform: `${atEnd} translate(${end.x}px, ${end.y}px)` }}>
            {data.to}
          </span>
          <span
            className="pointer-events-none absolute"
            style={{ transform: `translate(-50%, -50%) translate(${label.x}px, ${label.y}px)` }}
          >
            <Rings jacket={data.jacket} missing={data.missing} upright={label.upright} />
          </span>
        </EdgeLabelRenderer>
      )}
    </>
  );
}
