"use client";

import { useRef, useState } from "react";
import { counted } from "@/core/repairs";
import { gatewaySheet, routingDevices } from "@/core/sheets";
import { useGoTo } from "../../frame/go-to";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";
import { LineTable } from "./LineTable";
import { ForwardTable } from "./ForwardTable";
import { GatewayDrawing } from "./GatewayDrawing";
import { RouteTable } from "./RouteTable";
import { TunnelTable } from "./TunnelTable";
import { WaysTable } from "./WaysTable";

/**
 * What stands between the lines and the segments: lines and legs as a drawing, forwards and routes as tables.
 */
export function GatewayView() {
  const index = useIndex();
  const scroller = useRef<HTMLDivElement>(null);
  const select = useUi((state) => state.select);
  const goTo = useGoTo();
  const [wanted, setDevice] = useState<string | null>(null);
  const devices = routingDevices(index);
  const device = devices.find(({ id }) => id === wanted) ?? devices[0];
  const { line, forward } = index.plan;
  if (device === undefined)
    return (
      <main className="sheet">
        <div className="head">
          <h1>Gateway</h1>
          <p>what stands between the lines and the segments</p>
        </div>
        <div className="max-w-[60ch] p-4">
          <p className="text-15">
            Nothing routes yet. Add a gateway on Hardware, or let the survey draft the plan; its lines, legs,
            forwards and routes stand here then.
          </p>
          <button type="button" className="button mt-3" onClick={() => goTo.view("hardware")}>
            Go to Hardware
          </button>
        </div>
      </main>
    );
  const sheet = gatewaySheet(index, device);
  return (
    <main className="sheet">
      <div className="head">
        <h1>Gateway</h1>
        <p>
          {counted(line.size, "line", "lines")}, {counted(sheet.legs.length, "leg", "legs")},{" "}
          {counted(forward.size, "forward", "forwards")}
        </p>
        <span className="push" />
        {devices.length > 1 ? (
          <select
            aria-label="Which device"
            className="field h-8 w-44"
            value={device.id}
            onChange={(event) => setDevice(event.target.value)}
          >
            {devices.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        ) : null}
        <button type="button" className="button" onClick={() => select({ what: "lines" })}>
          Lines
        </button>
      </div>
      <div ref={scroller} className="min-h-0 flex-1 overflow-auto pb-6" tabIndex={-1}>
        <GatewayDrawing sheet={sheet} />
        <LineTable scroller={scroller} />
        <WaysTable scroller={scroller} />
        <ForwardTable scroller={scroller} />
        <TunnelTable scroller={scroller} />
        <RouteTable key={device.id} device={device} scroller={scroller} />
      </div>
    </main>
  );
}
