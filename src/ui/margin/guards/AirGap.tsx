"use client";

import { useMemo, useState } from "react";
import { gapCost, gapCostWords, HOLDS_AGAINST } from "@/core/guards";
import { byNaturalText } from "@/core/kernel";
import { capital, counted } from "@/core/repairs";
import { useIndex } from "../../plan-store/use-plan";
import { Fact, Section } from "../parts";

/** Which of the two holds. */
function holdsWords(vlans: boolean, gap: boolean): string {
  if (vlans && gap) return "both hold";
  if (vlans) return "VLANs with walls hold, a gap does not";
  return gap ? "a gap holds, VLANs with walls do not" : "neither holds";
}

/** A group in its VLANs, or on gear of its own: what each holds against, and what the gap would cost here. */
export function AirGap() {
  const index = useIndex();
  const zones = useMemo(
    () => [...index.plan.zone.values()].sort((a, b) => byNaturalText(a.name, b.name)),
    [index.plan.zone],
  );
  const [chosen, setChosen] = useState("");
  const zone = zones.find(({ id }) => id === chosen);
  const cost = useMemo(() => (zone === undefined ? null : gapCost(index, zone)), [index, zone]);
  if (zones.length < 2) return null;
  return (
    <Section title="Segmentation or air gap?">
      <label className="flex items-center gap-2 px-4 text-13">
        <span className="text-ink2">For</span>
        <select
          className="field min-w-0 flex-1"
          value={chosen}
          onChange={(event) => setChosen(event.target.value)}
        >
          <option value="">choose a zone</option>
          {zones.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {cost === null ? null : (
        <>
          <dl className="facts">
            <Fact name="Gap costs">{gapCostWords(cost)}</Fact>
            {cost.switches.length === 0 ? null : (
              <Fact name="Beside">{cost.switches.map(({ name }) => name).join(", ")}</Fact>
            )}
            <Fact name="For">{counted(cost.hosts, "device", "devices")}</Fact>
            <Fact name="Ways that end">
              {cost.doors.length === 0 ? "none" : cost.doors.join("; ")}
              {cost.internet ? ". Updates and remote help end, too" : ""}
            </Fact>
          </dl>
          <ul className="px-4 text-13" aria-label="What holds against what">
            {HOLDS_AGAINST.map(({ what, vlans, gap, why }) => (
              <li key={what} className="border-t border-hair py-1">
                <b className="font-semibold">{capital(what)}:</b> {holdsWords(vlans, gap)}
                <p className="text-ink2">{why}</p>
              </li>
            ))}
          </ul>
          <p className="px-4 text-13 text-ink2">
            Safety functions of machines keep networks of their own, whatever is chosen here.
          </p>
        </>
      )}
    </Section>
  );
}
