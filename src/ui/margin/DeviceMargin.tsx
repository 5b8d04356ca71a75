"use client";

import { useState } from "react";
import { toast } from "sonner";
import { formatAddress } from "@/core/address";
import { deviceVlansText, setDeviceVlans, setVlanNameLimit, addLeg, connectPorts, editDevice, removeDevice, removeLeg, type DeviceField } from "@/core/planners";
import { byNaturalText } from "@/core/kernel";
import { nameOf, type Device } from "@/core/plan";
import { DEVICE_KIND_WORDS, freePorts, placesOf, pluggedIn, portCounts } from "@/core/sheets";
import { useGoTo } from "../frame/go-to";
import { useUi } from "../frame/use-ui";
import { TextField } from "../kit/TextField";
import { useIndex, usePlan } from "../plan-store/use-plan";
import { FindingsSection } from "./FindingsSection";
import { HistorySection } from "./HistorySection";
import { Caution, Fact, MarginHead, Section } from "./parts";

const FIELDS: readonly (readonly [DeviceField, string, string])[] = [
  ["name", "Name", ""], ["place", "Place", "Cabinet A"], ["model", "Model", "24-port switch"], ["credentialsPlace", "Credentials", "where they are kept, never the word"],
  ["supportUntil", "Support until", "2027-06-30"], ["notes", "Notes", ""],
];

