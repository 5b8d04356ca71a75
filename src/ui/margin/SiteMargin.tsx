"use client";

import { useState } from "react";
import { formatPrefix } from "@/core/address";
import type { Line } from "@/core/plan";
import { addKeptClear, editLine, editSite, removeKeptClear, setConventions, type SiteField } from "@/core/planners";
import { segmentTotals } from "@/core/sheets";
import { Choose } from "../kit/Choose";
import { TextField } from "../kit/TextField";
import { useIndex, usePlan } from "../plan-store/use-plan";
import { HistorySection } from "./HistorySection";
import { Caution, Fact, MarginHead, Section } from "./parts";

const KINDS = { home: "home", office: "office", industrial: "industrial site" } as const;
const FIELDS: readonly (readonly [SiteField, string, string])[] = [["name", "Name", ""], ["blocks", "Blocks", "10.24.0.0/16"], ["timeZone", "Time zone", "Europe/London"], ["staticSize", "Static block", "18"]];

/** Nothing is selected: the site itself, its way of numbering, what it keeps clear of, its internet line. */
export function SiteMargin() {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const { site, device, host } = index.plan;
  const totals = segmentTotals(index);
  const valueOf = (field: SiteField): string => (field === "blocks" ? site.blocks.map(formatPrefix).join(", ") : field === "staticSize" ? String(site.conventions.staticSize) : site[field]);
  const convention = (fields: Parameters<typeof setConventions>[1], says: string) => { edit({ planner: "set-conventions", summary: `Site: ${says}`, args: fields }, (bench) => setConventions(bench, fields)); };
  return (
    <>
      <MarginHead kick="The site">{site.name}</MarginHead>
      <dl className="facts">
        <Fact name="Kind">{KINDS[site.kind]}</Fact>
        <Fact name="Segments">{totals.segments} in {totals.zones} zones</Fact>
        <Fact name="Gear">{device.size} devices</Fact>
        <Fact name="Register">{host.size} end devices</Fact>
      </dl>
      <Caution head="Your work, your rules.">Work only on networks you are authorised to work on. Fixed wiring and mains belong to licensed people under the local code.</Caution>
      <Section title="Change">
        {FIELDS.map(([field, label, hint]) => (
          <TextField key={field} label={label} value={valueOf(field)} placeholder={hint} mono={field === "blocks" || field === "staticSize"}
            write={(text) => edit({ planner: "edit-site", summary: `Site: ${label.toLowerCase()} ${text === "" ? "emptied" : text}`, args: { field, text } }, (bench) => editSite(bench, field, text))} />
        ))}
        <Choose label="VLAN IDs" value={site.conventions.subnetScheme} choices={[["octet", "in the third octet"], ["packed", "packed tightly"]]} onChoose={(subnetScheme) => convention({ subnetScheme }, `VLAN IDs ${subnetScheme === "octet" ? "in the third octet" : "packed"}`)} />
        <Choose label="Gateway" value={site.conventions.gatewayAt} choices={[["first", "first usable address"], ["last", "last usable address"]]} onChoose={(gatewayAt) => convention({ gatewayAt }, `gateway ${gatewayAt}`)} />
      </Section>
      <KeptClear />
      {[...index.plan.line.values()].map((line) => <LineSection key={line.id} line={line} />)}
      <HistorySection />
    </>
  );
}

function KeptClear() {
  const { site } = useIndex().plan;
  const edit = usePlan((state) => state.edit);
  const [added, setAdded] = useState(0);
  return (
    <Section title="Kept clear of">
      <ul className="px-4 text-13">
        {site.keepClear.map((kept) => {
          const text = formatPrefix(kept.prefix);
          return (
            <li key={text} className="flex min-h-7 items-center gap-2 border-b border-hair py-1 last:border-b-0"><span><span className="mono">{text}</span><br /><span className="text-ink2">{kept.reason}</span></span>
              <button type="button" className="button ml-auto" aria-label={`No longer keep ${text} clear`} onClick={() => edit({ planner: "remove-kept-clear", summary: `${text} need not be kept clear any more`, args: { prefix: text } }, (bench) => removeKeptClear(bench, text))}>Remove</button>
            </li>
          );
        })}
      </ul>
      <TextField key={added} label="Add" mono value="" placeholder="192.168.177.0/24 why" write={(text) => {
        const refusal = edit({ planner: "add-kept-clear", summary: `Kept clear of ${text}`, args: { text } }, (bench) => addKeptClear(bench, text));
        if (refusal === null) setAdded(added + 1);
        return refusal;
      }} />
    </Section>
  );
}

function LineSection({ line }: { line: Line }) {
  const edit = usePlan((state) => state.edit);
  const write = (fields: Parameters<typeof editLine>[2], says: string) => edit({ planner: "edit-line", summary: `${line.name}: ${says}`, args: { line: line.id, ...fields } }, (bench) => editLine(bench, line.id, fields));
  return (
    <Section title={line.name}>
      <TextField label="Name" value={line.name} write={(name) => write({ name: name.trim() }, `name ${name}`)} />
      <Choose label="Line" value={line.access} choices={[["fibre", "fibre"], ["cable", "cable"], ["dsl", "DSL"], ["mobile", "mobile"], ["radio", "radio"], ["other", "other"]]} onChoose={(access) => write({ access }, access)} />
      <Choose label="Address by" value={line.addressing} choices={[["dhcp", "DHCP"], ["login", "login"], ["fixed", "fixed"]]} onChoose={(addressing) => write({ addressing }, `address by ${addressing}`)} />
      <Choose label="Carrier NAT" value={line.carrierNat} choices={[["unknown", "not known"], ["yes", "yes"], ["no", "no"]]} onChoose={(carrierNat) => write({ carrierNat }, `carrier-grade NAT ${carrierNat}`)} />
      <Choose label="Provider’s box" value={line.providerBox} choices={[["none", "none"], ["routes", "routes"], ["bridges", "bridges"]]} onChoose={(providerBox) => write({ providerBox }, `provider's box ${providerBox}`)} />
    </Section>
  );
}
