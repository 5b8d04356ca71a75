"use client";

import { editPort } from "@/core/commands";
import { type Port } from "@/core/plan";
import { portFieldText, type PortField } from "@/core/planners";
import { TextField } from "../../kit/TextField";
import { usePlan } from "../../plan-store/use-plan";

const FIELDS: readonly (readonly [PortField, string, string])[] = [
  ["label", "On the case", ""],
  ["softwareName", "In software", "ge1"],
  ["speedMbps", "Mbit/s", "1000"],
  ["poeMw", "Gives W", "none"],
];

/** What one port is: both its names, how fast it is, what power it gives. */
export function PortFields({ port }: { port: Port }) {
  const edit = usePlan((state) => state.edit);
  return FIELDS.map(([field, label, hint]) => (
    <TextField
      key={`${port.id} ${field}`}
      label={label}
      value={portFieldText(port, field)}
      placeholder={hint}
      mono
      write={(text) => edit(editPort({ port: port.id, field, text }))}
    />
  ));
}
