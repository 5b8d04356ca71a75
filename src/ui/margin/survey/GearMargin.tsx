"use client";

import { addGear, editGear, removeGear, setGear } from "@/core/commands";
import { useState } from "react";
import type { Gear } from "@/core/plan";
import { addressesText, prefixesText, type GearField } from "@/core/planners";
import { DEVICE_MODELS } from "@/core/catalogue";
import { DEVICE_KIND_WORDS } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import { Choose } from "../../kit/Choose";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { FindingsSection } from "../findings/FindingsSection";
import { HistorySection } from "../HistorySection";
import { MarginHead, Section } from "../parts";

const KINDS = [...Object.entries(DEVICE_KIND_WORDS), ["other", "other"]] as [Gear["kind"], string][];
const TEXTS: readonly (readonly [GearField, string, string])[] = [
  ["name", "Name", ""],
  ["addresses", "Addresses", "192.168.177.1"],
  ["prefixes", "Its subnets", "192.168.177.0/24"],
  ["supportUntil", "Support until", "2027-06-30"],
  ["notes", "Notes", "where its credentials are kept"],
];
const textOf = (gear: Gear, field: GearField): string => {
  if (field === "addresses") return addressesText(gear.addresses);
  if (field === "prefixes") return prefixesText(gear.prefixes);
  if (field === "supportUntil") return gear.supportUntil ?? "";
  return gear[field];
};

/** Gear that is there already: what it is, which addresses it uses, whether it stays. */
// eslint-disable-next-line max-lines-per-function -- the fields of one find in their order
export function GearMargin({ id }: { id: string | null }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const [added, setAdded] = useState(0);
  const all = [...index.plan.gear.values()];
  const gear = id === null ? undefined : index.plan.gear.get(id);
  const set = (fields: Partial<Gear>) => {
    if (gear !== undefined) edit(setGear({ gear: gear.id, fields }));
  };
  const rooms = [...index.plan.room.values()];
  const remove = () => {
    if (gear === undefined) return;
    edit(removeGear({ gear: gear.id }));
    select({ what: "gear", id: null });
  };
  return (
    <>
      <MarginHead kick={gear === undefined ? "Gear found" : "Selected gear"}>
        {gear?.name ?? `${all.length} found`}
      </MarginHead>
      {gear === undefined ? null : (
        <>
          <FindingsSection ids={new Set([gear.id])} />
          <Section title="Change">
            {TEXTS.map(([field, label, hint]) => (
              <TextField
                key={field}
                label={label}
                value={textOf(gear, field)}
                placeholder={hint}
                mono={field === "addresses" || field === "prefixes"}
                write={(text) => edit(editGear({ gear: gear.id, field, text }))}
              />
            ))}
            <Choose label="Kind" value={gear.kind} choices={KINDS} onChoose={(kind) => set({ kind })} />
            <Choose
              label="It is like"
              value={gear.model}
              choices={[
                ["", "none of these"],
                ...DEVICE_MODELS.map((model) => [model.id, model.model] as const),
              ]}
              onChoose={(model) => set({ model })}
            />
            <Choose
              label="Stands in"
              value={gear.room ?? ""}
              choices={[["", "not said"], ...rooms.map((room) => [room.id, room.name] as const)]}
              onChoose={(room) => set({ room: room === "" ? null : room })}
            />
            <Choose
              label="Its own DHCP"
              value={gear.dhcp}
              choices={[
                ["unknown", "not known"],
                ["on", "on"],
                ["off", "off"],
              ]}
              onChoose={(dhcp) => set({ dhcp })}
            />
            <Choose
              label="Faces internet"
              value={gear.facesInternet ? "yes" : "no"}
              choices={[
                ["no", "no"],
                ["yes", "yes"],
              ]}
              onChoose={(yes) => set({ facesInternet: yes === "yes" })}
            />
            <Choose
              label="What of it"
              value={gear.fate}
              choices={[
                ["keep", "keep"],
                ["replace", "replace"],
                ["remove", "remove"],
              ]}
              onChoose={(fate) => set({ fate })}
            />
          </Section>
        </>
      )}
      <Section title="All gear found">
        <ul className="px-4 text-13">
          {all.map((gear) => (
            <li key={gear.id} className="flex min-h-7 items-center">
              <button
                type="button"
                aria-current={gear.id === id}
                className="underline decoration-rule underline-offset-2 aria-[current=true]:font-semibold"
                onClick={() => select({ what: "gear", id: gear.id })}
              >
                {gear.name}
              </button>
              <span className="ml-auto text-ink2">{gear.fate}</span>
            </li>
          ))}
        </ul>
        <TextField
          key={added}
          label="Add"
          value=""
          placeholder="Old office router"
          write={(text) => {
            const refusal = edit(addGear({ name: text }));
            if (refusal === null) setAdded(added + 1);
            return refusal;
          }}
        />
      </Section>
      {gear === undefined ? null : (
        <>
          <div className="section px-4 pt-3">
            <button type="button" className="button danger" onClick={remove}>
              Remove it from the list
            </button>
          </div>
          <HistorySection about={gear.id} />
        </>
      )}
    </>
  );
}
