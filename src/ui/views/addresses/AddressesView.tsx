"use client";

import { clsx } from "clsx";
import dynamic from "next/dynamic";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useRef, useState } from "react";
import { addressCount } from "@/core/address";
import { counted } from "@/core/repairs";
import type { PlanIndex, Segment } from "@/core/plan";
import { quietPart, rulerOf, segmentsInOrder } from "@/core/sheets";
import type { Selection } from "../../frame/ui-state";
import { useUi } from "../../frame/use-ui";
import { useWidth } from "../../kit/use-width";
import { useIndex } from "../../plan-store/use-plan";
import { ImportTable } from "./ImportTable";
import { ReconcileTable } from "./ReconcileTable";
import { Register } from "./Register";
import { RulerRow, rulerHeight } from "./RulerRow";

/** Charts are heavy, so they come when they are asked for. */
const UseChart = dynamic(() => import("./UseChart").then((m) => m.UseChart), {
  loading: () => (
    <p role="status" className="p-4 text-13 text-ink2">
      Opening …
    </p>
  ),
});

const LEAST_SCALE = 256;

/** Every subnet as a ruler, and below it the register of what has an address. */
export function AddressesView() {
  const index = useIndex();
  const selection = useUi((state) => state.selection);
  const segments = segmentsInOrder(index).filter((segment) => segment.prefixes4.length > 0);
  const [inUse, setInUse] = useState(false);
  const [tool, setTool] = useState<"import" | "compare" | null>(null);
  const chosen = segmentOf(index, selection);
  const shown = useShown(index, selection);
  return (
    <main className="sheet">
      <div className="head">
        <h1>Addresses</h1>
        <p>
          {counted(segments.length, "subnet", "subnets")}
          {inUse ? "" : ", all to one scale; the glass enlarges the crowded end"}
        </p>
        <span className="push" />
        {segments.length === 0 || tool !== null ? null : (
          <button type="button" className="button" onClick={() => setInUse(!inUse)}>
            {inUse ? "Show the rulers" : "How full they are"}
          </button>
        )}
      </div>
      {segments.length === 0 ? (
        <p className="max-w-[60ch] p-4 text-15">
          Addresses come with subnets. Give a segment its subnet on Segments; then it lies here as a ruler,
          with its gateway, its pool and everything that has a fixed address.
        </p>
      ) : (
        <>
          {tool === "import" ? <ImportTable segment={shown} close={() => setTool(null)} /> : null}
          {tool === "compare" ? <ReconcileTable close={() => setTool(null)} /> : null}
          {tool === null && inUse ? (
            <div className="max-h-[58%] flex-none overflow-y-auto" tabIndex={-1}>
              <UseChart />
            </div>
          ) : null}
          {tool === null && !inUse ? <Rulers segments={segments} chosen={chosen} /> : null}
          {tool === null ? <Register segment={shown} open={setTool} /> : null}
        </>
      )}
    </main>
  );
}

/** The segment that a selection is in. */
function segmentOf(index: PlanIndex, selection: Selection | null): string | null {
  switch (selection?.what) {
    case "segment":
      return selection.id;
    case "host":
      return index.plan.host.get(selection.id)?.segment ?? null;
    case "interface":
      return index.plan.interface.get(selection.id)?.segment ?? null;
    default:
      return null;
  }
}

/**
 * The segment that the register is cut down to: one that was chosen as such. A row of the whole register that
 * is chosen leaves it whole, or the rows would move away under the pointer between the two clicks that open a
 * cell.
 */
function useShown(index: PlanIndex, selection: Selection | null): Segment | null {
  const [shown, setShown] = useState(() => segmentOf(index, selection));
  const [seen, setSeen] = useState(selection);
  if (seen !== selection) {
    setSeen(selection);
    const now = segmentOf(index, selection);
    if (selection === null || selection.what === "segment" || (shown !== null && now !== null)) setShown(now);
  }
  return shown === null ? null : (index.plan.segment.get(shown) ?? null);
}

