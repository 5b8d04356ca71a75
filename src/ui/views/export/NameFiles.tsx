"use client";

import { useMemo } from "react";
import { nameUpdate, zoneFiles } from "@/core/formats";
import type { Line } from "@/core/plan";
import { counted } from "@/core/repairs";
import { download, downloadBlob, fileName } from "../../kit/download";
import { useHeld } from "../../plan-store/use-plan";

/** For each line with a name that follows it, the message that sets the name to the address it has now. */
export function NameUpdates({ say }: { say: (text: string) => void }) {
  const { index } = useHeld();
  const lines = [...index.plan.line.values()].filter(({ dynamicName }) => dynamicName.name !== "");
  if (lines.length === 0) return null;
  const save = (line: Line) => {
    const update = nameUpdate(index, line);
    if ("refusal" in update) return say(update.refusal);
    const name = fileName(index.plan.site.name, `${line.dynamicName.name}.update`);
    downloadBlob(name, new Blob([update.bytes.slice()], { type: "application/dns-message" }));
    say(`${name} is written: ${update.says}. Nothing was sent.`);
  };
  return (
    <section aria-label="Names that follow a line" className="border-b border-hair p-4">
      <h2 className="text-15">Names that follow a line</h2>
      <p className="mb-2 text-13 text-ink2">
        The message that sets a name to the address that its line has now (RFC 2136). Whoever may change the
        zone signs and sends it; nothing is sent from here.
      </p>
      <ul className="flex flex-wrap gap-2">
        {lines.map((line) => (
          <li key={line.id}>
            <button type="button" className="button" onClick={() => save(line)}>
              Save update of {line.dynamicName.name}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The DNS zones, a file each: forwards by domain, back by subnet. */
export function NameZones({ say }: { say: (text: string) => void }) {
  const { index, revision } = useHeld();
  const zones = useMemo(() => zoneFiles(index, revision), [index, revision]);
  return (
    <section aria-label="DNS zones" className="border-b border-hair p-4">
      <h2 className="text-15">DNS zones</h2>
      <p className="mb-2 text-13 text-ink2">
        Zone files for a name server (RFC 1035): forwards by domain, back by subnet; the serial is the plan’s
        revision.
      </p>
      {zones === null ? (
        <p className="text-13">
          No zone can be written yet: give a segment a gateway or a DNS server of the plan, which answers for
          the names.
        </p>
      ) : (
        <>
          <ul className="grid grid-cols-2 gap-x-6 text-13 max-[1100px]:grid-cols-1">
            {zones.files.map((file) => (
              <li key={file.zone} className="flex min-h-8 items-center gap-2 border-t border-hair">
                <span className="mono truncate" title={file.zone}>
                  {file.zone}
                </span>
                <span className="ml-auto whitespace-nowrap text-ink2">
                  {counted(file.records, "record", "records")}
                </span>
                <button
                  type="button"
                  className="button"
                  aria-label={`Save the zone ${file.zone}`}
                  onClick={() => {
                    download(`${file.zone}.zone`, "text/plain;charset=utf-8", file.text);
                    say(`${file.zone}.zone is written: ${counted(file.records, "record", "records")}.`);
                  }}
                >
                  Save
                </button>
              </li>
            ))}
          </ul>
          {zones.leftOut.length === 0 ? null : (
            <p className="pt-2 text-13 text-warn">
              Left out, since nothing of the name can stand in DNS: {zones.leftOut.slice(0, 8).join(", ")}
              {zones.leftOut.length > 8 ? ` and ${zones.leftOut.length - 8} more` : ""}.
            </p>
          )}
        </>
      )}
    </section>
  );
}
