"use client";

import { clsx } from "clsx";
import { useRef, useState, type KeyboardEvent, type PointerEvent, type RefObject } from "react";
import type { Finding, Severity } from "@/core/checks";
import type { Device, Port } from "@/core/plan";
import { jacketOf, pluggedIn, portCounts, tapeSlots } from "@/core/sheets";
import { SeveritySign, severityColour } from "../../kit/signs";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Jacket, jacketWidth, slotCentre } from "../../tape/Jacket";
import { putInto } from "@/core/kernel";

/** The guards by their letters. */
export const GUARDS: readonly [string, string, (port: Port) => string][] = [
  ["E", "edge", ({ guards }) => (guards.edge ? "E" : "")],
  ["B", "BPDU guard", ({ guards }) => (guards.bpduGuard ? "B" : "")],
  ["L", "loop guard", ({ guards }) => (guards.loopGuard ? "L" : "")],
  ["D", "DHCP trusted", ({ guards }) => (guards.dhcpTrust ? "D" : "")],
  ["A", "ARP trusted", ({ guards }) => (guards.arpTrust ? "A" : "")],
  ["X", "802.1X", ({ guards }) => (guards.signIn ? "X" : "")],
  ["M", "most MACs", ({ guards }) => (guards.macLimit === null ? "" : String(guards.macLimit))],
];
const PORTS_PER_BLOCK = 6;
const RANK: Readonly<Record<Severity, number>> = { stop: 0, warn: 1, note: 2 };
const SLOTS_WITH_MARKS = 12;

const worst = (findings: readonly Finding[] | undefined): Severity | null =>
  (findings ?? []).map((f) => f.severity).sort((a, b) => RANK[a] - RANK[b])[0] ?? null;

/** Findings by port. */
function byPort(list: readonly Finding[]): ReadonlyMap<string, Finding[]> {
  const found = new Map<string, Finding[]>();
  for (const finding of list)
    for (const { kind, id } of finding.subjects) if (kind === "port") putInto(found, id, finding);
  return found;
}

interface Props {
  readonly device: Device;
  readonly ports: readonly Port[];
  readonly chosen: readonly string[];
  readonly choose: (ids: readonly string[]) => void;
}

/** Where one is among the ports, and the run that is chosen by keys or by dragging over it. */
function usePortRun(
  ports: readonly Port[],
  choose: Props["choose"],
  table: RefObject<HTMLTableElement | null>,
) {
  const [anchor, setAnchor] = useState(0);
  const [wanted, setAt] = useState(0);
  const at = Math.min(wanted, ports.length - 1);
  const [dragging, setDragging] = useState(false);
  const go = (to: number, extend: boolean) => {
    const place = Math.max(0, Math.min(to, ports.length - 1));
    const from = extend ? anchor : place;
    setAt(place);
    setAnchor(from);
    choose(ports.slice(Math.min(from, place), Math.max(from, place) + 1).map((port) => port.id));
    table.current?.querySelector<HTMLElement>(`[data-port="${place}"]`)?.focus();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const to = {
      ArrowDown: at + 1,
      ArrowUp: at - 1,
      Home: 0,
      End: ports.length - 1,
      PageDown: at + PORTS_PER_BLOCK,
      PageUp: at - PORTS_PER_BLOCK,
      " ": at,
    }[event.key];
    if (to === undefined) return;
    go(to, event.shiftKey);
    event.preventDefault();
  };
  const letGo = () => setDragging(false);
  return {
    at,
    onKeyDown,
    letGo,
    press: (i: number, event: PointerEvent) => {
      if (event.button !== 0) return;
      setDragging(true);
      go(i, event.shiftKey);
    },
    enter: (i: number) => {
      if (dragging) go(i, true);
    },
  };
}