/** The subnets as rulers; of many only those on screen are drawn. */
// eslint-disable-next-line max-lines-per-function -- one list of rulers with its keys
function Rulers({ segments, chosen }: { segments: readonly Segment[]; chosen: string | null }) {
  const index = useIndex();
  const select = useUi((state) => state.select);
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 740);
  const largest = segments.reduce(
    (most, segment) =>
      Math.max(most, Number(segment.prefixes4[0] === undefined ? 0n : addressCount(segment.prefixes4[0]))),
    LEAST_SCALE,
  );
  const virtual = useVirtualizer({
    count: segments.length,
    getScrollElement: () => box.current,
    estimateSize: (i) => rulerHeight(segments[i]?.id === chosen),
    overscan: 4,
  });
  const drawn = virtual.getVirtualItems();
  const at = segments.findIndex((segment) => segment.id === chosen);
  useEffect(() => {
    virtual.measure();
    if (at >= 0) virtual.scrollToIndex(at, { align: "auto" });
    // What is chosen elsewhere comes into sight; scrolling by hand must not pull it back.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [at]);
  const quiet = quietPart(index.plan);
  return (
    <>
      <p
        className={clsx(
          "flex min-h-7 flex-none flex-wrap items-center gap-x-4 border-b border-hair px-4",
          "text-12 text-ink2",
        )}
      >
        <span className="inline-flex items-center gap-1">
          <svg width={8} height={14}>
            <rect width={6} height={14} x={1} fill="var(--ink)" />
          </svg>
          gateway
        </span>
        <span className="inline-flex items-center gap-1">
          <svg width={24} height={14}>
            <StaticPattern />
            <rect x={0.5} y={0.5} width={23} height={13} fill="url(#static-block)" stroke="var(--ink2)" />
          </svg>
          static block
        </span>
        <span className="inline-flex items-center gap-1">
          <svg width={24} height={14}>
            <rect x={0.5} y={0.5} width={23} height={13} fill="var(--tape-blue)" stroke="var(--tape-edge)" />
          </svg>
          pool, in the segment’s tape
        </span>
        <span className="inline-flex items-center gap-1">
          <svg width={10} height={16}>
            <path d="M5 5v11" stroke="var(--ink)" strokeWidth={1.5} />
            <rect x={1.5} y={1} width={7} height={7} fill="var(--ink)" />
          </svg>
          static
        </span>
        <span className="inline-flex items-center gap-1">
          <svg width={10} height={16}>
            <path d="M5 8v8" stroke="var(--ink)" strokeWidth={1.5} />
            <circle cx={5} cy={4.5} r={3.3} fill="var(--panel)" stroke="var(--ink)" strokeWidth={1.5} />
          </svg>
          reserved
        </span>
        <span className="ml-auto">blank is free</span>
      </p>
      <div
        ref={box}
        tabIndex={-1}
        className="max-h-[52%] flex-none overflow-x-hidden overflow-y-auto border-b border-ink"
      >
        <div
          style={{
            height: virtual.getTotalSize() + (at < 0 ? rulerHeight(true) - rulerHeight(false) : 0),
            paddingTop: drawn[0]?.start ?? 0,
          }}
        >
          {drawn.map(({ index: i }) => {
            const segment = segments[i];
            const ruler = segment === undefined ? null : rulerOf(index, segment);
            return segment === undefined || ruler === null ? null : (
              <RulerRow
                key={segment.id}
                segment={segment}
                ruler={ruler}
                width={width}
                largest={largest}
                quiet={quiet}
                chosen={segment.id === chosen}
                choose={() => select({ what: "segment", id: segment.id })}
              />
            );
          })}
        </div>
      </div>
    </>
  );
}

const StaticPattern = () => (
  <defs>
    <pattern
      id="static-block"
      width={5}
      height={5}
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(45)"
    >
      <path d="M0 0v5" stroke="var(--ink2)" strokeWidth={1.6} />
    </pattern>
  </defs>
);
