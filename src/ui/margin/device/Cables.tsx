"use client";

import { connectPorts } from "@/core/commands";
import { useState } from "react";
import { toast } from "sonner";
import { byNaturalText } from "@/core/kernel";
import { nameOf, type Device } from "@/core/plan";
import { freePorts, pluggedIn } from "@/core/sheets";
import { useGoTo } from "../../frame/go-to";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Section } from "../parts";

/** What is cabled to a device, and a new cable from it. */
export function Cables({ device }: { device: Device }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const goTo = useGoTo();
  const links = index.portsOf(device.id).flatMap((port) => {
    const link = index.linkAt(port.id);
    return link === undefined ? [] : [{ port, link }];
  });
  const own = freePorts(index, device.id);
  const others = [...index.plan.device.values()]
    .filter((other) => other.id !== device.id)
    .sort((a, b) => byNaturalText(a.name, b.name))
    .flatMap((other) => freePorts(index, other.id));
  const [near, setNear] = useState("");
  const [far, setFar] = useState("");
  const connect = () => {
    const [a, b] = [near === "" ? own[0]?.id : near, far === "" ? others[0]?.id : far];
    if (a === undefined || b === undefined) return;
    const refusal = edit(connectPorts({ a, b }));
    if (refusal !== null) toast.error(refusal);
    setNear("");
    setFar("");
  };
  return (
    <Section title="Cables">
      <ul className="px-4 text-13">
        {links.map(({ port, link }) => (
          <li key={link.id} className="flex min-h-7 items-center gap-2">
            <span className="mono w-10">{port.label}</span>
            <span className="truncate">{pluggedIn(index, port)}</span>
            <button
              type="button"
              className="button ml-auto"
              aria-label={`Show the cable at port ${port.label}`}
              onClick={() => goTo.entity({ kind: "link", id: link.id })}
            >
              Show
            </button>
          </li>
        ))}
      </ul>
      {own.length === 0 || others.length === 0 ? null : (
        <div className="grid grid-cols-[92px_minmax(0,1fr)] items-center gap-x-2 gap-y-1 px-4 py-1 text-13">
          <label htmlFor="cable-near" className="text-ink2">
            From port
          </label>
          <select
            id="cable-near"
            className="field"
            value={near}
            onChange={(event) => setNear(event.target.value)}
          >
            {own.map((port) => (
              <option key={port.id} value={port.id}>
                {port.label}
              </option>
            ))}
          </select>
          <label htmlFor="cable-far" className="text-ink2">
            to
          </label>
          <select
            id="cable-far"
            className="field"
            value={far}
            onChange={(event) => setFar(event.target.value)}
          >
            {others.map((port) => (
              <option key={port.id} value={port.id}>
                {nameOf(index, "port", port.id)}
              </option>
            ))}
          </select>
          <span />
          <button type="button" className="button" onClick={connect}>
            Lay the cable
          </button>
        </div>
      )}
    </Section>
  );
}
