"use client";

import { cableLags, dissolveLag, setLagMode } from "@/core/commands";
import { useState } from "react";
import { toast } from "sonner";
import { nameOf, type Device, type Lag } from "@/core/plan";
import { runText } from "@/core/sheets";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Section } from "../parts";

const MODES: readonly (readonly [Lag["mode"], string])[] = [
  ["active", "LACP active"],
  ["passive", "LACP passive"],
  ["static", "static"],
];

/** Several cables as one: the LAGs of a device, each with its ports, its kind and where it leads. */
export function Lags({ device }: { device: Device }) {
  const index = useIndex();
  const lags = index.groups("lagsByDevice").get(device.id) ?? [];
  return (
    <Section title="LAGs">
      {lags.length === 0 ? (
        <p className="px-4 text-13 text-ink2">None. Choose two ports or more on Ports and join them there.</p>
      ) : (
        lags.map((lag) => <OneLag key={lag.id} device={device} lag={lag} />)
      )}
    </Section>
  );
}

function OneLag({ device, lag }: { device: Device; lag: Lag }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const ports = index.portsOf(device.id);
  const members = ports.filter((port) => port.lag === lag.id);
  const far = [...new Set(members.flatMap((port) => index.peerOf(port.id)?.lag ?? []))];
  const isFree = (lag: string) =>
    [...index.plan.port.values()].some((port) => port.lag === lag && index.linkAt(port.id) === undefined);
  const others = [...index.plan.lag.values()].filter(
    (other) => other.device !== device.id && isFree(other.id),
  );
  const [to, setTo] = useState("");
  const say = (refusal: string | null) => {
    if (refusal !== null) toast.error(refusal);
  };
  const target = to === "" ? (others[0]?.id ?? "") : to;
  return (
    <div className="px-4 pb-2 text-13">
      <p className="flex min-h-7 items-center gap-2">
        <b className="font-semibold">{lag.name}</b>
        <span className="mono">{runText(members, ports)}</span>
        <span className="truncate text-ink2">
          {far.length === 0
            ? "leads nowhere yet"
            : `to ${far.map((id) => nameOf(index, "lag", id)).join(", ")}`}
        </span>
      </p>
      <div className="flex flex-wrap items-center gap-[6px]">
        <select
          aria-label={`Kind of ${lag.name}`}
          className="field"
          value={lag.mode}
          onChange={(event) => {
            const mode = MODES.find(([mode]) => mode === event.target.value)?.[0];
            if (mode !== undefined) edit(setLagMode({ lag: lag.id, mode }));
          }}
        >
          {MODES.map(([mode, words]) => (
            <option key={mode} value={mode}>
              {words}
            </option>
          ))}
        </select>
        <button type="button" className="button" onClick={() => edit(dissolveLag({ lag: lag.id }))}>
          Take apart
        </button>
        {!isFree(lag.id) || others.length === 0 ? null : (
          <>
            <select
              aria-label="Other LAG"
              className="field"
              value={target}
              onChange={(event) => setTo(event.target.value)}
            >
              {others.map((other) => (
                <option key={other.id} value={other.id}>
                  {nameOf(index, "lag", other.id)}
                </option>
              ))}
            </select>
            <button
              type="button"
              className="button"
              onClick={() => say(edit(cableLags({ a: lag.id, b: target })))}
            >
              Cable to it
            </button>
          </>
        )}
      </div>
    </div>
  );
}
