"use client";

import { tellBetween } from "@/core/commands";
import { byNaturalText } from "@/core/kernel";
import { nameOf, type Device } from "@/core/plan";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Section } from "../parts";

/** Between which of its segments a router tells what there is: multicast DNS stays inside one otherwise. */
export function DiscoveryFields({ device }: { device: Device }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const told = new Set(device.repeatsDiscovery);
  const own = new Set([
    ...index.interfacesOf(device.id).flatMap(({ segment }) => segment ?? []),
    ...device.repeatsDiscovery,
  ]);
  if (own.size < 2 && told.size === 0) return null;
  const shown = [...own].sort((a, b) =>
    byNaturalText(nameOf(index, "segment", a), nameOf(index, "segment", b)),
  );
  const toggle = (segment: string, on: boolean) =>
    edit(
      tellBetween({
        device: device.id,
        segments: on ? [...told, segment] : [...told].filter((other) => other !== segment),
      }),
    );
  return (
    <Section title="Tells what there is between">
      <fieldset className="grid grid-cols-2 px-4 text-13">
        <legend className="sr-only">Segments whose devices are found from the others</legend>
        {shown.map((segment) => (
          <label key={segment} className="flex min-h-6 items-center gap-2">
            <input
              type="checkbox"
              checked={told.has(segment)}
              onChange={(event) => toggle(segment, event.target.checked)}
            />
            {nameOf(index, "segment", segment)}
          </label>
        ))}
      </fieldset>
    </Section>
  );
}
