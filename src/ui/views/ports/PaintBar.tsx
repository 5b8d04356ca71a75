"use client";

import { clsx } from "clsx";
import { paintPorts } from "@/core/commands";
import { useState, type KeyboardEvent } from "react";
import { toast } from "sonner";
import { counted } from "@/core/repairs";
import { vid as asVid, type Port, type Vid } from "@/core/plan";
import { roleAt, vlanChoices, voiceChoice, type Paint, type VlanChoice } from "@/core/planners";
import { jacketOfRole, tapeSlots, type Jacket as Made } from "@/core/sheets";
import { ProposalPanel, useProposal } from "../../margin/findings/Proposal";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";
import { Jacket } from "../../tape/Jacket";

type RoleName = Paint["role"];
interface Wanted {
  readonly name: RoleName;
  readonly vid: Vid | null;
  readonly voice: Vid | null;
  readonly tip: Vid | null;
  readonly tagged: readonly Vid[];
  readonly line: string | null;
}

const NAMES: readonly (readonly [RoleName, string])[] = [
  ["access", "Access"],
  ["dataVoice", "Phone + PC"],
  ["uplink", "Uplink"],
  ["accessPoint", "Access point"],
  ["trunk", "Chosen VLANs"],
  ["wan", "WAN"],
  ["park", "Park"],
  ["wayBack", "Way back in"],
  ["undecided", "To decide"],
];
const PREVIEW_WIDTH = 62;

function paintOf(
  { name, vid, voice, tip, tagged, line }: Wanted,
  ports: readonly Port[],
  lines: readonly string[],
): Paint | null {
  switch (name) {
    case "access":
      return vid === null ? null : { role: "access", vid };
    case "dataVoice":
      return vid === null || voice === null || vid === voice ? null : { role: "dataVoice", vid, voice };
    case "trunk":
      return tip === null && tagged.length === 0 ? null : { role: "trunk", untagged: tip, tagged };
    case "wan":
      return lines.length === 0
        ? null
        : { role: "wan", lines: ports.length === 1 && line !== null ? [line] : lines };
    default:
      return { role: name };
  }
}

interface Props {
  readonly domain: string | null;
  readonly ports: readonly Port[];
  /** The ports in words, such as "13 to 17". */
  readonly run: string;
  /** Shows what would change before it is done: for selections that are not all in sight. */
  readonly preview?: boolean;
}

