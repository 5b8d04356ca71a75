"use client";

import { useState } from "react";
import { toast } from "sonner";
import { counted } from "@/core/checks";
import { vid as asVid, type Device, type Port, type Vid } from "@/core/plan";
import { accessPointRole, paintPorts, vlanChoices, voiceChoice, type PortRole, type VlanChoice } from "@/core/planners";
import { jacketOfRole, tapeSlots } from "@/core/sheets";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";
import { Jacket } from "../../tape/Jacket";

type RoleName = PortRole["role"] | "accessPoint";
interface Wanted { readonly name: RoleName; readonly vid: Vid | null; readonly voice: Vid | null; readonly tip: Vid | null; readonly tagged: readonly Vid[] }

const NAMES: readonly [RoleName, string][] = [["access", "Access"], ["dataVoice", "Phone + PC"], ["trunk", "Trunk"], ["accessPoint", "Access point"], ["park", "Park"], ["undecided", "To decide"]];
const PREVIEW_WIDTH = 72;

function roleOf({ name, vid, voice, tip, tagged }: Wanted, point: ReturnType<typeof accessPointRole>): PortRole | null {
  switch (name) {
    case "access": return vid === null ? null : { role: "access", vid };
    case "dataVoice": return vid === null || voice === null || vid === voice ? null : { role: "dataVoice", vid, voice };
    case "trunk": return tip === null && tagged.length === 0 ? null : { role: "trunk", untagged: tip, tagged };
    case "accessPoint": return point.untagged === null && point.tagged.length === 0 ? null : { role: "trunk", ...point };
    case "park": return { role: "park" };
    case "undecided": return { role: "undecided" };
  }
}

/** What the chosen run is painted as: the count is said, the cable is shown as it would be. */
export function PaintBar({ device, ports, run }: { device: Device; ports: readonly Port[]; run: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const choices = vlanChoices(index, device.domain);
  const data = choices.find(({ segment }) => index.hostsIn(segment.id).some((host) => host.kind === "pc")) ?? choices[0];
  const [wanted, setWanted] = useState<Wanted>(() => ({
    name: "access", vid: data?.vid ?? null, voice: voiceChoice(index, choices)?.vid ?? null, tip: null, tagged: choices.map(({ vid }) => vid),
  }));
  const point = accessPointRole(index, device.domain);
  const role = roleOf(wanted, point);
  const slots = tapeSlots(index, device.domain);
  const [sample] = ports;
  const count = counted(ports.length, "port", "ports");
  const paint = () => {
    if (role === null) return;
    const title = NAMES.find(([name]) => name === wanted.name)?.[1] ?? "";
    const refusal = edit({ planner: "paint-ports", summary: `${device.name} ${run}: ${title.toLowerCase()}${wanted.name === "access" ? ` ${choices.find((c) => c.vid === wanted.vid)?.segment.name ?? ""}` : ""}`, args: { ports: ports.map((port) => port.id), role: wanted.name } }, ({ draft }) => paintPorts(draft, ports.map((port) => port.id), role));
    if (refusal === null) toast(`Painted ${count}: ${run}.`);
    else toast.error(refusal);
  };
  const why = role === null ? reasonOf(wanted, choices) : null;
  return (
    <section aria-label={`Paint ${count}`} className="flex flex-none flex-wrap items-center gap-x-2 gap-y-1 border-t border-ink bg-act-wash px-4 py-2 text-13" style={{ ["--ground" as string]: "var(--act-wash)" }}>
      <p className="leading-[17px] whitespace-nowrap"><b className="text-14 font-semibold">{count}, {run}</b><br /><span className="text-ink2">paint as</span></p>
      <div role="radiogroup" aria-label="Role" className="flex flex-wrap">
        {NAMES.map(([name, title]) => {
          const shown = roleOf({ ...wanted, name }, point);
          const on = wanted.name === name;
          return (
            <button key={name} type="button" role="radio" aria-checked={on} className={`flex min-h-11 flex-col items-start gap-1 rounded border px-[6px] py-1 text-12 leading-[14px] ${on ? "border-act bg-panel font-semibold" : "border-transparent hover:border-rule"}`} style={on ? { ["--ground" as string]: "var(--panel)" } : undefined} onClick={() => setWanted({ ...wanted, name })}>
              {sample === undefined || shown === null ? <span className="h-4" /> : <Jacket made={jacketOfRole(index, sample, shown)} slots={slots.length > 2 ? slots.filter((slot) => jacketOfRole(index, sample, shown).rings.some((ring) => ring.vid === slot.vid)).slice(0, 2) : slots} width={PREVIEW_WIDTH} />}
              {title}
            </button>
          );
        })}
      </div>
      <Details wanted={wanted} choices={choices} change={setWanted} />
      <span className="flex-1" />
      {why === null ? null : <span className="max-w-72 text-ink2">{why}</span>}
      <button type="button" className="button go !min-h-8" disabled={role === null} onClick={paint}>Paint {count}</button>
    </section>
  );
}

function reasonOf({ name, vid, voice }: Wanted, choices: readonly VlanChoice[]): string {
  if (choices.length === 0) return "No segment is on a VLAN of this device yet; make one on Segments first.";
  if (name === "dataVoice" && vid === voice) return "Phone and PC need two different segments.";
  if (name === "dataVoice" && voice === null) return "Choose the segment of the phones.";
  if (name === "accessPoint") return "No segment has a wireless name yet; add one in a segment's margin.";
  return "Choose what it carries.";
}

function Details({ wanted, choices, change }: { wanted: Wanted; choices: readonly VlanChoice[]; change: (next: Wanted) => void }) {
  const pick = (label: string, value: Vid | null, set: (vid: Vid | null) => void, none: string | null) => (
    <label className="flex items-center gap-1"><span className="text-ink2">{label}</span>
      <select aria-label={label} className="field max-w-36" value={value ?? ""} onChange={(event) => set(event.target.value === "" ? null : asVid(Number(event.target.value)))}>
        {none === null && value !== null ? null : <option value="">{none ?? "choose"}</option>}
        {choices.map(({ segment, vid }) => <option key={vid} value={vid}>{vid} {segment.name}</option>)}
      </select>
    </label>
  );
  if (wanted.name === "access") return pick("in", wanted.vid, (vid) => change({ ...wanted, vid }), null);
  if (wanted.name === "dataVoice") return <>{pick("PC in", wanted.vid, (vid) => change({ ...wanted, vid }), null)}{pick("phone in", wanted.voice, (voice) => change({ ...wanted, voice }), null)}</>;
  if (wanted.name !== "trunk") return null;
  const toggle = (vid: Vid) => change({ ...wanted, tagged: wanted.tagged.includes(vid) ? wanted.tagged.filter((v) => v !== vid) : [...wanted.tagged, vid] });
  return (
    <>
      {pick("untagged", wanted.tip, (tip) => change({ ...wanted, tip }), "none")}
      <div role="group" aria-label="Tagged" className="flex flex-wrap items-center gap-1"><span className="text-ink2">tagged</span>
        {choices.map(({ segment, vid }) => (
          <button key={vid} type="button" aria-pressed={wanted.tagged.includes(vid)} title={`${vid} ${segment.name}`} className="rounded border-2 border-transparent p-[2px] leading-none opacity-35 aria-pressed:border-act aria-pressed:opacity-100" onClick={() => toggle(vid)}><SegmentChip segment={segment} height={16} /></button>
        ))}
      </div>
    </>
  );
}
