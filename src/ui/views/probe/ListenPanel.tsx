"use client";

import { useMemo, useState } from "react";
import { listenAt, pcapng } from "@/core/capture";
import { byNaturalText } from "@/core/kernel";
import { nameOf, type PlanIndex } from "@/core/plan";
import { emissionsOf, type Outcome } from "@/core/probe";
import { FABRIC } from "@/core/fabric";
import { Combo } from "../../kit/Combo";
import { downloadBlob, fileName } from "../../kit/download";
import { useIndex } from "../../plan-store/use-plan";

/** The ports at whose cable something of the exchange passes, those on the way of the journey first. */
function portsHeard(index: PlanIndex, outcome: Outcome): string[] {
  const fabric = index.derived(FABRIC);
  const wires = new Set(
    outcome.exchange.flatMap((message) => emissionsOf(message).map((emission) => emission.wire)),
  );
  const onWay = outcome.steps.flatMap((step) => step.ports);
  const others = fabric.ports
    .filter((port, number) => wires.has(fabric.wireOf[number] ?? -1))
    .map((port) => port.id)
    .sort((a, b) => byNaturalText(nameOf(index, "port", a), nameOf(index, "port", b)));
  return [...new Set([...onWay, ...others])];
}

const hex = (bytes: readonly number[]): string =>
  bytes.map((byte) => byte.toString(16).padStart(2, "0")).join(" ");

/**
 * What somebody who listens at a port would see, and the same as a capture file to lay beside the one taken
 * on site.
 */
// eslint-disable-next-line max-lines-per-function -- one table with its tools
export function ListenPanel({ outcome }: { outcome: Outcome }) {
  const index = useIndex();
  const ports = useMemo(() => portsHeard(index, outcome), [index, outcome]);
  const [wanted, setPort] = useState("");
  const [open, setOpen] = useState<number | null>(null);
  const port = ports.includes(wanted) ? wanted : ports[0];
  const frames = useMemo(
    () => (port === undefined ? [] : listenAt(index, outcome.exchange, port)),
    [index, outcome, port],
  );
  if (port === undefined)
    return (
      <p className="p-4 text-13 text-ink2">
        Nothing was said: it stops before the first frame gets onto a cable.
      </p>
    );
  const name = nameOf(index, "port", port);
  const save = () =>
    downloadBlob(
      fileName(index.plan.site.name, `${name.toLowerCase().replace(/[^a-z0-9]+/g, "-")}.pcapng`),
      new Blob([pcapng(frames, name, Date.now()) as Uint8Array<ArrayBuffer>], {
        type: "application/x-pcapng",
      }),
    );
  return (
    <section aria-label="On the wire">
      <div className="flex flex-wrap items-center gap-2 px-4 py-2 text-13">
        <span>Listen at</span>
        <Combo
          label="Listen at"
          value={port}
          empty="a port"
          choices={ports.map((id) => ({
            value: id,
            label: nameOf(index, "port", id),
            group: outcome.steps.some((step) => step.ports.includes(id))
              ? "on the way"
              : "hears what is for all",
          }))}
          onChoose={setPort}
        />
        <span className="text-ink2">
          {frames.length === 1 ? "1 frame" : `${frames.length} frames`} of this exchange pass there.
        </span>
        <span className="flex-1" />
        <button type="button" className="button go" disabled={frames.length === 0} onClick={save}>
          Save the capture file
        </button>
      </div>
      <table className="table" aria-label={`Frames at ${name}`}>
        <thead>
          <tr>
            <th scope="col" className="!pl-4">
              no.
            </th>
            <th scope="col">ms</th>
            <th scope="col">tag</th>
            <th scope="col">what</th>
            <th scope="col">bytes</th>
          </tr>
        </thead>
        <tbody>
          {frames.map((frame, i) => (
            <tr key={i}>
              <td className="mono !pl-4">{i + 1}</td>
              <td className="mono">{frame.ms}</td>
              <td className="mono">{frame.tag ?? "untagged"}</td>
              <td>{frame.what}</td>
              <td>
                <button
                  type="button"
                  aria-expanded={open === i}
                  className="button"
                  onClick={() => setOpen(open === i ? null : i)}
                >
                  {frame.bytes.length}
                </button>
                {open === i ? (
                  <code className="mono mt-1 block max-w-[60ch] text-12 break-words whitespace-pre-wrap">
                    {hex(frame.bytes)}
                  </code>
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="caution mx-4 mt-3">
        <b className="font-semibold">Listening on site</b> is for networks you are authorised to work on; what
        others say there is theirs.
      </p>
    </section>
  );
}
