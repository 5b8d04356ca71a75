"use client";

import { filterBy } from "@/core/commands";
import { isGateway, type Device } from "@/core/plan";
import { Choose } from "../../kit/Choose";
import { usePlan } from "../../plan-store/use-plan";
import { Section } from "../parts";

type Filter = Device["filter"];

const ACTIONS: readonly (readonly [Filter["forwardDefault"], string])[] = [
  ["drop", "is dropped"],
  ["reject", "is rejected"],
  ["accept", "is let through"],
];

/** By which rules a router filters, and how they are read. */
export function FilterFields({ device }: { device: Device }) {
  const edit = usePlan((state) => state.edit);
  const { filter } = device;
  const set = (fields: Partial<Filter>) => {
    edit(filterBy({ device: device.id, fields }));
  };
  const tick = (field: "established" | "logsRefused" | "hostsOpen", words: string) => (
    <label className="flex min-h-7 items-center gap-2 px-4 text-13">
      <input
        type="checkbox"
        checked={filter[field]}
        onChange={(event) => set({ [field]: event.target.checked })}
      />
      {words}
    </label>
  );
  const isFound = filter.list === "found";
  return (
    <Section title="Filter">
      <Choose
        label="Goes by"
        value={filter.list}
        choices={[
          ["planned", "the rules that its walls need"],
          ["found", "the rules that stand on it"],
          ["none", "none: everything passes"],
        ]}
        onChoose={(list) => set({ list })}
      />
      {isFound ? (
        <>
          <Choose
            label="No rule, passing"
            value={filter.forwardDefault}
            choices={ACTIONS}
            onChoose={(forwardDefault) => set({ forwardDefault })}
          />
          <Choose
            label="No rule, for itself"
            value={filter.inputDefault}
            choices={ACTIONS}
            onChoose={(inputDefault) => set({ inputDefault })}
          />
        </>
      ) : null}
      {isFound || (filter.list === "planned" && !isGateway(device))
        ? tick("established", "remembers what it let through: answers pass")
        : null}
      {filter.list === "none" ? null : tick("logsRefused", "records what no rule takes")}
      {isGateway(device) ? tick("hostsOpen", "hosts may open ports on it for themselves") : null}
    </Section>
  );
}
