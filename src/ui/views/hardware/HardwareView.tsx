"use client";

import { useState } from "react";
import { counted } from "@/core/repairs";
import type { HardwareWay } from "../../frame/ui-state";
import { useUi } from "../../frame/use-ui";
import { Segmented } from "../../kit/Segmented";
import { useIndex } from "../../plan-store/use-plan";
import { AddDevice } from "./AddDevice";
import { BaselinePanel } from "./BaselinePanel";
import { CabinetsPanel } from "./CabinetsPanel";
import { CablesPanel } from "./CablesPanel";
import { DeviceList } from "./DeviceList";
import { Diagram } from "./Diagram";
import { ModelsPanel } from "./ModelsPanel";
import { SheetPanel } from "./SheetPanel";
import { StackLine } from "./StackLine";

const WAYS: readonly (readonly [HardwareWay, string])[] = [
  ["drawing", "Drawing"],
  ["cabinets", "Cabinets"],
  ["cables", "Cables"],
  ["baseline", "Baseline"],
  ["sheet", "Sheets"],
  ["models", "Models"],
];

/**
 * The gear and what joins it: a drawing with the same as a list, the cabinets, the cables, what is entered on
 * each device, and the models.
 */
export function HardwareView() {
  const { plan } = useIndex();
  const way = useUi((state) => state.hardware);
  const setUi = useUi((state) => state.set);
  const [adding, setAdding] = useState(false);
  const empty = plan.device.size === 0;
  const shown = empty && way !== "models" ? "empty" : way;
  return (
    <main className="sheet">
      <div className="head print:hidden">
        <h1>Hardware</h1>
        <p>
          {empty
            ? "none yet"
            : `${counted(plan.device.size, "device", "devices")}, ` +
              `${counted(plan.link.size, "cable", "cables")}`}
        </p>
        <span className="push" />
        <Segmented label="Show" value={way} choices={WAYS} onChoose={(hardware) => setUi({ hardware })} />
        <button
          type="button"
          className={empty ? "button go" : "button"}
          aria-expanded={adding || empty}
          onClick={() => setAdding(!adding)}
        >
          Add devices
        </button>
      </div>
      {adding || empty ? (
        <div className="print:hidden">
          <AddDevice close={() => setAdding(false)} added={() => setAdding(true)} />
          <StackLine />
        </div>
      ) : null}
      {shown === "empty" ? (
        <p className="max-w-[60ch] p-4 text-15">
          Here stands the gear: gateway, switches, access points, the provider’s box, and which port goes to
          which. Add the gateway first: every segment then gets its leg on it.
        </p>
      ) : null}
      {shown === "drawing" ? (
        <>
          <Diagram />
          <DeviceList />
        </>
      ) : null}
      {shown === "cabinets" ? <CabinetsPanel /> : null}
      {shown === "cables" ? <CablesPanel /> : null}
      {shown === "baseline" ? <BaselinePanel /> : null}
      {shown === "sheet" ? <SheetPanel /> : null}
      {shown === "models" ? <ModelsPanel /> : null}
    </main>
  );
}
