"use client";

import { useState } from "react";
import { counted } from "@/core/checks";
import { useIndex } from "../../plan-store/use-plan";
import { AddDevice } from "./AddDevice";
import { DeviceList } from "./DeviceList";
import { Diagram } from "./Diagram";

/** The gear and what joins it: a drawing, and the same as a list for the keyboard. */
export function HardwareView() {
  const { plan } = useIndex();
  const [adding, setAdding] = useState(false);
  const empty = plan.device.size === 0;
  return (
    <main className="sheet">
      <div className="head">
        <h1>Hardware</h1><p>{empty ? "none yet" : `${counted(plan.device.size, "device", "devices")}, ${counted(plan.link.size, "cable", "cables")}`}</p><span className="push" />
        <button type="button" className={empty ? "button go" : "button"} aria-expanded={adding || empty} onClick={() => setAdding(!adding)}>Add device</button>
      </div>
      {adding || empty ? <AddDevice close={() => setAdding(false)} /> : null}
      {empty ? <p className="max-w-[60ch] p-4 text-15">Here stands the gear: gateway, switches, access points, the provider’s box, and which port goes to which. Add the gateway first: every segment then gets its leg on it.</p> : (
        <>
          <Diagram />
          <DeviceList />
        </>
      )}
    </main>
  );
}