export function DeviceMargin({ id }: { id: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const goTo = useGoTo();
  const device = index.plan.device.get(id);
  if (device === undefined) return null;
  const ports = index.portsOf(id);
  const counts = portCounts(index, ports);
  const valueOf = (field: DeviceField) => device[field] ?? "";
  const remove = () => {
    const refusal = edit({ planner: "remove-device", summary: `Removed ${device.name}`, args: { device: id } }, ({ draft }) => removeDevice(draft, id));
    if (refusal !== null) toast.error(refusal);
    else select(null);
  };
  return (
    <>
      <MarginHead kick={`Selected ${DEVICE_KIND_WORDS[device.kind]}`}>{device.name}</MarginHead>
      <dl className="facts">
        <Fact name="Model">{device.model}</Fact>
        <Fact name="Ports">{counts.all}: {counts.set} set, {counts.undecided} to decide, {counts.off} off</Fact>
        {device.poeBudgetMw === 0 ? null : <Fact name="PoE budget">{device.poeBudgetMw / 1000} W</Fact>}
        <Fact name="VLANs">{device.bridging === "vlan" ? "knows them" : device.bridging === "plain" ? "knows none, passes every tag" : "does not bridge"}</Fact>
      </dl>
      <FindingsSection ids={new Set([id, ...ports.map((port) => port.id)])} />
      <Section title="Change">
        {FIELDS.map(([field, label, hint]) => (
          <TextField key={field} label={label} value={valueOf(field)} placeholder={hint} offers={field === "place" ? placesOf(index) : []} mono={field === "supportUntil"}
            write={(text) => edit({ planner: "edit-device", summary: `${device.name}: ${label.toLowerCase()} ${field === "notes" ? "written" : text === "" ? "emptied" : text}`, args: { device: id, field, text } }, (bench) => editDevice(bench, id, field, text))} />
        ))}
        {device.bridging !== "vlan" ? null : (
          <>
            <TextField label="VLAN names ≤" value={device.vlanNameLimit === null ? "" : String(device.vlanNameLimit)} placeholder="characters it takes" mono write={(text) => edit({ planner: "edit-device", summary: `${device.name}: VLAN names of at most ${text || "any length"}`, args: { device: id, text } }, (bench) => setVlanNameLimit(bench, id, text))} />
            <TextField label="VLANs on it" value={deviceVlansText(index, id)} placeholder="as its own list has them: 20 Staff, 30 Phones" write={(text) => edit({ planner: "edit-device", summary: `${device.name}: its own VLANs ${text === "" ? "not known" : text}`, args: { device: id, text } }, (bench) => setDeviceVlans(bench, id, text))} />
          </>
        )}
      </Section>
      <Legs device={device} />
      <Cables device={device} />
      <Caution head="Cabinets and mains.">Isolate first; never look into a fibre or an optic. Fixed wiring by licensed people under the local code.</Caution>
      <HistorySection about={id} />
      <div className="section flex gap-[6px] px-4 pt-3">
        {ports.length === 0 ? null : <button type="button" className="button" onClick={() => goTo.entity({ kind: "port", id: ports[0]?.id ?? "" })}>Show its ports</button>}
        <button type="button" className="button danger" onClick={remove}>Remove</button>
      </div>
    </>
  );
}

function Legs({ device }: { device: Device }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const legs = index.interfacesOf(device.id);
  const segments = [...index.plan.segment.values()];
  const [segment, setSegment] = useState(segments.find((s) => s.management)?.id ?? segments[0]?.id ?? "");
  const chosen = index.plan.segment.get(segment);
  return (
    <Section title="Its own addresses">
      <ul className="px-4 text-13">
        {legs.map((leg) => (
          <li key={leg.id} className="flex min-h-7 items-center gap-2">
            <span className="mono">{leg.addresses4.map(formatAddress).join(", ") || (leg.line === null ? "none" : "from the line")}</span><span className="text-ink2">{leg.name}</span>
            <button type="button" className="button ml-auto" aria-label={`Remove the address in ${leg.name}`} onClick={() => edit({ planner: "remove-leg", summary: `${device.name} has no address in ${leg.name} any more`, args: { interface: leg.id } }, ({ draft }) => removeLeg({ draft }, leg.id))}>Remove</button>
          </li>
        ))}
      </ul>
      {segments.length === 0 ? null : (
        <>
          <label className="grid grid-cols-[92px_minmax(0,1fr)] items-center gap-x-2 px-4 py-[2px] text-13"><span className="text-ink2">Add in</span>
            <select className="field" value={segment} onChange={(event) => setSegment(event.target.value)}>{segments.map((s) => <option key={s.id} value={s.id}>{s.name}</option>)}</select>
          </label>
          <TextField key={`${legs.length} ${segment}`} label="Address" mono value="" placeholder=".2" write={(text) => edit({ planner: "add-leg", summary: `${device.name}: ${text} in ${chosen?.name ?? ""}`, args: { device: device.id, segment, text } }, (bench) => addLeg(bench, device.id, segment, text))} />
        </>
      )}
    </Section>
  );
}

function Cables({ device }: { device: Device }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const goTo = useGoTo();
  const links = index.portsOf(device.id).flatMap((port) => { const link = index.linkAt(port.id); return link === undefined ? [] : [{ port, link }]; });
  const own = freePorts(index, device.id);
  const others = [...index.plan.device.values()].filter((other) => other.id !== device.id).sort((a, b) => byNaturalText(a.name, b.name)).flatMap((other) => freePorts(index, other.id));
  const [near, setNear] = useState("");
  const [far, setFar] = useState("");
  const connect = () => {
    const [a, b] = [near === "" ? own[0]?.id : near, far === "" ? others[0]?.id : far];
    if (a === undefined || b === undefined) return;
    const refusal = edit({ planner: "connect-ports", summary: `Cable ${nameOf(index, "port", a)} to ${nameOf(index, "port", b)}`, args: { a, b } }, (bench) => connectPorts(bench, a, b));
    if (refusal !== null) toast.error(refusal);
    setNear("");
    setFar("");
  };
  return (
    <Section title="Cables">
      <ul className="px-4 text-13">
        {links.map(({ port, link }) => (
          <li key={link.id} className="flex min-h-7 items-center gap-2"><span className="mono w-10">{port.label}</span><span className="truncate">{pluggedIn(index, port)}</span>
            <button type="button" className="button ml-auto" aria-label={`Show the cable at port ${port.label}`} onClick={() => goTo.entity({ kind: "link", id: link.id })}>Show</button>
          </li>
        ))}
      </ul>
      {own.length === 0 || others.length === 0 ? null : (
        <div className="grid grid-cols-[92px_minmax(0,1fr)] items-center gap-x-2 gap-y-1 px-4 py-1 text-13">
          <label htmlFor="cable-near" className="text-ink2">From port</label>
          <select id="cable-near" className="field" value={near} onChange={(event) => setNear(event.target.value)}>{own.map((port) => <option key={port.id} value={port.id}>{port.label}</option>)}</select>
          <label htmlFor="cable-far" className="text-ink2">to</label>
          <select id="cable-far" className="field" value={far} onChange={(event) => setFar(event.target.value)}>{others.map((port) => <option key={port.id} value={port.id}>{nameOf(index, "port", port.id)}</option>)}</select>
          <span /><button type="button" className="button" onClick={connect}>Lay the cable</button>
        </div>
      )}
    </Section>
  );
}
