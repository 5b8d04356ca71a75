import { dice, type Dice } from "../kernel";
import {
  afterEdits,
  nameOf,
  PlanEdits,
  vid,
  type Device,
  type Link,
  type PlanIndex,
  type Vid,
} from "../plan";
import { foundState, Rehearsal, setUpDevices, type Move, type Told } from "../runbook";
import { shuffled } from "./complaint";

/** A job to be done in an order of one's own: what is on the devices, and what is to be. */
export interface OrderDrill {
  /** What the customer wants, in words. */
  readonly told: string;
  /** The trunks that are set anew, by the names of their ends. */
  readonly trunks: readonly string[];
  readonly rehearsal: Rehearsal;
  /** So many things are to be done. */
  readonly count: number;
}

/** How an order went: out of reach after a step, tried from where nothing answers, walks with the laptop. */
export interface OrderScore {
  readonly lockedOut: number;
  readonly unreached: number;
  readonly walks: number;
}

/** The VLAN in which gear answers of its own. */
function gearVid(index: PlanIndex, device: Device): Vid | null {
  for (const { segment } of index.interfacesOf(device.id)) {
    const own = index.plan.segment.get(segment ?? "");
    const number = own?.management === true ? index.vidOf(own) : null;
    if (number !== null) return vid(number);
  }
  return null;
}

interface Trunk {
  readonly link: Link;
  readonly vid: Vid;
}

/** Cables between gear that carry more than the VLAN of gear. */
function trunksOf(index: PlanIndex): Trunk[] {
  const devices = new Map(setUpDevices(index).map((device) => [device.id, device]));
  return [...index.plan.link.values()].flatMap((link): Trunk[] => {
    const ports = [link.a, link.b].flatMap((id) => index.plan.port.get(id) ?? []);
    const ends = ports.flatMap(({ device }) => devices.get(device) ?? []);
    const own = ends.map((device) => gearVid(index, device));
    const [a, b] = own;
    const carriesMore = ports.every(({ tagged, lag }) => tagged.length > 0 && lag === null);
    return ends.length === 2 && a !== null && a !== undefined && a === b && carriesMore
      ? [{ link, vid: a }]
      : [];
  });
}

/** The site as it was before: some trunks carry the VLAN of gear only, untagged. */
function before(index: PlanIndex, trunks: readonly Trunk[]): PlanIndex | null {
  const edits = new PlanEdits(index.plan);
  for (const { link, vid: own } of trunks)
    for (const id of [link.a, link.b])
      edits.patch("port", id, { pvid: own, untagged: [own], tagged: [], admit: "all" });
  return edits.changes().length === 0 ? null : afterEdits(index, edits);
}

/** So many trunks by level. */
const TRUNKS = { 1: 1, 2: 2, 3: 3 } as const;

/** A job on a site's own stand-ins, the same each time for the same seed; null where it has no such trunks. */
export function makeOrderDrill(index: PlanIndex, level: 1 | 2 | 3, seed: number): OrderDrill | null {
  const roll: Dice = dice(1 + (seed % 2_000_000_000));
  const all = shuffled(trunksOf(index), roll).slice(0, TRUNKS[level]);
  const was = before(index, all);
  const rehearsal = was === null ? null : Rehearsal.of(index, foundState(index, was.plan));
  if (rehearsal === null) return null;
  const trunks = all.map(
    ({ link }) => `${nameOf(index, "port", link.a)} to ${nameOf(index, "port", link.b)}`,
  );
  return {
    told:
      "“The cable between the switches is in, and the switches answer. Now the other networks have to go " +
      "over it. Do it while we work, please, and don’t lock yourself out.”",
    trunks,
    rehearsal,
    count: rehearsal.after([]).count,
  };
}

export function scoreOf(told: readonly Told[]): OrderScore {
  const ports = told.map(({ port }) => port);
  return {
    lockedOut: told.filter(({ came }) => came === "lockedOut").length,
    unreached: told.filter(({ came }) => came === "unreached").length,
    walks: ports.filter((port, at) => at > 0 && port !== ports[at - 1]).length,
  };
}

/** A way that is tried: what was done, and how it went. */
interface Tried {
  readonly moves: readonly Move[];
  readonly score: OrderScore;
}
const costOf = ({ lockedOut, walks }: OrderScore): number => lockedOut * 1000 + walks;

/** What can be done next from somewhere, with each port that reaches it. */
function* nextOf({ rehearsal }: OrderDrill, { moves }: Tried): Generator<Tried> {
  for (const { id: operation } of rehearsal.after(moves).next)
    for (const { id: port } of rehearsal.ports()) {
      const next = [...moves, { operation, port }];
      const { told } = rehearsal.after(next);
      if (told.at(-1)?.came !== "unreached") yield { moves: next, score: scoreOf(told) };
    }
}

/**
 * The order with the fewest lock-outs, and of those the one with the fewest walks: the cheapest way through
 * what has been done and where the laptop is. Null where everything cannot be done.
 */
export function bestOrder(drill: OrderDrill): Tried | null {
  const open = new Map<string, Tried>([["", { moves: [], score: scoreOf([]) }]]);
  const closed = new Set<string>();
  for (;;) {
    const [key, best] = [...open].sort((a, b) => costOf(a[1].score) - costOf(b[1].score))[0] ?? [];
    if (key === undefined || best === undefined) return null;
    if (best.moves.length === drill.count) return best;
    open.delete(key);
    closed.add(key);
    for (const next of nextOf(drill, best)) {
      const done = next.moves.map(({ operation }) => operation).sort();
      const nextKey = [...done, next.moves.at(-1)?.port ?? ""].join(" ");
      const known = open.get(nextKey);
      if (closed.has(nextKey) || (known !== undefined && costOf(known.score) <= costOf(next.score))) continue;
      open.set(nextKey, next);
    }
  }
}
