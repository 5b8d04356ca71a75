"use client";

import { clsx } from "clsx";
import { useMemo } from "react";
import { treePicture, treePlace, type NamedTree, type TreePicture } from "@/core/spanning-tree";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";

const BOX = { width: 172, height: 46 } as const;
const GAP = { x: 76, y: 66 } as const;
const EDGE = 24;

interface Spot {
  readonly x: number;
  readonly y: number;
}

/** Where each bridge stands: its level's boxes in the middle of the widest level. */
function spotsOf({ bridges, widest }: TreePicture): Map<string, Spot> {
  const count = new Map<number, number>();
  for (const { level } of bridges) count.set(level, (count.get(level) ?? 0) + 1);
  return new Map(
    bridges.map(({ device, level, place }) => {
      const shift = ((widest - (count.get(level) ?? 0)) * (BOX.width + GAP.x)) / 2;
      return [
        device.id,
        { x: EDGE + shift + place * (BOX.width + GAP.x), y: EDGE + level * (BOX.height + GAP.y) },
      ];
    }),
  );
}

/**
 * A tree from its root down: what forwards as a thick line, what stands by as a dashed one, each with its
 * port numbers.
 */
export function TreeDrawing({ named }: { named: NamedTree }) {
  const index = useIndex();
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const picture = useMemo(() => treePicture(index, named), [index, named]);
  const spots = useMemo(() => spotsOf(picture), [picture]);
  const [width, height] = [
    picture.widest * (BOX.width + GAP.x) + 2 * EDGE,
    picture.levels * (BOX.height + GAP.y) + 2 * EDGE,
  ];
  const standing = picture.branches.filter((branch) => branch.standsBy);
  const chosen = selection?.what === "device" ? selection.id : null;
  return (
    <>
      <div
        className="min-h-0 flex-1 overflow-auto"
        tabIndex={0}
        role="region"
        aria-label={`${named.title}, drawn from its root`}
      >
        <div className="relative" style={{ width, height }}>
          <svg width={width} height={height} className="absolute inset-0" aria-hidden>
            {picture.branches.map(({ from, to, standsBy }) => (
              <Branch
                key={to.id}
                from={spots.get(from.device)}
                to={spots.get(to.device)}
                labels={[from.label, to.label]}
                standsBy={standsBy}
              />
            ))}
          </svg>
          {picture.bridges.map(({ device, priority, isRoot }) => {
            const at = spots.get(device.id);
            const place = treePlace(index, device, named.key);
            return at === undefined ? null : (
              <button
                key={device.id}
                type="button"
                onClick={() => select({ what: "device", id: device.id })}
                aria-pressed={chosen === device.id}
                className={clsx(
                  "absolute rounded border-2 bg-panel px-3 text-left",
                  isRoot ? "border-act" : "border-rule",
                  chosen === device.id ? "bg-act-wash outline-2 outline-act" : "hover:bg-hover",
                )}
                style={{ left: at.x, top: at.y, ...BOX }}
              >
                <b className="block truncate text-14 leading-[20px] font-semibold">{device.name}</b>
                <span className="block truncate text-12 text-ink2">
                  {isRoot ? "root, " : `cost ${place?.cost ?? 0}, `}
                  <span className="mono">{priority}</span>
                </span>
              </button>
            );
          })}
        </div>
      </div>
      <section
        aria-label="Blocked ports"
        className="max-h-44 overflow-auto border-t border-ink px-4 py-2 text-13"
        tabIndex={0}
      >
        <h2 className="text-14">Blocked ports</h2>
        {standing.length === 0 ? (
          <p className="text-ink2">Nothing: no cable is spare.</p>
        ) : (
          <ul>
            {standing.map(({ to }) => {
              const device = index.plan.device.get(to.device);
              const row =
                device === undefined
                  ? undefined
                  : treePlace(index, device, named.key)?.rows.find((treeRow) => treeRow.port.id === to.id);
              return (
                <li key={to.id}>
                  <b className="font-semibold">
                    {device?.name} port {to.label}
                  </b>{" "}
                  {row?.why}
                </li>
              );
            })}
          </ul>
        )}
      </section>
    </>
  );
}

function Branch({
  from,
  to,
  labels,
  standsBy,
}: {
  from: Spot | undefined;
  to: Spot | undefined;
  labels: readonly [string, string];
  standsBy: boolean;
}) {
  if (from === undefined || to === undefined) return null;
  const level = from.y === to.y;
  const [x1, y1] = level
    ? [from.x + (from.x < to.x ? BOX.width : 0), from.y + BOX.height / 2]
    : [from.x + BOX.width / 2, from.y + (from.y < to.y ? BOX.height : 0)];
  const [x2, y2] = level
    ? [to.x + (from.x < to.x ? 0 : BOX.width), to.y + BOX.height / 2]
    : [to.x + BOX.width / 2, to.y + (from.y < to.y ? 0 : BOX.height)];
  // Between neighbours of one level straight; past others in a bow below them.
  const far = level && Math.abs(x2 - x1) > GAP.x + 1;
  const path = far
    ? `M${from.x + BOX.width / 2} ${from.y + BOX.height}q${(to.x - from.x) / 2} ` +
      `${GAP.y * 0.9} ${to.x - from.x} 0`
    : `M${x1} ${y1}L${x2} ${y2}`;
  const label = (x: number, y: number, other: { x: number; y: number }, text: string) => {
    const part = 0.16;
    return (
      <text
        x={x + (other.x - x) * part + (level ? -4 : 5)}
        y={y + (other.y - y) * part + (level ? -7 : 4)}
        className="mono fill-ink2 text-12"
      >
        {text}
      </text>
    );
  };
  return (
    <g>
      <path
        d={path}
        fill="none"
        stroke={standsBy ? "var(--warn)" : "var(--jacket)"}
        strokeWidth={standsBy ? 3 : 5}
        strokeDasharray={standsBy ? "7 6" : undefined}
      />
      {far ? null : (
        <>
          {label(x1, y1, { x: x2, y: y2 }, labels[0])}
          {label(x2, y2, { x: x1, y: y1 }, labels[1])}
        </>
      )}
    </g>
  );
}
