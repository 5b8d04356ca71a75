"use client";

import { toBaseline, writeGear } from "@/core/commands";
import { isAdministered, type Device } from "@/core/plan";
import {
  BASELINE_FIELDS,
  baselineText,
  clockText,
  gearText,
  IDENTITY_FIELDS,
  isOpen,
  offBaseline,
  type GearColumn,
} from "@/core/planners";
import { toast } from "sonner";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Section } from "../parts";

/** These stand among a device's first fields. */
const ELSEWHERE: readonly GearColumn[] = ["supportUntil", "credentialsPlace"];

/** How a device is administered: what the whole site decided, and where this one differs. */
export function GearFields({ device }: { device: Device }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const off = offBaseline(index, device);
  const { baseline } = index.plan.site;
  const write = (column: GearColumn) => (text: string) => edit(writeGear({ row: device.id, column, text }));
  const alike = () => {
    const refusal = edit(toBaseline({ devices: [device.id], fields: null }));
    if (refusal !== null) toast.error(refusal);
  };
  return (
    <>
      {isAdministered(device) ? (
        <Section title="How it is administered">
          {BASELINE_FIELDS.map(([field, label, hint]) => (
            <TextField
              key={field}
              label={label}
              value={baselineText(device.baseline, field)}
              placeholder={isOpen(baseline, field) ? hint : `site: ${baselineText(baseline, field)}`}
              write={write(field)}
            />
          ))}
          <TextField
            label="Does not do"
            value={gearText(device, "lacks")}
            placeholder="a log sent away, SNMPv3"
            write={write("lacks")}
          />
          {device.baseline.clock === "site" ? (
            <p className="px-4 py-1 text-12 text-ink2">{clockText(index, device.baseline)}</p>
          ) : null}
          {off.length === 0 ? null : (
            <p className="px-4 pt-1 pb-2">
              <button type="button" className="button" onClick={alike}>
                Set as the whole site
              </button>
            </p>
          )}
        </Section>
      ) : null}
      <Section title="What it is and runs">
        {IDENTITY_FIELDS.filter(([column]) => !ELSEWHERE.includes(column)).map(([column, label, hint]) => (
          <TextField
            key={column}
            label={label}
            value={gearText(device, column)}
            placeholder={hint}
            mono={column === "serial" || column.startsWith("software")}
            write={write(column)}
          />
        ))}
      </Section>
    </>
  );
}
