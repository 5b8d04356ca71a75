import { must } from "../kernel";
import { afterEdits, diff, nameOf, type Device, type Host, type Plan, type PlanIndex } from "../plan";
import { nameOnDevice } from "../planners";
import { cardOf, laptopText, opensText } from "./card";
import { foundState, setUpDevices } from "./found";
import { connected, withoutDevice } from "./interrupts";
import { minutesOf } from "./minutes";
import { leftOver, operationsBetween, type Operation } from "./operations";
import { spotsAlong } from "./reach";
import { orderOf } from "./search";
import { type Order, type Stand, type Taken } from "./order";
import { States, type State } from "./states";
import type { Step } from "./step";
import { backOf, cautionOf, moveWords, whyHere } from "./step-words";
import { slotsOf, type Slot } from "./windows";
import { withPermits } from "./permits";
import { operationWords, type Value } from "./words";

/** The order of work from what is on the devices to the plan, as plain data. */
export interface Runbook extends Pick<
  Order,
  "moves" | "blind" | "pulled" | "consoles" | "isExhaustive" | "looked"
> {
  readonly devices: readonly Device[];
  readonly steps: readonly Step[];
  /** When they are done: those that stop nobody at any time, the others in the site's windows. */
  readonly slots: readonly Slot[];
  /** Devices on which there is nothing to do. */
  readonly alreadySo: readonly Device[];
  /** Whether the site at the end is the plan, to the last field. */
  readonly endsAsPlanned: boolean;
}

/** Above so much gear, of what the laptop reaches only that is told which the proof itself has found. */
const MOST_LANES = 40;

/** Makes the steps of an order, with what belongs to every visit in between. */
class Writer {
  readonly #index: PlanIndex;
  readonly #states: States;
  readonly #devices: readonly Device[];
  readonly steps: Step[] = [];
  #state: State;
  #at: string | null = null;
  #stand: Stand = null;
  /** The device that the stand opens in this state, where that is known. */
  #stands: string | null = null;
  #joined: ReadonlySet<string>;

  /** Devices of whose settings there is a copy, or none is needed: they came out of the box. */
  readonly #copied: Set<string>;

  constructor(index: PlanIndex, states: States, start: State, copied: readonly string[]) {
    this.#copied = new Set(copied);
    this.#index = index;
    this.#states = states;
    this.#devices = setUpDevices(index);
    this.#state = start;
    this.#joined = start.joined;
  }

