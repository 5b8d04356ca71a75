"use client";

import { addressCount, formatPrefix, prefixesOverlap, type Prefix4 } from "@/core/address";
import { forbiddenRanges } from "@/core/planners";
import { partsOfBlock } from "@/core/sheets";
import { useGoTo } from "../../frame/go-to";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";
import { Band, Mark } from "../../tape/Band";

const WIDTH = 708;
const LEFT = 12;
const SCALE = WIDTH - 24;
const CHIP = 28;

/** The marks of a scale: about a dozen round steps of third octets, or of addresses in a small block. */
function ticksOf(block: Prefix4): { at: number; label: string | null }[] {
  const bits = 32 - block.length;
  const unit = bits > 8 ? 256 : 1;
  const units = 2 ** bits / unit;
  const step = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 5000, 10_000].find((s) => units / s <= 14) ?? units;
  const first = Math.floor(block.network / unit) % 256;
  return Array.from({ length: Math.floor(units / step) + 1 }, (_, i) => ({
    at: (i * step) / units,
    label: String(first + i * step),
  }));
}

/** The site's block to scale, each subnet at its place and true size. */
// eslint-disable-next-line max-lines-per-function -- one drawing of the blocks
export function BlockMap({ block }: { block: Prefix4 }) {
  const index = useIndex();
  const goTo = useGoTo();
  const selection = useUi((state) => state.selection);
  const parts = partsOfBlock(index, block);
  const size = Number(addressCount(block));
  const forbidden = forbiddenRanges(index.plan).filter(({ prefix }) => prefixesOverlap(prefix, block));
  const x = (share: number) => LEFT + share * SCALE;
  // Chips stand above their subnet, moved right where two would cover each other.
  const chips: number[] = [];
  for (const part of [...parts].sort((a, b) => a.start - b.start))
    chips.push(Math.max(x(part.start) - CHIP / 2 + 3, (chips.at(-1) ?? -100) + CHIP + 3));
  const ordered = [...parts].sort((a, b) => a.start - b.start);
  return (
    <section className="px-4 pt-5">
      <h2 className="text-14">
        The site’s block <span className="mono font-medium">{formatPrefix(block)}</span>
      </h2>
      <p className="text-13 text-ink2">
        Each subnet at its place and true size;{" "}
        {parts.length === 0 ? "nothing in it yet" : `${parts.length} in it`}
        {forbidden.length === 0 ? "" : "; hatched must stay clear"}. Blank is free.
      </p>
      <svg
        viewBox={`0 0 ${WIDTH} 104`}
        className="mt-3 w-full max-w-[900px]"
        role="img"
        aria-label={
          `${parts.length} subnets inside ${formatPrefix(block)}: ` +
          `${ordered.map((p) => p.segment.name).join(", ")}`
        }
      >
        <defs>
          <pattern
            id="kept-clear"
            width={6}
            height={6}
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <path d="M0 0v6" stroke="var(--hatch)" strokeWidth={2} />
          </pattern>
        </defs>
        <path d={`M${LEFT} 64.5H${LEFT + SCALE}`} stroke="var(--ink)" />
        {ticksOf(block).map((tick) => (
          <g key={tick.at}>
            <path d={`M${x(tick.at)} 64.5v7`} stroke="var(--ink)" />
            <text x={x(tick.at)} y={86} textAnchor="middle" fontSize={12} className="mono" fill="var(--ink2)">
              {tick.label}
            </text>
          </g>
        ))}
        {forbidden.map(({ prefix, reason }) => (
          <g key={`${formatPrefix(prefix)} ${reason}`}>
            <rect
              x={x(Math.max(0, Number(BigInt(prefix.network) - BigInt(block.network)) / size))}
              y={30}
              width={Math.max(2, Math.min(1, Number(addressCount(prefix)) / size) * SCALE)}
              height={34}
              fill="url(#kept-clear)"
              stroke="var(--rule)"
            >
              <title>{`${formatPrefix(prefix)}: ${reason}`}</title>
            </rect>
          </g>
        ))}
        {ordered.map((part, i) => {
          const width = Math.max(part.share * SCALE, 1.5);
          const chosen = selection?.what === "segment" && selection.id === part.segment.id;
          return (
            <g
              key={`${part.segment.id} ${part.start}`}
              className="cursor-pointer"
              onClick={() => goTo.entity({ kind: "segment", id: part.segment.id })}
            >
              <rect
                x={x(part.start)}
                y={30}
                width={width}
                height={34}
                fill={`var(--tape-${part.segment.tape.base})`}
                stroke="var(--tape-edge)"
                strokeWidth={0.8}
              />
              {part.segment.tape.tracer === null ? null : (
                <rect
                  x={x(part.start)}
                  y={52}
                  width={width}
                  height={6}
                  fill={`var(--tape-${part.segment.tape.tracer})`}
                />
              )}
              <path
                d={`M${x(part.start) + width / 2} 30L${(chips[i] ?? 0) + CHIP / 2} 24`}
                stroke="var(--rule)"
              />
              <g transform={`translate(${chips[i] ?? 0} 6)`}>
                <Band tape={part.segment.tape} x={0} width={CHIP} height={18} />
                <Mark tape={{ ...part.segment.tape, mark: part.segment.mark }} x={CHIP / 2} height={18} />
                {chosen ? (
                  <rect
                    x={-2}
                    y={-2}
                    width={CHIP + 4}
                    height={22}
                    rx={3}
                    fill="none"
                    stroke="var(--act)"
                    strokeWidth={2}
                  />
                ) : null}
              </g>
            </g>
          );
        })}
      </svg>
    </section>
  );
}
