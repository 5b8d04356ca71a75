"use client";

import { clsx } from "clsx";
import { editDevice } from "@/core/commands";
import { toast } from "sonner";
import { cabinets, freeUnit, type Cabinet } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import { useIndex, usePlan } from "../../plan-store/use-plan";

const UNIT_PX = 26;
/**
 * Below this a cabinet is drawn with a few empty units above what is in it, so that there is somewhere to put
 * more.
 */
const LEAST_UNITS = 6;

/** What stands where in the cabinets and rooms, and what feeds it. */
export function CabinetsPanel() {
  const index = useIndex();
  const found = cabinets(index);
  return (
    <div
      className="flex min-h-0 flex-1 flex-wrap content-start items-start gap-6 overflow-auto p-4"
      tabIndex={-1}
    >
      {found.map((cabinet) => (
        <OneCabinet key={cabinet.place} cabinet={cabinet} />
      ))}
    </div>
  );
}

// eslint-disable-next-line max-lines-per-function -- one cabinet, drawn from top to bottom
function OneCabinet({ cabinet }: { cabinet: Cabinet }) {
  const { place, racked, loose, feeds } = cabinet;
  const edit = usePlan((state) => state.edit);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const units = Math.max(cabinet.units, racked.length > 0 ? LEAST_UNITS : 0);
  const chosen = (id: string) => selection?.what === "device" && selection.id === id;
  const rack = (id: string, name: string, heightUnits: number) => {
    const unit = freeUnit(cabinet, heightUnits, Math.max(units, LEAST_UNITS));
    const refusal =
      unit === null
        ? `${place || "This place"} has no ` +
          `${heightUnits > 1 ? `${heightUnits} height units` : "height unit"} free.`
        : edit(editDevice({ device: id, field: "rackUnit", text: String(unit) }));
    if (refusal !== null) toast.error(refusal);
  };
  const power = (needed: number, budget: number) =>
    budget === 0 ? null : (
      <span
        className={clsx(
          "ml-auto text-12 whitespace-nowrap",
          needed > budget ? "font-semibold text-stop" : "text-ink2",
        )}
      >
        {needed / 1000} of {budget / 1000} W
      </span>
    );
  return (
    <section aria-label={place || "No place yet"} className="w-[340px]">
      <h2 className="flex h-8 items-center border-b border-ink text-15">
        {place || "No place yet"}
        <span className="ml-auto text-12 font-normal text-ink2">
          {cabinet.units > 0 ? `${cabinet.units} height units` : ""}
        </span>
      </h2>
      {racked.length === 0 ? null : (
        <ol
          aria-label={`Height units of ${place}`}
          className="relative border-x border-b border-ink bg-paper"
          style={{ height: units * UNIT_PX }}
        >
          {Array.from({ length: units }, (_, i) => (
            <li
              key={i}
              aria-hidden
              className="mono absolute inset-x-0 border-t border-hair pl-1 text-12 text-ink2"
              style={{ top: i * UNIT_PX, height: UNIT_PX }}
            >
              {units - i}
            </li>
          ))}
          {racked.map(({ device, from, to, power: own }) => (
            <li
              key={device.id}
              className="absolute right-1 left-8"
              style={{ top: (units - to) * UNIT_PX + 1, height: (to - from + 1) * UNIT_PX - 2 }}
            >
              <button
                type="button"
                aria-pressed={chosen(device.id)}
                className={clsx(
                  "flex h-full w-full items-center gap-2 rounded border bg-panel px-2 text-left text-13",
                  chosen(device.id) ? "border-act outline-2 outline-act" : "border-ink hover:bg-hover",
                )}
                onClick={() => select({ what: "device", id: device.id })}
              >
                <b className="truncate font-semibold">{device.name}</b>
                <span className="mono text-12 text-ink2">
                  U{from}
                  {to > from ? `–${to}` : ""}
                </span>
                {power(own.neededMw, own.budgetMw)}
              </button>
            </li>
          ))}
        </ol>
      )}
      {loose.length === 0 ? null : (
        <ul aria-label={`At no height unit in ${place}`} className="text-13">
          {loose.map(({ device, power: own }) => (
            <li key={device.id} className="flex min-h-8 items-center gap-2 border-b border-hair">
              <button
                type="button"
                aria-pressed={chosen(device.id)}
                className={`truncate hover:underline ${chosen(device.id) ? "font-semibold text-act" : ""}`}
                onClick={() => select({ what: "device", id: device.id })}
              >
                {device.name}
              </button>
              {power(own.neededMw, own.budgetMw)}
              {device.heightUnits === 0 ? null : (
                <button
                  type="button"
                  className="button ml-auto !min-h-6"
                  onClick={() => rack(device.id, device.name, device.heightUnits)}
                >
                  Rack it
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
      {feeds.length === 0 ? null : (
        <dl className="grid grid-cols-[110px_minmax(0,1fr)] gap-x-2 pt-2 text-12">
          {feeds.map(({ feed, devices, dark }) => (
            <div key={feed} className="contents">
              <dt className="truncate text-ink2">{feed}</dt>
              <dd>
                feeds {devices.length};{" "}
                {dark.length === 0
                  ? "nothing goes dark with it"
                  : `dark without it: ${dark.map((device) => device.name).join(", ")}`}
              </dd>
            </div>
          ))}
        </dl>
      )}
    </section>
  );
}
