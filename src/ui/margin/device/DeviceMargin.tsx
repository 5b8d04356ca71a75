"use client";

import { removeDevice } from "@/core/commands";
import { toast } from "sonner";
import { hasRadios } from "@/core/plan";
import { powerBudget } from "@/core/power";
import { forwardsPackets } from "@/core/routing";
import { DEVICE_KIND_WORDS, portCounts } from "@/core/sheets";
import { useGoTo } from "../../frame/go-to";
import { useUi } from "../../frame/use-ui";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { FindingsSection } from "../findings/FindingsSection";
import { HistorySection } from "../HistorySection";
import { Caution, Fact, MarginHead } from "../parts";
import { RadioFields } from "../wireless/RadioFields";
import { AdminFields } from "./AdminFields";
import { Cables } from "./Cables";
import { DeviceFields } from "./DeviceFields";
import { GearFields } from "./GearFields";
import { LeafletFields } from "./LeafletFields";
import { DiscoveryFields } from "./DiscoveryFields";
import { FilterFields } from "./FilterFields";
import { Lags } from "./Lags";
import { Legs } from "./Legs";
import { ProtectionFields } from "./ProtectionFields";
import { SoftwareNames } from "./SoftwareNames";
import { TreeFields } from "./TreeFields";

const BRIDGING_WORDS = {
  vlan: "knows them",
  plain: "knows none, passes every tag",
  none: "does not bridge",
};

/** A device: what it is, what it has to give, its findings, and everything about it that can be written. */
// eslint-disable-next-line complexity -- each fact is shown where the device has it
export function DeviceMargin({ id }: { id: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const setUi = useUi((state) => state.set);
  const goTo = useGoTo();
  const device = index.plan.device.get(id);
  if (device === undefined) return null;
  const ports = index.portsOf(id);
  const counts = portCounts(index, ports);
  const power = powerBudget(index, device);
  const lags = index.groups("lagsByDevice").get(id) ?? [];
  const remove = () => {
    const refusal = edit(removeDevice({ device: id }));
    if (refusal !== null) toast.error(refusal);
    else select(null);
  };
  const openSheet = () => {
    setUi({ hardware: "sheet" });
    goTo.entity({ kind: "device", id });
  };
  return (
    <>
      <MarginHead kick={`Selected ${DEVICE_KIND_WORDS[device.kind]}`}>{device.name}</MarginHead>
      <dl className="facts">
        <Fact name="Model">{device.model}</Fact>
        <Fact name="Ports">
          {counts.all}: {counts.set} set, {counts.undecided} to decide, {counts.off} off
        </Fact>
        {power.budgetMw === 0 && power.neededMw === 0 ? null : (
          <Fact name="PoE">
            <span className={power.neededMw > power.budgetMw ? "font-semibold text-stop" : ""}>
              {power.neededMw / 1000} W set aside of {power.budgetMw / 1000} W
            </span>
            {power.oneLostMw === null ? "" : `, ${power.oneLostMw / 1000} W with one supply lost`}
          </Fact>
        )}
        <Fact name="VLANs">{BRIDGING_WORDS[device.bridging]}</Fact>
      </dl>
      <div className="flex flex-wrap gap-[6px] px-4 pb-2">
        <button type="button" className="button" onClick={openSheet}>
          Its sheet
        </button>
        {ports.length === 0 ? null : (
          <button
            type="button"
            className="button"
            onClick={() => goTo.entity({ kind: "port", id: ports[0]?.id ?? "" })}
          >
            Its ports
          </button>
        )}
      </div>
      <FindingsSection ids={new Set([id, ...ports.map((port) => port.id), ...lags.map((lag) => lag.id)])} />
      {hasRadios(device) ? <RadioFields device={device} /> : null}
      <DeviceFields device={device} />
      <GearFields device={device} />
      <LeafletFields device={device} />
      {forwardsPackets(device) && device.kind !== "providerBox" ? <FilterFields device={device} /> : null}
      {forwardsPackets(device) ? <DiscoveryFields device={device} /> : null}
      <AdminFields device={device} />
      <Legs device={device} />
      <Cables device={device} />
      {device.bridging === "none" && lags.length === 0 ? null : <Lags device={device} />}
      {device.bridging !== "vlan" || device.kind === "accessPoint" ? null : <TreeFields device={device} />}
      {device.bridging !== "vlan" || device.kind === "accessPoint" ? null : (
        <ProtectionFields device={device} />
      )}
      {ports.length < 2 ? null : <SoftwareNames device={device} />}
      <Caution head="Cabinets and mains.">
        Isolate first; never look into a fibre or an optic. Fixed wiring by licensed people under the local
        code.
      </Caution>
      <div className="section px-4 pt-3">
        <button type="button" className="button danger" onClick={remove}>
          Remove
        </button>
      </div>
      <HistorySection about={id} />
    </>
  );
}