  #reaches(device: string | null): Set<string> {
    const at = this.#at;
    if (at === null) return new Set();
    const all = this.#devices.map(({ id }) => id);
    if (all.length <= MOST_LANES)
      return new Set(all.filter((id) => this.#states.way(this.#state, at, id) !== null));
    return new Set(device !== null && device === this.#stands ? [device] : []);
  }

  #add(step: Pick<Step, "kind" | "title" | "device"> & Partial<Step>): void {
    const timed = { kind: step.kind, device: step.device, operation: step.operation ?? null };
    this.steps.push({
      values: [],
      stops: [],
      minutes: minutesOf(this.#index, timed),
      why: "",
      card: cardOf(this.#state, this.#stand),
      needsConsole: false,
      isBlind: false,
      cuts: [],
      mends: [],
      reaches: this.#reaches(step.device),
      back: "",
      caution: "",
      operation: null,
      ...step,
    });
  }

  /** The laptop goes to another port; nothing is said where it stays. */
  #moveTo(stand: Stand, device: string): void {
    this.#stand = stand;
    this.#stands = stand === null ? null : device;
    if (stand === null || stand.port === this.#at) return;
    const [from, to] = [this.#at, stand.port];
    this.#at = to;
    this.#add({ kind: "move", device, ...moveWords(this.#index, from, to) });
  }

  /** What is printed on its leaflet is changed before anything else. */
  credentials(device: Device): void {
    const index = this.#index;
    this.#add({
      kind: "credentials",
      title: "New administrator's name and word, its own name",
      device: device.id,
      values: [
        ["Name", nameOnDevice(index, device)],
        ["Kept", device.credentialsPlace === "" ? "a place is still to be named" : device.credentialsPlace],
      ],
      why:
        "Before anything else: what is printed on every leaflet is known to everybody. Only the place " +
        "where they are kept is written down.",
    });
  }

  #deviceOf({ device }: Operation): Device {
    return must(this.#index.plan.device.get(device), "the device of an operation");
  }

  /** What stands on a device that is in use is copied before its first change. */
  #copy(device: Device, { page }: Operation): void {
    if (this.#copied.has(device.id)) return;
    this.#copied.add(device.id);
    if (page === "power") return;
    const at = this.#at;
    const way = at === null ? null : this.#states.way(this.#state, at, device.id);
    this.#add({
      kind: "copy",
      card: at === null || way === null ? null : cardOf(this.#state, { port: at, way }),
      title: "Save a copy of what is on it",
      device: device.id,
      values: [
        [
          "Kept",
          device.credentialsPlace === ""
            ? "a place is still to be named; passwords are in it"
            : `with its credentials: ${device.credentialsPlace}`,
        ],
      ],
      why:
        "Before the first change: it brings the device back when a step goes wrong." +
        (device.abilities.fallsBack
          ? " It falls back by itself unless a change is confirmed: switch that on now, and confirm " +
            "each step once the device is reached again."
          : ""),
    });
  }

  /** Who is cut off and who gets through again by an operation, and whom a restart for it stops. */
  #interrupts({ page, device }: Operation, state: State): Pick<Step, "cuts" | "mends" | "stops"> {
    const [was, joined] = [this.#joined, state.joined];
    this.#joined = joined;
    const hosts = (ids: Iterable<string>, others: ReadonlySet<string>): Host[] =>
      ids === others
        ? []
        : [...ids].flatMap((id) => (others.has(id) ? [] : (this.#index.plan.host.get(id) ?? [])));
    const stops = page === "software" ? hosts(joined, connected(withoutDevice(state.index, device))) : [];
    return { cuts: hosts(was, joined), mends: hosts(joined, was), stops };
  }

  /** Whether a device is opened after an operation at the port where it was before. */
  #stays(before: Taken["before"], stand: Stand, device: string): boolean {
    const stays = stand !== null && before !== "by hand" && stand.port === before?.port;
    if (stays) this.#stand = stand;
    this.#stands = stays ? device : null;
    return stays;
  }

  /** `then` is the operation that brings the device back where this one puts it out of reach. */
  take({ operation, before, after, state }: Taken, then: Operation | null): void {
    const index = this.#index;
    const device = this.#deviceOf(operation);
    if (before !== "by hand") this.#moveTo(before, device.id);
    this.#copy(device, operation);
    // Nobody copies anything while a device is out of reach: what the next step is on is copied first, too.
    if (after === "next" && then !== null) this.#copy(this.#deviceOf(then), then);
    const { cuts, mends, stops } = this.#interrupts(operation, state);
    const isBlind = after === "next";
    const stand = isBlind ? null : after;
    const [card, seen] = [before === "by hand" ? null : cardOf(this.#state, before), cardOf(state, stand)];
    this.#state = state;
    const stays = this.#stays(before, stand, device.id);
    this.#add({
      kind: "do",
      ...operationWords(index, operation),
      device: device.id,
      card,
      needsConsole: before === null || after === null,
      isBlind,
      cuts,
      mends,
      stops,
      why: whyHere(index, device, operation, { before, after, card, seen }),
      back: backOf(index, operation, isBlind ? "next" : seen),
      caution: cautionOf(index, operation, [...cuts, ...stops]),
      operation,
    });
    if (!stays && !isBlind) this.#moveTo(stand, device.id);
    if (operation.page === "power") this.credentials(device);
  }

  /** All operations in their order, each device saved before one goes on to another. */
  all(order: readonly Taken[]): void {
    for (const [at, taken] of order.entries()) {
      const then = order[at + 1]?.operation ?? null;
      this.take(taken, then);
      if (then?.device !== taken.operation.device && taken.after !== "next")
        this.save(this.#deviceOf(taken.operation));
      if (taken.regains !== null) this.regain(taken.regains);
    }
  }

  /** What was left open before: names and words of leaflets, and what is not saved. */
  owed(unnamed: readonly string[], unsaved: readonly Device[]): void {
    for (const id of unnamed) {
      const device = this.#index.plan.device.get(id);
      if (device !== undefined) this.credentials(device);
    }
    for (const device of unsaved) this.save(device);
  }

  /** What was out of reach for a step is looked at again, and only then saved. */
  regain({ device: id, stand }: NonNullable<Taken["regains"]>): void {
    this.#stand = stand;
    this.#moveTo(stand, id);
    const opens = opensText(must(cardOf(this.#state, stand), "a stand has a card"));
    this.#add({
      kind: "save",
      title: `Read back: it answers at ${opens}; then save`,
      device: id,
      why: "It was out of reach for one step. Saved before, a wrong value would have stayed.",
    });
  }

  /** The last of a visit: what is not saved is gone at the next power cut. */
  save(device: Device): void {
    this.#add({
      kind: "save",
      title: "Save, and look whether it is saved",
      device: device.id,
      why: "A configuration that is not saved is gone at the next power cut.",
    });
  }

  begin(): void {
    this.#add({
      kind: "begin",
      title: "Note what the laptop has now; wireless off",
      device: null,
      card: null,
      why: "The last step puts it back. With wireless on, the laptop may answer by another way than the cable.",
    });
  }

  end(): void {
    this.#add({
      kind: "end",
      title: "Put back what the laptop had before",
      device: null,
      card: null,
      why: "A static address that is forgotten looks like a fault of the network on the next site.",
    });
  }
}

