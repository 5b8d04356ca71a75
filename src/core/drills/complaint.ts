import type { Dice } from "../kernel";
import { pointsOf, type PlanIndex, type ProbeQuestion } from "../plan";
import { asClient } from "../probe";
import type { Ask, Predicted, Suspect } from "../diagnosis";
import { firstLook, type Copy } from "./copy";

/** Single and visible; hidden behind something that works; two at once. */
export type Level = 1 | 2 | 3;

/** So many devices are asked whether they notice a fault, so many far ends each of them is asked for. */
const MOST_ASKED = 60;
const MOST_FAR = 6;

/** The same in another order each time. */
export function shuffled<T>(items: readonly T[], roll: Dice): T[] {
  const all = [...items];
  for (let at = all.length - 1; at > 0; at -= 1) {
    const other = roll(at + 1);
    const [a, b] = [all[at], all[other]];
    if (a !== undefined && b !== undefined) [all[at], all[other]] = [b, a];
  }
  return all;
}

/** Devices that a fault names, that are plugged in where it is, or that stand in zones which it names. */
function hostsNamed(index: PlanIndex, { subjects }: Suspect): string[] {
  const zones = new Set(subjects.flatMap(({ kind, id }) => (kind === "zone" ? [id] : [])));
  const inZones = [...index.plan.host.values()].filter(({ segment }) =>
    zones.has(index.plan.segment.get(segment ?? "")?.zone ?? ""),
  );
  const named = subjects.flatMap(({ kind, id }) => (kind === "host" ? [id] : []));
  const plugged = subjects.flatMap(({ kind, id }) => (kind === "port" ? index.hostsAt(id) : []));
  return [...named, ...plugged.map(({ id }) => id), ...inZones.map(({ id }) => id)].filter((id) =>
    index.plan.host.has(id),
  );
}

/** What somebody could complain of: their address, the internet, another device that is a part of it. */
function* complaints(index: PlanIndex, suspect: Suspect, roll: Dice): Generator<ProbeQuestion> {
  const named = hostsNamed(index, suspect);
  const placed = [...index.plan.host.values()].filter(({ attachment }) => attachment.at !== "unplaced");
  const others = shuffled(placed, roll).map(({ id }) => id);
  const far = shuffled(named, roll).slice(0, MOST_FAR);
  const asking = [...new Set([...named, ...others])].slice(0, MOST_ASKED);
  for (const host of asking) {
    const from = { at: "host" as const, host };
    yield asClient(from, { to: "address" });
    yield asClient(from, { to: "internet", service: null });
  }
  for (const host of asking)
    for (const other of far)
      if (other !== host) yield asClient({ at: "host", host }, { to: "host", host: other, service: null });
  for (const { kind, id } of suspect.subjects) {
    const ssid = kind === "ssid" ? index.plan.ssid.get(id) : undefined;
    for (const point of ssid === undefined ? [] : pointsOf(index, ssid))
      yield asClient({ at: "ssid", ssid: id, device: point.id }, { to: "address" });
  }
}

/** Whether something of the one who complains works as planned: what the fault hides behind. */
function isHidden(copy: Copy, { from }: ProbeQuestion): boolean {
  const goals: ProbeQuestion["goal"][] = [{ to: "address" }, { to: "internet", service: null }];
  return goals.some((goal) => {
    const look = firstLook({ what: "try", question: asClient(from, goal) });
    const [planned, seen] = [copy.planned(look).expected, copy.seen(look).expected];
    // An address of the own segment looks right to whoever reads no further.
    if (seen.is === "lease") return planned.is === "lease" && seen.segment === planned.segment;
    return seen.is === "answer" && planned.is === "answer";
  });
}

/** How deep a complaint lies: whether something works for the one who has it. */
export const levelOf = (copy: Copy, question: ProbeQuestion): 1 | 2 => (isHidden(copy, question) ? 2 : 1);

/** Whether somebody notices: that something does not work any more, or that it works and must not. */
function isNoticed(planned: Predicted, seen: Predicted): boolean {
  const worked = planned.expected.is === "lease" || planned.expected.is === "answer";
  const isOpen = planned.expected.is === "silence" && seen.expected.is === "answer";
  return seen.key !== planned.key && (worked || isOpen);
}

/** Which complaint is looked for: of what level, and whether of an address that is not got; null for any. */
export interface Complaining {
  readonly level: 1 | 2 | null;
  readonly about: "address" | null;
}

/** What somebody complains of in a copy; null where nobody notices it so. */
export function complaintOf(copy: Copy, { level, about }: Complaining, roll: Dice): Ask | null {
  const [fault] = copy.faults;
  if (fault === undefined) return null;
  for (const question of complaints(copy.index, fault, roll)) {
    if (about !== null && question.goal.to !== about) continue;
    const ask: Ask = { what: "try", question };
    const look = firstLook(ask);
    const seen = copy.study.predicted(fault, ask);
    if (seen === null || !isNoticed(copy.planned(look), seen)) continue;
    if (level === null || levelOf(copy, question) === level) return ask;
  }
  return null;
}
