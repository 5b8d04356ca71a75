"use client";

import { useEffect, useMemo, useState } from "react";
import { drawnTogether, type ComparedGroup } from "@/core/comparison";
import { PlanIndex, type Plan } from "@/core/plan";
import { counted } from "@/core/repairs";
import { download, fileName } from "../../kit/download";
import { drawingOf } from "../hardware/save-drawing";

interface States {
  readonly before: Plan;
  readonly after: Plan;
  readonly groups: readonly ComparedGroup[];
}

/** What differs between two states, on the drawing: gear and cables of both, those that differ marked. */
export function OnDrawing({ before, after, groups }: States) {
  const [isOpen, setOpen] = useState(false);
  const together = useMemo(() => drawnTogether(before, after, groups), [before, after, groups]);
  const { size } = together.marks;
  if (groups.length === 0) return null;
  return (
    <div className="px-4 pb-2 text-13">
      <button
        type="button"
        className="button"
        aria-expanded={isOpen}
        disabled={size === 0}
        onClick={() => setOpen(!isOpen)}
      >
        On the drawing
      </button>{" "}
      <span className="text-ink2">
        {size === 0
          ? "No gear and no cable differs."
          : `${counted(size, "device or cable differs", "devices and cables differ")}.`}
      </span>
      {isOpen && size > 0 ? <Picture {...together} /> : null}
    </div>
  );
}

function Picture({ plan, marks }: ReturnType<typeof drawnTogether>) {
  const [svg, setSvg] = useState<string | null | undefined>();
  useEffect(() => {
    let isCurrent = true;
    void drawingOf(PlanIndex.of(plan), marks)
      .catch(() => null)
      .then((made) => {
        if (isCurrent) setSvg(made?.svg ?? null);
      });
    return () => {
      isCurrent = false;
    };
  }, [plan, marks]);
  if (svg === undefined)
    return (
      <p role="status" className="py-2 text-ink2">
        Drawing …
      </p>
    );
  if (svg === null) return <p className="py-2">It could not be drawn; reload the page and try again.</p>;
  return (
    <figure className="mt-2">
      {/* eslint-disable-next-line @next/next/no-img-element -- a picture made here; nothing is fetched */}
      <img
        className="max-h-[70vh] max-w-full border border-hair bg-white"
        alt="Drawing of both states: new, changed and gone are written on what differs"
        src={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`}
      />
      <figcaption className="flex flex-wrap items-center gap-3 py-2 text-ink2">
        New has a thick line, changed a dashed one, gone a dotted one.
        <button
          type="button"
          className="button"
          onClick={() => download(fileName(plan.site.name, "differences.svg"), "image/svg+xml", svg)}
        >
          Save SVG
        </button>
      </figcaption>
    </figure>
  );
}
