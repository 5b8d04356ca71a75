"use client";

import { useMemo, useState } from "react";
import { gapCost, gapCostWords, HOLDS_AGAINST } from "@/core/guards";
import { byNaturalText } from "@/core/kernel";
import { counted } from "@/core/repairs";
import { useIndex } from "../../plan-store/use-plan";
import { Fact, Section } from "../parts";

const holds = (does: boolean) => (does ? "holds" : <b className="font-semibold text-warn">does not</b>);

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
          <table className="table mx-4 w-auto text-13" aria-label="What holds against what">
            <thead>
              <tr>
                <th scope="col">against</th>
                <th scope="col">VLANs, walls</th>
                <th scope="col">gap</th>
              </tr>
            </thead>
            <tbody>
              {HOLDS_AGAINST.map(({ what, vlans, gap, why }) => (
                <tr key={what} title={why}>
                  <td className="whitespace-normal">
                    {what}
                    <p className="text-ink2">{why}</p>
                  </td>
                  <td>{holds(vlans)}</td>
                  <td>{holds(gap)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="px-4 text-13 text-ink2">
            Safety functions of machines keep networks of their own, whatever is chosen here.
          </p>
        </>
      )}
    </Section>
  );
}