export function PortTable({ device, ports, chosen, choose }: Props) {
  const index = useIndex();
  const list = usePlan((state) => state.list);
  const table = useRef<HTMLTableElement>(null);
  const run = usePortRun(ports, choose, table);
  const slots = tapeSlots(index, device.domain);
  const findings = byPort(list);
  const counts = portCounts(index, ports);
  return (
    <table
      ref={table}
      role="grid"
      aria-multiselectable
      aria-label={`Ports of ${device.name}`}
      className="table close lead select-none"
      onKeyDown={run.onKeyDown}
      onPointerUp={run.letGo}
      onPointerLeave={run.letGo}
    >
      <PortHeads slots={slots} />
      <tbody>
        {ports.map((port, i) => {
          const isChosen = chosen.includes(port.id);
          return (
            <tr
              key={port.id}
              data-port={i}
              tabIndex={i === run.at ? 0 : -1}
              aria-selected={isChosen}
              style={isChosen ? { ["--ground" as string]: "var(--act-wash)" } : undefined}
              className={clsx(
                isChosen ? "[&>td]:!bg-act-wash [&>td:first-child]:shadow-[inset_3px_0_0_var(--act)]" : "",
                i % PORTS_PER_BLOCK === 0 && i > 0 ? "[&>td]:!border-t-ink" : "",
                "focus-visible:outline-2 focus-visible:-outline-offset-2",
              )}
              onPointerDown={(event) => run.press(i, event)}
              onPointerEnter={() => run.enter(i)}
            >
              <PortCells port={port} slots={slots} severity={worst(findings.get(port.id))} />
            </tr>
          );
        })}
      </tbody>
      <tfoot>
        <tr>
          <td className="mono right">{counts.all}</td>
          <td />
          <td colSpan={10 + 1}>
            {device.bridging === "vlan"
              ? `${counts.set} set, ${counts.undecided} to decide, ${counts.off} off`
              : "ports"}
          </td>
        </tr>
      </tfoot>
    </table>
  );
}

type Slots = ReturnType<typeof tapeSlots>;

function PortHeads({ slots }: { slots: Slots }) {
  return (
    <thead>
      <tr>
        <th scope="col" className="right">
          Case
        </th>
        <th scope="col">Soft</th>
        <th scope="col" className="w-full">
          Plugged in
        </th>
        <th
          scope="col"
          aria-label={`Tape: tip, then ${slots.map((slot) => `${slot.mark} ${slot.vid}`).join(", ")}`}
        >
          {slots.length > SLOTS_WITH_MARKS || slots.length === 0 ? "Tape" : <TapeMarks slots={slots} />}
        </th>
        <th scope="col" className="right" title="power this port can give">
          PoE W
        </th>
        {GUARDS.map(([letter, title]) => (
          <th key={letter} scope="col" className="mono !px-[3px] text-center" title={title}>
            {letter}
            <span className="sr-only"> {title}</span>
          </th>
        ))}
        <th scope="col">
          <span className="sr-only">Finding</span>
        </th>
      </tr>
    </thead>
  );
}

const TapeMarks = ({ slots }: { slots: Slots }) => (
  <svg width={jacketWidth(slots.length)} height={16} aria-hidden="true">
    <g fontSize={12} className="mono" fontWeight={600} textAnchor="middle" fill="var(--ink2)">
      <text x={18} y={12.5}>
        tip
      </text>
      {slots.map((slot, i) => (
        <text key={slot.vid} x={slotCentre(i)} y={12.5}>
          {slot.mark}
        </text>
      ))}
    </g>
  </svg>
);

function PortCells({ port, slots, severity }: { port: Port; slots: Slots; severity: Severity | null }) {
  const index = useIndex();
  const plugged = pluggedIn(index, port);
  return (
    <>
      <td className="mono right font-semibold">{port.label}</td>
      <td className="mono text-ink2">{port.softwareName}</td>
      <td className={`max-w-0 truncate ${plugged === "" ? "text-ink2" : ""}`} title={plugged}>
        {plugged || (port.enabled ? "empty" : "empty, off")}
      </td>
      <td className="!py-[2px]">
        <Jacket made={jacketOf(index, port)} slots={slots} />
      </td>
      <td className="mono right">{port.poeMw === 0 ? "" : (port.poeMw / 1000).toFixed(1)}</td>
      {GUARDS.map(([letter, title, of]) => (
        <td key={letter} className="mono !px-[3px] text-center text-12" title={title}>
          {of(port) || (
            <span className="text-ink2 opacity-50" aria-hidden>
              ·
            </span>
          )}
        </td>
      ))}
      <td>
        {severity === null ? null : (
          <span className={severityColour(severity)}>
            <SeveritySign severity={severity} />
            <span className="sr-only">{severity}</span>
          </span>
        )}
      </td>
    </>
  );
}
