"use client";

import { addLeg, addRescueNetwork, removeLeg, setAsksFrom } from "@/core/commands";
import { useState } from "react";
import { toast } from "sonner";
import { formatAddress } from "@/core/address";
import type { Device } from "@/core/plan";
import { rescueWayOf } from "@/core/planners";
import { Choose } from "../../kit/Choose";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Section } from "../parts";

/** The way back into a device when nothing else gets to it: a port, a small network, what the laptop needs. */
function WayBack({ device }: { device: Device }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const way = rescueWayOf(index, device);
  if (way !== null)
    return (
      <p className="px-4 py-1 text-13">
        Way back in: port {way.port.label}; it answers at{" "}
        <span className="mono">{formatAddress(way.address)}</span>, the laptop takes{" "}
        <span className="mono">
          {formatAddress(way.laptop)}/{way.length}
        </span>
        , no gateway.
      </p>
    );
  const keep = () => {
    const refusal = edit(addRescueNetwork({ device: device.id }));
    if (refusal !== null) toast.error(refusal);
  };
  return (
    <p className="px-4 py-1">
      <button type="button" className="button" onClick={keep}>
        Keep a way back in
      </button>
      <span className="block pt-1 text-12 text-ink2">
        A port to spare, a small network of its own that leads nowhere, and an address in it.
      </span>
    </p>
  );
}

/** The addresses of the gear itself. */
export function Legs({ device }: { device: Device }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const legs = index.interfacesOf(device.id);
  const segments = [...index.plan.segment.values()];
  const [segment, setSegment] = useState(segments.find((s) => s.management)?.id ?? segments[0]?.id ?? "");
  return (
    <Section title="Its own addresses">
      <ul className="px-4 text-13">
        {legs.map((leg) => (
          <li key={leg.id} className="flex min-h-7 items-center gap-2">
            <span className="mono">
              {leg.addresses4.map(formatAddress).join(", ") || (leg.line === null ? "none" : "from the line")}
            </span>
            <span className="text-ink2">{leg.name}</span>
            <button
              type="button"
              className="button ml-auto"
              aria-label={`Remove the address in ${leg.name}`}
              onClick={() => edit(removeLeg({ device: device.id, leg: leg.id }))}
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
      {device.bridging === "vlan" ? <WayBack device={device} /> : null}
      {legs.length < 2 ? null : (
        <Choose
          label="Asks from"
          value={device.asksFrom ?? ""}
          choices={[["", "the first of them"], ...legs.map((leg): [string, string] => [leg.id, leg.name])]}
          onChoose={(leg) => {
            edit(setAsksFrom({ device: device.id, leg: leg === "" ? null : leg }));
          }}
        />
      )}
      {segments.length === 0 ? null : (
        <>
          <label className="grid grid-cols-[92px_minmax(0,1fr)] items-center gap-x-2 px-4 py-[2px] text-13">
            <span className="text-ink2">Add in</span>
            <select className="field" value={segment} onChange={(event) => setSegment(event.target.value)}>
              {segments.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.name}
                </option>
              ))}
            </select>
          </label>
          <TextField
            key={`${legs.length} ${segment}`}
            label="Address"
            mono
            value=""
            placeholder=".2"
            write={(text) => edit(addLeg({ device: device.id, segment, text }))}
          />
        </>
      )}
    </Section>
  );
}
