"use client";

import { setLeaflet } from "@/core/commands";
import { leafletFor, type Device } from "@/core/plan";
import { LEAFLET_FIELDS, leafletText } from "@/core/planners";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Section } from "../parts";

const MONO: readonly string[] = ["address", "start", "reset", "nameMost"];

/** What the leaflet of a device's model says: it holds for all of that model. */
export function LeafletFields({ device }: { device: Device }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const leaflet = leafletFor(index, device);
  return (
    <Section title="Its leaflet">
      <p className="mb-1 px-4 text-12 text-ink2">
        {device.model === ""
          ? "Say its model first: a leaflet holds for all of one model."
          : `For every ${device.model}: the first steps of the runbook come from here.`}
      </p>
      {LEAFLET_FIELDS.map(([field, label, hint]) => (
        <TextField
          key={field}
          label={label}
          value={leafletText(leaflet, field)}
          placeholder={hint}
          mono={MONO.includes(field)}
          write={(text) => edit(setLeaflet({ device: device.id, field, text }))}
        />
      ))}
    </Section>
  );
}