/** Whether the last state is the plan: what only the box had goes by itself. */
function endsAsPlanned(last: PlanIndex, plan: Plan): boolean {
  const end = afterEdits(last, leftOver(last.plan, plan));
  return end !== null && diff(end.plan, plan).length === 0;
}

/** A runbook with the states that prove it. */
export interface Proven {
  readonly runbook: Runbook;
  readonly order: Order;
  readonly operations: readonly Operation[];
}

/** What comes first by an order that is still looked for, to be read meanwhile. */
export interface Ahead {
  readonly operation: string;
  readonly device: string;
  readonly title: string;
  readonly values: readonly Value[];
  /** Where the laptop is for it; empty where nothing is opened, or only a console cable goes on. */
  readonly laptop: string;
}
/** Hears how many operations have found their place, and what comes first. */
export type Progress = (done: number, all: number, ahead: Ahead | null) => void;

function aheadOf(index: PlanIndex, start: State, { operation, before }: Taken): Ahead {
  const card = before === "by hand" ? null : cardOf(start, before);
  return {
    operation: operation.id,
    device: nameOf(index, "device", operation.device),
    ...operationWords(index, operation),
    laptop:
      card === null
        ? ""
        : `laptop at ${nameOf(index, "port", card.port)} with ${laptopText(card)}; it opens ${opensText(card)}`,
  };
}

/** What an order is looked for with. */
export interface Asked {
  /** Hears how many operations have found their place. */
  readonly tell: Progress;
  /** The time on the clock at the site, "2026-12-05T18:20"; null where it is not known. */
  readonly now: string | null;
}
export const JUST_ASKED: Asked = { tell: () => undefined, now: null };

/**
 * The order of work from what is found to the plan; `before` is what an earlier plan says of the devices,
 * null for gear out of the box. Null where what is found is no state of a plan, or what is planned refers to
 * what is nowhere.
 */
export function provenRunbook(
  index: PlanIndex,
  before: Plan | null,
  asked: Asked = JUST_ASKED,
): Proven | null {
  const found = foundState(index, before);
  return found === null ? null : provenFrom(index, found, { ...NOTHING_DONE, ...asked });
}

/** What a visit that goes on has behind it. */
export interface SoFar extends Asked {
  /** Devices on which something was done and not saved. */
  readonly unsaved: readonly string[];
  /** Devices that were powered and have the administrator's name and word of their leaflet. */
  readonly unnamed: readonly string[];
  /** Devices on which somebody has worked in this visit: a copy of before was made, or they came new. */
  readonly copied: readonly string[];
  /** The permits that are signed in this visit, by their signatures. */
  readonly signed: readonly string[];
  /** Whether the laptop is prepared, and whether it has back what it had. */
  readonly isBegun: boolean;
  readonly isPutBack: boolean;
}

const NOTHING_DONE: Omit<SoFar, keyof Asked> = {
  unsaved: [],
  unnamed: [],
  copied: [],
  signed: [],
  isBegun: false,
  isPutBack: false,
};

/** The devices that are not saved and on which nothing else is to be done, after which they would be. */
const savedFirst = (
  index: PlanIndex,
  unsaved: readonly string[],
  operations: readonly Operation[],
): Device[] =>
  unsaved.flatMap((id) =>
    operations.some(({ device }) => device === id) ? [] : (index.plan.device.get(id) ?? []),
  );

/** The order of work from a state of the site to the plan; null as for `provenRunbook`. */
export function provenFrom(
  index: PlanIndex,
  found: PlanIndex,
  { unsaved, unnamed, copied, signed, isBegun, isPutBack, tell, now }: SoFar,
): Proven | null {
  const operations = operationsBetween(found, index);
  const states = new States(operations, index.plan.port.size);
  const start = states.first(found);
  let ahead: Ahead | null = null;
  const order = orderOf(states, start, spotsAlong(found, index), (done, all, first) => {
    if (first !== null && ahead?.operation !== first.operation.id) ahead = aheadOf(index, start, first);
    tell(done, all, ahead);
  });
  if (order === null) return null;
  const writer = new Writer(index, states, order.start, copied);
  if (order.taken.length > 0 && !isBegun) writer.begin();
  writer.owed(unnamed, savedFirst(index, unsaved, operations));
  writer.all(order.taken);
  if (order.taken.length > 0 || (isBegun && !isPutBack)) writer.end();
  const busy = new Set(operations.map(({ device }) => device));
  const { moves, blind, pulled, consoles, isExhaustive, looked } = order;
  const steps = withPermits(index, writer.steps, { signed, now });
  const runbook: Runbook = {
    moves,
    blind,
    pulled,
    consoles,
    isExhaustive,
    looked,
    devices: setUpDevices(index),
    steps,
    slots: slotsOf(index, steps, now),
    alreadySo: setUpDevices(index).filter(({ id }) => !busy.has(id)),
    endsAsPlanned: endsAsPlanned(order.taken.at(-1)?.state.index ?? found, index.plan),
  };
  return { runbook, order, operations };
}
