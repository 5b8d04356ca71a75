"use client";

import { clsx } from "clsx";
import { useRef, useState, type KeyboardEvent, type ReactNode } from "react";
import { counted } from "@/core/repairs";
import { devicesInOrder, deviceLine, portCounts, runText } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import { Combo } from "../../kit/Combo";
import { Segmented } from "../../kit/Segmented";
import { useIndex } from "../../plan-store/use-plan";
import { PaintBar } from "./PaintBar";
import { GUARDS, PortTable } from "./PortTable";
import { RulePaint } from "./RulePaint";
import { VlanPathsPanel } from "./VlanPathsPanel";
import { deviceOfSelection } from "@/ui/frame/ui-state";

type Way = "device" | "vlans" | "rule";
const WAYS = [
  ["device", "One device"],
  ["vlans", "VLAN paths"],
  ["rule", "By rule"],
] as const;

/**
 * The ports in three ways: those of one device to be painted, every VLAN across all devices, and painting by
 * a rule.
 */
export function PortsView() {
  const index = useIndex();
  const [way, setWay] = useState<Way>("device");
  const ways = <Segmented label="Show" value={way} choices={WAYS} onChoose={setWay} />;
  if (way === "device") return <DevicePorts ways={ways} />;
  return (
    <main className="sheet">
      <div className="head">
        <h1>Ports</h1>
        <p>
          {way === "vlans"
            ? "VLANs across, ports down"
            : `${counted(index.plan.port.size, "port", "ports")} in all`}
        </p>
        <span className="push" />
        {ways}
      </div>
      {way === "vlans" ? <VlanPathsPanel /> : <RulePaint />}
    </main>
  );
}

/** What the letters of guards and the dashed box in the table stand for. */
function Legend() {
  return (
    <p
      className={clsx(
        "flex min-h-6 flex-none flex-wrap items-center gap-x-3 border-t border-hair px-4",
        "text-12 text-ink2",
      )}
    >
      {GUARDS.map(([letter, title]) => (
        <span key={letter}>
          <b className="mono mr-1 text-ink">{letter}</b>
          {title}
        </span>
      ))}
      <span className="ml-auto">
        <span className="mr-1 inline-block h-3 w-3 border-[1.5px] border-dashed border-stop align-[-2px]" />
        missing on this hop
      </span>
    </p>
  );
}

/** One device's ports as a column of cables in the printed order; a chosen run is painted in one go. */
function DevicePorts({ ways }: { ways: ReactNode }) {
  const index = useIndex();
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const scroller = useRef<HTMLDivElement>(null);
  const devices = devicesInOrder(index).filter((device) => index.portsOf(device.id).length > 0);
  const wanted = deviceOfSelection(selection);
  const device =
    devices.find((d) => d.id === wanted) ?? devices.find((d) => d.kind === "switch") ?? devices[0];
  if (device === undefined) {
    return (
      <main className="sheet">
        <div className="head">
          <h1>Ports</h1>
        </div>
        <p className="max-w-[60ch] p-4 text-15">
          Ports come with devices. Add a switch or a gateway on Hardware; then every port of it stands here,
          to be decided.
        </p>
      </main>
    );
  }
  const ports = index.portsOf(device.id);
  const chosen =
    selection?.what === "ports" && selection.device === device.id
      ? ports.filter((port) => selection.ids.includes(port.id))
      : [];
  const counts = portCounts(index, ports);
  const choose = (ids: readonly string[]) => select({ what: "ports", device: device.id, ids });
  const onKeyDown = (event: KeyboardEvent) => {
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "a") {
      choose(ports.map((port) => port.id));
      event.preventDefault();
    }
  };
  return (
    <main className="sheet">
      <div className="head">
        <h1>{device.name}</h1>
        <p>
          {deviceLine(device)}
          {device.bridging === "vlan"
            ? `; ${counted(counts.undecided, "port", "ports")} to decide; slots in VID order`
            : ""}
        </p>
        <span className="push" />
        {ways}
        <Combo
          label="Device"
          value={device.id}
          empty="Choose a device"
          choices={devices.map((d) => ({ value: d.id, label: d.name, detail: d.place }))}
          onChoose={(id) => select({ what: "ports", device: id, ids: [] })}
        />
      </div>
      {device.bridging === "plain" ? (
        <p className="px-4 py-2 text-13 text-ink2">
          This one knows no VLANs: it passes every frame to all its ports, tags untouched. There is nothing to
          set.
        </p>
      ) : null}
      <div ref={scroller} className="min-h-0 flex-1 overflow-auto" onKeyDown={onKeyDown} tabIndex={-1}>
        <PortTable
          key={device.id}
          device={device}
          ports={ports}
          chosen={chosen.map((port) => port.id)}
          choose={choose}
        />
      </div>
      <Legend />
      {chosen.length === 0 || device.bridging !== "vlan" ? null : (
        <PaintBar key={device.id} domain={device.domain} ports={chosen} run={runText(chosen, ports)} />
      )}
    </main>
  );
}
