"use client";

import { setSoftwareNames } from "@/core/commands";
import { useState } from "react";
import type { Device } from "@/core/plan";
import { namesFromSightings, type Lit } from "@/core/planners";
import { usePlan, useIndex } from "../../plan-store/use-plan";
import { Section } from "../parts";

/**
 * Finds out on site which name of the software is which number on the case: plug in, look what lights, and
 * the rest follows.
 */
// eslint-disable-next-line max-lines-per-function -- one form: what is pasted, what it means, what is written
export function SoftwareNames({ device }: { device: Device }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const ports = index.portsOf(device.id);
  const [seen, setSeen] = useState<readonly Lit[]>([]);
  const [port, setPort] = useState(ports[0]?.id ?? "");
  const [name, setName] = useState("");
  const [refusal, setRefusal] = useState<string | null>(null);
  const label = (id: string) => ports.find((port) => port.id === id)?.label ?? "";
  const names = namesFromSightings(ports, seen);
  const followed = ports.filter((port) => names.has(port.id));
  const add = () => {
    if (name.trim() === "") return setRefusal("Write what the software calls the port that has just lit up.");
    const next = [...seen.filter((lit) => lit.port !== port), { port, softwareName: name.trim() }];
    setSeen(next);
    setName("");
    setRefusal(null);
    // The far end of the run is what one looks at next.
    const missing = ports.filter((port) => !namesFromSightings(ports, next).has(port.id));
    setPort(missing.at(-1)?.id ?? port);
  };
  const write = () => {
    const refused = edit(setSoftwareNames({ device: device.id, names }));
    setRefusal(refused);
    if (refused === null) setSeen([]);
  };
  return (
    <Section title="Number on the case, name in the software">
      <p className="px-4 pb-1 text-13 text-ink2">
        Put a cable into one port, look which name lights up, write it here; then the last port of the run.
        What lies between follows.
      </p>
      <form
        className="grid grid-cols-[auto_64px_minmax(0,1fr)_auto] items-center gap-2 px-4 text-13"
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        <span className="text-ink2">Cable in</span>
        <select
          aria-label="Port on the case"
          className="field mono"
          value={port}
          onChange={(event) => setPort(event.target.value)}
        >
          {ports.map((port) => (
            <option key={port.id} value={port.id}>
              {port.label}
            </option>
          ))}
        </select>
        <input
          aria-label="Name that lights up"
          className="field mono"
          value={name}
          placeholder={ports.find((other) => other.id === port)?.softwareName}
          autoComplete="off"
          spellCheck={false}
          onChange={(event) => {
            setName(event.target.value);
            setRefusal(null);
          }}
        />
        <button type="submit" className="button">
          Lit
        </button>
      </form>
      {refusal === null ? null : (
        <p role="alert" className="px-4 py-1 text-13 text-stop">
          {refusal}
        </p>
      )}
      {seen.length === 0 ? null : (
        <div className="px-4 pt-1 text-13">
          <ul aria-label="Seen">
            {seen.map((lit) => (
              <li key={lit.port} className="flex min-h-7 items-center gap-2">
                <span className="mono">
                  {label(lit.port)} = {lit.softwareName}
                </span>
                <button
                  type="button"
                  className="button ml-auto"
                  aria-label={`Forget port ${label(lit.port)}`}
                  onClick={() => setSeen(seen.filter((other) => other !== lit))}
                >
                  Forget
                </button>
              </li>
            ))}
          </ul>
          <p className="py-1">
            {followed.length} of {ports.length} ports follow:{" "}
            <span className="mono">
              {followed
                .slice(0, 4)
                .map((port) => `${port.label} = ${names.get(port.id) ?? ""}`)
                .join(", ")}
              {followed.length > 4 ? " …" : ""}
            </span>
          </p>
          <button type="button" className="button go" onClick={write}>
            Write {followed.length} names
          </button>
        </div>
      )}
    </Section>
  );
}
