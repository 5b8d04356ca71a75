"use client";

import type { PlanIndex } from "@/core/plan";
import { devicesInOrder } from "@/core/sheets";
import { Combo } from "../../kit/Combo";
import { dayStart } from "./day-start";

/** Which changes are wanted: whose, about which device, from which day to which; empty for any. */
export interface Wanted {
  readonly by: string;
  readonly device: string;
  readonly from: string;
  readonly until: string;
}
export const ANY: Wanted = { by: "", device: "", from: "", until: "" };
export const isAny = (wanted: Wanted): boolean => Object.values(wanted).every((value) => value === "");

/** A device with its ports, radios and addresses: as many of them as a question may name. */
const MOST_NAMED = 200;
function partsOf(index: PlanIndex, device: string): string[] {
  return [
    device,
    ...index.portsOf(device).map(({ id }) => id),
    ...index.interfacesOf(device).map(({ id }) => id),
    ...(index.groups("radiosByDevice").get(device) ?? []).map(({ id }) => id),
  ].slice(0, MOST_NAMED);
}

/** What is asked of the server, as the end of an address. */
export function queryOf(index: PlanIndex, { by, device, from, until }: Wanted): string {
  const zone = index.plan.site.timeZone;
  const asked = new URLSearchParams();
  if (by.trim() !== "") asked.set("by", by.trim());
  if (device !== "") asked.set("about", partsOf(index, device).join(","));
  if (from !== "") asked.set("from", dayStart(from, zone, 0));
  if (until !== "") asked.set("until", dayStart(until, zone, 1));
  const text = asked.toString();
  return text === "" ? "" : `&${text}`;
}

/** Says which changes are wanted. */
export function HistoryFilter({
  index,
  people,
  wanted,
  onWanted,
}: {
  index: PlanIndex;
  /** Who is known to have changed something. */
  people: readonly string[];
  wanted: Wanted;
  onWanted: (wanted: Wanted) => void;
}) {
  const day = (field: "from" | "until", label: string) => (
    <label className="flex items-center gap-2">
      {label}
      <input
        type="date"
        className="field"
        min="1970-01-01"
        max="9999-12-30"
        value={wanted[field]}
        onChange={(event) => onWanted({ ...wanted, [field]: event.target.value })}
      />
    </label>
  );
  return (
    <div role="search" aria-label="History" className="flex flex-wrap items-center gap-3 px-4 py-2 text-13">
      <label className="flex items-center gap-2">
        By
        <select
          className="field"
          value={wanted.by}
          onChange={(event) => onWanted({ ...wanted, by: event.target.value })}
        >
          <option value="">anybody</option>
          {people.map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      </label>
      <span className="flex items-center gap-2">
        About
        <Combo
          label="About"
          value={wanted.device}
          empty="anything"
          choices={[
            { value: "", label: "anything" },
            ...devicesInOrder(index).map(({ id, name, place }) => ({
              value: id,
              label: name,
              detail: place,
            })),
          ]}
          onChoose={(device) => onWanted({ ...wanted, device })}
        />
      </span>
      {day("from", "From")}
      {day("until", "To")}
      {isAny(wanted) ? null : (
        <button type="button" className="button" onClick={() => onWanted(ANY)}>
          Everything
        </button>
      )}
    </div>
  );
}