/** What the chosen run is painted as: the count is said, the cable is shown as it would be. */
// eslint-disable-next-line max-lines-per-function -- one bar of tools with what each asks for
export function PaintBar({ domain, ports, run, preview = false }: Props) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const { shown, look, apply, cancel } = useProposal();
  const choices = vlanChoices(index, domain);
  const lines = [...index.plan.line.values()];
  const data =
    choices.find(({ segment }) => index.hostsIn(segment.id).some((host) => host.kind === "pc")) ?? choices[0];
  const [wanted, setWanted] = useState<Wanted>(() => ({
    name: "access",
    vid: data?.vid ?? null,
    voice: voiceChoice(index, choices)?.vid ?? null,
    tip: null,
    tagged: choices.map(({ vid }) => vid),
    line: lines[0]?.id ?? null,
  }));
  const [sample] = ports;
  const ofPaint = (name: RoleName) =>
    paintOf(
      { ...wanted, name },
      ports,
      lines.map((line) => line.id),
    );
  const possible = (paint: Paint | null): paint is Paint =>
    paint !== null &&
    (paint.role === "wayBack" ||
      paint.role === "wan" ||
      (sample !== undefined && roleAt(index, sample, paint) !== null));
  const paint = ofPaint(wanted.name);
  const ready = possible(paint);
  const count = counted(ports.length, "port", "ports");
  const choose = (name: RoleName) => {
    setWanted({ ...wanted, name });
    cancel();
  };
  const byArrow = (event: KeyboardEvent<HTMLElement>) => {
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    const to = (NAMES.findIndex(([name]) => name === wanted.name) + step + NAMES.length) % NAMES.length;
    const role = NAMES[to]?.[0];
    if (role !== undefined) choose(role);
    event.currentTarget.querySelectorAll<HTMLElement>("[role=radio]")[to]?.focus();
  };
  const go = () => {
    if (!ready) return;
    const title = NAMES.find(([name]) => name === wanted.name)?.[1] ?? "";
    const into =
      wanted.name === "access" ? ` ${choices.find((c) => c.vid === wanted.vid)?.segment.name ?? ""}` : "";
    const order = paintPorts({
      ports: ports.map((port) => port.id),
      paint,
      title: `${title.toLowerCase()}${into}`,
    });
    const refusal = preview ? look(order) : edit(order);
    if (refusal !== null) toast.error(refusal);
    else if (!preview) toast(`Painted ${count}: ${run}.`);
  };
  return (
    <section
      aria-label={`Paint ${count}`}
      className={clsx(
        "flex max-h-[60%] flex-none flex-col overflow-auto border-t border-ink bg-act-wash",
        "px-4 py-2 text-13",
      )}
      style={{ ["--ground" as string]: "var(--act-wash)" }}
    >
      <div className="flex flex-wrap items-center gap-x-2 gap-y-1">
        <p className="max-w-80 leading-[17px]">
          <b className="text-14 font-semibold">
            {count}, {run}
          </b>{" "}
          <span className="whitespace-nowrap text-ink2">paint as</span>
        </p>
        <div role="radiogroup" aria-label="Role" className="flex flex-wrap" onKeyDown={byArrow}>
          {NAMES.map(([name, title]) => {
            const on = wanted.name === name;
            return (
              <button
                key={name}
                type="button"
                role="radio"
                aria-checked={on}
                tabIndex={on ? 0 : -1}
                className={clsx(
                  "flex min-h-11 flex-col items-start gap-1 rounded border px-[5px] py-1 text-12",
                  "leading-[14px]",
                  on ? "border-act bg-panel font-semibold" : "border-transparent hover:border-rule",
                )}
                style={on ? { ["--ground" as string]: "var(--panel)" } : undefined}
                onClick={() => choose(name)}
              >
                {sample === undefined ? (
                  <span className="h-4" />
                ) : (
                  <Preview domain={domain} port={sample} paint={ofPaint(name)} />
                )}
                {title}
              </button>
            );
          })}
        </div>
        <Details
          wanted={wanted}
          choices={choices}
          lines={lines}
          single={ports.length === 1}
          change={(next) => {
            setWanted(next);
            cancel();
          }}
        />
        <span className="flex-1" />
        {ready ? null : <span className="max-w-72 text-ink2">{reasonOf(wanted, choices)}</span>}
        <button type="button" className="button go !min-h-8" disabled={!ready} onClick={go}>
          {preview ? `Preview ${count}` : `Paint ${count}`}
        </button>
      </div>
      {shown === null ? null : <ProposalPanel shown={shown} apply={apply} cancel={cancel} />}
    </section>
  );
}

const BARE = { rings: [], missing: [] } as const;
const WAN: Made = { ...BARE, mode: "routed", tip: null };
const WAY_BACK: Made = {
  ...BARE,
  mode: "access",
  tip: { vid: 0, mark: "WB", name: "", base: "white", tracer: null },
};

const FIXED_LOOKS: Partial<Record<Paint["role"], typeof WAN>> = { wan: WAN, wayBack: WAY_BACK };

/** The cable as it would be, short. */
function Preview({ domain, port, paint }: { domain: string | null; port: Port; paint: Paint | null }) {
  const index = useIndex();
  const role = paint === null ? null : roleAt(index, port, paint);
  const drawn = role === null ? null : jacketOfRole(index, port, role);
  const made = paint === null ? null : (FIXED_LOOKS[paint.role] ?? drawn);
  if (made === null) return <span className="h-4" />;
  return (
    <Jacket
      made={made}
      slots={tapeSlots(index, domain)
        .filter((slot) => made.rings.some((ring) => ring.vid === slot.vid))
        .slice(0, 1)}
      width={PREVIEW_WIDTH}
    />
  );
}

