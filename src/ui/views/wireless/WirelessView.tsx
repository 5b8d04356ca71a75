"use client";

import { addSsid } from "@/core/commands";
import { useRef } from "react";
import { toast } from "sonner";
import { counted } from "@/core/repairs";
import { pointRows } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import { useIndex, usePlan, usePlanStore } from "../../plan-store/use-plan";
import { PointTable } from "./PointTable";
import { SsidTable } from "./SsidTable";

/** The wireless names with where they lead, and the access points with their radios. */
export function WirelessView() {
  const index = useIndex();
  const store = usePlanStore();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const scroller = useRef<HTMLDivElement>(null);
  const { plan } = index;
  const points = pointRows(index);
  const [firstSegment] = plan.segment.values();
  const add = () => {
    if (firstSegment === undefined) return;
    const refusal = edit(addSsid({ segment: firstSegment.id, name: null }));
    if (refusal !== null) return toast.error(refusal);
    const made = [...(store.getState().held?.index.plan.ssid.keys() ?? [])].at(-1);
    if (made !== undefined) select({ what: "ssid", id: made });
  };
  const empty = plan.segment.size === 0;
  return (
    <main className="sheet">
      <div className="head">
        <h1>Wireless</h1>
        <p>
          {counted(plan.ssid.size, "name", "names")},{" "}
          {counted(points.length, "access point", "access points")}
        </p>
        <span className="push" />
        <button type="button" className="button" onClick={() => select(null)}>
          Channels and rules
        </button>
        <button
          type="button"
          className={plan.ssid.size === 0 && !empty ? "button go" : "button"}
          disabled={empty}
          onClick={add}
        >
          Add wireless name
        </button>
      </div>
      <div ref={scroller} className="min-h-0 flex-1 overflow-auto pb-6" tabIndex={-1}>
        {empty ? (
          <p className="max-w-[60ch] p-4 text-15">
            Here stand the wireless names and the segments they lead into. Make the segments first; then a
            name, who may use it, and which access points offer it.
          </p>
        ) : (
          <SsidTable scroller={scroller} />
        )}
        {points.length === 0 ? (
          <p className="max-w-[60ch] p-4 text-15">
            No access point yet. Add one on Hardware: it comes with a radio for 2.4 GHz and one for 5 GHz, and
            stands here then.
          </p>
        ) : (
          <PointTable rows={points} scroller={scroller} />
        )}
      </div>
    </main>
  );
}
