"use client";

import dynamic from "next/dynamic";

/** The drawing is heavy; where it is not the view itself it comes when it is asked for. */
export const LazyDiagram = dynamic(() => import("./Diagram").then((m) => m.Diagram), {
  loading: () => (
    <p role="status" className="p-4 text-13 text-ink2">
      Opening the drawing …
    </p>
  ),
});