function reasonOf({ name, vid, voice }: Wanted, choices: readonly VlanChoice[]): string {
  if (name === "wan") return "No internet line yet; add one in the survey.";
  if (choices.length === 0) return "No segment is on a VLAN of this device yet; make one on Segments first.";
  if (name === "dataVoice" && vid === voice) return "Phone and PC need two different segments.";
  if (name === "dataVoice" && voice === null) return "Choose the segment of the phones.";
  if (name === "accessPoint") return "No segment has a wireless name yet; add one on Wireless.";
  if (name === "uplink") return "Nobody behind this port needs a VLAN yet.";
  return "Choose what it carries.";
}

interface DetailsProps {
  readonly wanted: Wanted;
  readonly choices: readonly VlanChoice[];
  readonly lines: readonly { readonly id: string; readonly name: string }[];
  readonly single: boolean;
  readonly change: (next: Wanted) => void;
}

// eslint-disable-next-line max-lines-per-function -- the details of each role in their order
function Details({ wanted, choices, lines, single, change }: DetailsProps) {
  const pick = (label: string, value: Vid | null, set: (vid: Vid | null) => void, none: string | null) => (
    <label className="flex items-center gap-1">
      <span className="text-ink2">{label}</span>
      <select
        aria-label={label}
        className="field max-w-36"
        value={value ?? ""}
        onChange={(event) => set(event.target.value === "" ? null : asVid(Number(event.target.value)))}
      >
        {none === null && value !== null ? null : <option value="">{none ?? "choose"}</option>}
        {choices.map(({ segment, vid }) => (
          <option key={vid} value={vid}>
            {vid} {segment.name}
          </option>
        ))}
      </select>
    </label>
  );
  const toggle = (vid: Vid) =>
    change({
      ...wanted,
      tagged: wanted.tagged.includes(vid) ? wanted.tagged.filter((v) => v !== vid) : [...wanted.tagged, vid],
    });
  switch (wanted.name) {
    case "access":
      return pick("in", wanted.vid, (vid) => change({ ...wanted, vid }), null);
    case "dataVoice":
      return (
        <>
          {pick("PC in", wanted.vid, (vid) => change({ ...wanted, vid }), null)}
          {pick("phone in", wanted.voice, (voice) => change({ ...wanted, voice }), null)}
        </>
      );
    case "uplink":
      return <span className="max-w-60 text-12 text-ink2">tagged: what has to pass each port</span>;
    case "accessPoint":
      return (
        <span className="max-w-60 text-12 text-ink2">its management untagged, its wireless names tagged</span>
      );
    case "park":
      return <span className="max-w-60 text-12 text-ink2">off, in a VLAN that leads nowhere</span>;
    case "wayBack":
      return (
        <span className="max-w-60 text-12 text-ink2">
          a small network of its own, left as it is until the end
        </span>
      );
    case "wan":
      return !single || lines.length < 2 ? (
        <span className="text-12 text-ink2">{lines.map((line) => line.name).join(", ")}</span>
      ) : (
        <label className="flex items-center gap-1">
          <span className="text-ink2">line</span>
          <select
            aria-label="line"
            className="field"
            value={wanted.line ?? ""}
            onChange={(event) => change({ ...wanted, line: event.target.value })}
          >
            {lines.map((line) => (
              <option key={line.id} value={line.id}>
                {line.name}
              </option>
            ))}
          </select>
        </label>
      );
    case "trunk":
      return (
        <>
          {pick("untagged", wanted.tip, (tip) => change({ ...wanted, tip }), "none")}
          <div role="group" aria-label="Tagged" className="flex flex-wrap items-center gap-1">
            <span className="text-ink2">tagged</span>
            {choices.map(({ segment, vid }) => (
              <button
                key={vid}
                type="button"
                aria-pressed={wanted.tagged.includes(vid)}
                title={`${vid} ${segment.name}`}
                className={clsx(
                  "rounded border-2 border-transparent p-[2px] leading-none opacity-35",
                  "aria-pressed:border-act aria-pressed:opacity-100",
                )}
                onClick={() => toggle(vid)}
              >
                <SegmentChip segment={segment} height={16} />
              </button>
            ))}
          </div>
        </>
      );
    default:
      return null;
  }
}
