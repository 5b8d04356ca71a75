"use client";

import { nameOf, type Port } from "@/core/plan";
import { editPort, portFieldText, type PortField } from "@/core/planners";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";

const FIELDS: readonly (readonly [PortField, string, string])[] = [
  ["label", "On the case", ""],
  ["softwareName", "In software", "ge1"],
  ["speedMbps", "Mbit/s", "1000"],
  ["poeMw", "Gives W", "none"],
];

/** What one port is: both its names, how fast it is, what power it gives. */
export function PortFields({ port }: { port: Port }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const name = nameOf(index, "port", port.id);
  return FIELDS.map(([field, label, hint]) => (
    <TextField
      key={`${port.id} ${field}`}
      label={label}
      value={portFieldText(port, field)}
      placeholder={hint}
      mono
      write={(text) =>
        edit(
          {
            planner: "edit-port",
            summary: `${name}: ${label.toLowerCase()} ${text || "emptied"}`,
            args: { port: port.id, field, text },
          },
          (bench) => editPort(bench, port.id, field, text),
        )
      }
    />
  ));
}
