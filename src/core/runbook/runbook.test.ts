import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { step } from "../address";
import { must } from "../kernel";
import {
  afterEdits,
  applyChanges,
  diff,
  invert,
  nameOf,
  PlanEdits,
  PlanIndex,
  vid,
  type Plan,
} from "../plan";
import { pageFrom } from "../probe";
import { dice } from "../testing/plants";
import { disturbed, smallSite } from "../testing/small-sites";
import { foundState } from "./found";
import { operationsBetween, type Operation } from "./operations";
import { isApart } from "./interrupts";
import { isCabled, spotsAlong, wayFrom, whyNot, type Spots } from "./reach";
import { JUST_ASKED, provenRunbook, type Proven } from "./runbook";
import { excusedIn, orderOf } from "./search";
import { cheapest } from "./cheapest";
import { stepByStep } from "./step-by-step";
import { BLIND, costOf, moveCost, type Order, type Stand } from "./order";
import { States, type State } from "./states";

const proven = (plan: Plan, before: Plan | null): Proven =>
  must(provenRunbook(PlanIndex.of(plan), before), "a runbook");

/**
 * Every step that says how the laptop gets to a device is asked anew, on the plan as it is then and nothing
 * else.
 */
function heldToProbes({ order }: Proven): number {
  let pages = 0;
  let plan = order.start.index.plan;
  const opens = (device: string, { way }: NonNullable<Stand>) =>
    expect(pageFrom(PlanIndex.of(plan), way.laptop, { device, address: way.to })).toBeNull();
  for (const { operation, before, after, regains, state } of order.taken) {
    if (before !== "by hand" && before !== null) {
      pages += 1;
      opens(operation.device, before);
    }
    plan = state.index.plan;
    if (after !== null && after !== "next") {
      pages += 1;
      opens(operation.device, after);
    }
    if (regains !== null) {
      pages += 1;
      opens(regains.device, regains.stand);
    }
  }
  return pages;
}

/** Every operation taken back brings back the plan before it, to the last field. */
function heldToInverses({ order }: Proven): void {
  let plan = order.start.index.plan;
  for (const { state } of order.taken) {
    const back = applyChanges(state.index.plan, invert(diff(plan, state.index.plan)));
    expect(back.ok && diff(back.value, plan)).toEqual([]);
    plan = state.index.plan;
  }
}

/** Steps that need a console cable although their device was reached from somewhere at the beginning. */
function lockedOut({ order, runbook, operations }: Proven, plan: Plan): string[] {
  const { start } = order;
  const index = PlanIndex.of(plan);
  const { free, cabled } = spotsAlong(start.index, index);
  const states = new States(operations, 1);
  const isReached = (device: string) =>
    [...free, ...(cabled.get(device) ?? [])].some((port) => states.way(start, port, device) !== null);
  return runbook.steps.flatMap(({ needsConsole, device, title }) =>
    needsConsole && device !== null && isReached(device) ? [title] : [],
  );
}

const DEMO = [
  ["the practice", fennelStreet],
  ["the house", lockkeepersHouse],
  ["the works", bramblewick],
] as const;

describe.each(DEMO)("%s", (_name, make) => {
  test("out of the box: a proven order that ends as planned, every page asked by itself", () => {
    const made = proven(make(), null);
    expect(made.order.consoles).toBe(0);
    expect(made.runbook.endsAsPlanned).toBe(true);
    expect(made.runbook.steps.filter(({ needsConsole }) => needsConsole)).toEqual([]);
    expect(heldToProbes(made)).toBeGreaterThan(60);
    heldToInverses(made);
  });

  test("from what somebody left: nobody reached at first is locked out, and it ends as planned", () => {
    const plan = make();
    for (let seed = 1; seed <= 2; seed += 1) {
      const made = proven(plan, disturbed(plan, dice(seed * 77), 6));
      expect(made.order.taken.length).toBeGreaterThan(0);
      expect([seed, lockedOut(made, plan)]).toEqual([seed, []]);
      expect(made.runbook.endsAsPlanned).toBe(true);
      heldToProbes(made);
      heldToInverses(made);
    }
  });

  test("from the plan itself: nothing to do", () => {
    const plan = make();
    const made = proven(plan, plan);
    expect(made.runbook.steps).toEqual([]);
    expect(made.runbook.alreadySo).toHaveLength(made.runbook.devices.length);
  });
});

interface Searched {
  readonly states: States;
  readonly start: State;
  readonly spots: Spots;
  readonly order: Order | null;
}

function searched({ before, plan }: ReturnType<typeof smallSite>): Searched {
  const index = PlanIndex.of(plan);
  const found = must(foundState(index, before), "a state");
  const states = new States(operationsBetween(found, index), 1);
  const spots = spotsAlong(found, index);
  const start = states.first(found);
  return { states, start, spots, order: orderOf(states, start, spots) };
}

/** What it cost to have the laptop at each port where it can be, in one order of work. */
type Costs = ReadonlyMap<string | null, number>;

/** A port from which a device is reached, and what going there costs. */
interface Reaching {
  readonly port: string;
  readonly cost: number;
}

const nowAt = (costs: Costs, reaching: readonly Reaching[]): Map<string | null, number> =>
  new Map(
    reaching.map(({ port, cost }) => [
      port,
      Math.min(...[...costs].map(([at, spent]) => spent + (at === port ? 0 : cost))),
    ]),
  );

/**
 * The cheapest of all orders there are, tried one after the other without any memory; null where every one of
 * them comes to a device that nothing reaches.
 */
function fewest({ states, start, spots }: Searched): number | null {
  const reaching = (state: State, device: string, costs: Costs): Reaching[] => {
    const cabled = spots.cabled.get(device) ?? [];
    const all = new Set([...spots.free, ...cabled, ...costs.keys()]);
    return [...all].flatMap((port) =>
      port === null || states.way(state, port, device) === null
        ? []
        : [{ port, cost: moveCost(isCabled(spots, port)) }],
    );
  };
  /** The same with the device out of reach for one operation on another, after which it is looked at. */
  const blindly = (state: State, costs: Costs, lost: string): number => {
    let best = Number.POSITIVE_INFINITY;
    for (const operation of states.next(state)) {
      const next = operation.device === lost ? null : states.after(state, operation);
      if (next === null) continue;
      const before = nowAt(costs, reaching(state, operation.device, costs));
      const after = nowAt(before, reaching(next, operation.device, before));
      const back = nowAt(after, reaching(next, lost, after));
      if (before.size > 0 && after.size > 0 && back.size > 0)
        best = Math.min(best, BLIND + tryAll(next, back));
    }
    return best;
  };
  const tryAll = (state: State, moves: Costs): number => {
    if (state.count === states.operations.length) return Math.min(...moves.values());
    let best = Number.POSITIVE_INFINITY;
    for (const operation of states.operations) {
      if (state.isDone(operation.id) || operation.after.some((before) => !state.isDone(before))) continue;
      const next = states.after(state, operation);
      const before = nowAt(moves, reaching(state, operation.device, moves));
      if (next === null || before.size === 0) continue;
      const seen = reaching(next, operation.device, before);
      if (seen.length > 0) best = Math.min(best, tryAll(next, nowAt(before, seen)));
      best = Math.min(best, blindly(next, before, operation.device));
    }
    return best;
  };
  const least = tryAll(start, new Map([[null, 0]]));
  return Number.isFinite(least) ? least : null;
}

/** What a recipe comes to: device by device in the order of the list, the laptop in one port of each. */
function recipeLocksOut({ states, start, spots }: Searched): boolean {
  let state = start;
  let at: string | null = null;
  let device = "";
  for (const operation of states.operations) {
    if (operation.device !== device) {
      device = operation.device;
      at = spots.free.find((port) => states.way(state, port, operation.device) !== null) ?? null;
    }
    const next: State | null = states.after(state, operation);
    if (at === null || next === null || states.way(next, at, device) === null) return true;
    state = next;
  }
  return false;
}

/** How many sites are tried in every order. */
const SITES = 16;

test(`on ${SITES} small sites an order is found exactly when there is one, with the fewest moves`, () => {
  const counts = { solved: 0, none: 0, moves: 0, fewest: 0, recipe: 0, sites: 0 };
  for (let seed = 1; counts.sites < SITES; seed += 1) {
    const site = searched(smallSite(dice(seed * 7919)));
    const count = site.states.operations.length;
    if (count === 0 || count > 7) continue;
    counts.sites += 1;
    const least = fewest(site);
    const { order } = site;
    const isProven = order !== null && order.consoles === 0;
    expect([seed, isProven]).toEqual([seed, least !== null]);
    if (recipeLocksOut(site)) counts.recipe += 1;
    if (order === null || least === null) {
      counts.none += 1;
      continue;
    }
    counts.solved += 1;
    const spent = costOf(order);
    counts.moves += spent;
    counts.fewest += least;
    expect([seed, spent]).toEqual([seed, least]);
  }
  expect(counts.solved).toBeGreaterThan(4);
  expect(counts.none).toBeGreaterThan(2);
  expect(counts.recipe).toBeGreaterThan(0);
});

test("the search of larger sites on 60 small ones: few orders missed, few moves more, none made up", () => {
  const counts = { sites: 0, solved: 0, missed: 0, none: 0, moves: 0, fewest: 0 };
  for (let seed = 1; counts.sites < 60; seed += 1) {
    const { before, plan } = smallSite(dice(seed * 104_729));
    const index = PlanIndex.of(plan);
    const found = must(foundState(index, before), "a state");
    const operations = operationsBetween(found, index);
    if (operations.length === 0 || operations.length > 10) continue;
    counts.sites += 1;
    const spots = spotsAlong(found, index);
    const [exact, quick] = [cheapest, stepByStep].map((search) => {
      const states = new States(operations, 1);
      const start = states.first(found);
      const last = must(states.last(start), "all can be done");
      const site = { states, spots, excused: excusedIn(states, spots, start, last) };
      return must(
        search(site, start, () => undefined),
        "an order",
      );
    });
    const [best, own] = [must(exact, "the best"), must(quick, "the quick one")];
    if (best.consoles > 0) {
      counts.none += 1;
      expect([seed, own.consoles > 0]).toEqual([seed, true]);
    } else if (own.consoles > 0) counts.missed += 1;
    else {
      counts.solved += 1;
      counts.moves += own.moves;
      counts.fewest += best.moves;
      expect(costOf(own)).toBeGreaterThanOrEqual(costOf(best));
    }
  }
  expect(counts.solved).toBeGreaterThan(25);
  expect(counts.none).toBeGreaterThan(10);
  expect(counts.missed).toBeLessThanOrEqual(2);
  expect(counts.moves / counts.fewest).toBeLessThan(1.4);
});

test("trunks of a live site: the far end first, out of reach for a step, the near end, read back", () => {
  const plan = fennelStreet();
  const index = PlanIndex.of(plan);
  const edits = new PlanEdits(plan);
  const portOf = (device: string, label: string) =>
    must(
      [...plan.port.values()].find(
        (port) => nameOf(index, "device", port.device) === device && port.label === label,
      ),
      label,
    );
  const kit = must(vid(10), "VLAN 10");
  for (const { id } of [portOf("Switch B", "17"), portOf("Upper switch", "25")])
    edits.patch("port", id, { pvid: kit, untagged: [kit], tagged: [], admit: "all" });
  const before = must(afterEdits(index, edits), "as it was").plan;
  const { runbook } = proven(plan, before);
  const told = runbook.steps.map(({ title, device }) => [
    device === null ? "" : nameOf(index, "device", device),
    title,
  ]);
  expect(told).toEqual([
    ["", "Note what the laptop has now; wireless off"],
    ["Switch B", "Plug the laptop into Upper switch port 23"],
    ["Switch B", "Save a copy of what is on it"],
    ["Upper switch", "Save a copy of what is on it"],
    ["Switch B", "Port 17: trunk, 8 VLANs tagged"],
    ["Upper switch", "Port 25: trunk, 7 VLANs tagged"],
    ["Upper switch", "Save, and look whether it is saved"],
    ["Switch B", "Read back: it answers at 10.24.10.4; then save"],
    ["", "Put back what the laptop had before"],
  ]);
  const [, , , , far, near] = runbook.steps;
  expect(far).toMatchObject({ isBlind: true, needsConsole: false });
  expect(far?.why).toContain("out of reach for this one step");
  expect(far?.back).toContain("Do not save yet");
  expect(near?.mends.map(({ name }) => name)).not.toEqual([]);
});

test("precedence holds in every order: what an operation builds on is done before it", () => {
  const { order } = proven(fennelStreet(), null);
  const done = new Set<string>();
  for (const { operation } of order.taken) {
    const missing = (operation satisfies Operation).after.filter((before) => !done.has(before));
    expect([operation.id, missing]).toEqual([operation.id, []]);
    done.add(operation.id);
  }
});

test("a device in use is copied before its first change, once; one out of its box is not", () => {
  const plan = fennelStreet();
  const firsts = ({ runbook }: Proven) => {
    const seen = new Map<string, string[]>();
    for (const { kind, device } of runbook.steps)
      if (device !== null && (kind === "copy" || kind === "do"))
        seen.set(device, [...(seen.get(device) ?? []), kind]);
    return [...seen.values()].map(([first, ...rest]) => [first, rest.includes("copy")]);
  };
  const used = firsts(proven(plan, disturbed(plan, dice(11), 18)));
  expect(used.length).toBeGreaterThan(2);
  expect(new Set(used.map(String))).toEqual(new Set(["copy,false"]));
  expect(new Set(firsts(proven(plan, null)).map(String))).toEqual(new Set(["do,false"]));
});

test("while an order is looked for, what comes first is told, and in the end it is what comes first", () => {
  const plan = fennelStreet();
  const told: (string | null)[] = [];
  const laptops: string[] = [];
  const made = must(
    provenRunbook(PlanIndex.of(plan), null, {
      ...JUST_ASKED,
      tell: (_done, _all, ahead) => {
        told.push(ahead?.operation ?? null);
        laptops.push(ahead?.laptop ?? "");
      },
    }),
    "a runbook",
  );
  expect(told.length).toBeGreaterThanOrEqual(made.operations.length);
  expect(told).not.toContain(null);
  expect(told.at(-1)).toBe(must(made.order.taken[0], "an operation").operation.id);
  // The first is to give something power: nothing is opened for that.
  expect(laptops.at(-1)).toBe("");
  const used = must(
    provenRunbook(PlanIndex.of(plan), disturbed(plan, dice(11), 18), {
      ...JUST_ASKED,
      tell: (_done, _all, ahead) => {
        laptops.push(ahead?.laptop ?? "");
      },
    }),
    "a runbook",
  );
  expect(used.operations.length).toBeGreaterThan(10);
  expect(laptops.at(-1)).toMatch(/^laptop at .* port .* with 10\.24\.\d+\.\d+\/\d+; it opens 10\.24\./);
});

test("gear that is off is reached from nowhere, though another answers at its first address", () => {
  const index = must(foundState(PlanIndex.of(fennelStreet()), null), "a state");
  const named = (name: string) =>
    must(
      [...index.plan.device.values()].find((device) => device.name === name),
      name,
    );
  const [first, other] = [named("Lower switch"), named("Upper switch")];
  const powered = new PlanEdits(index.plan);
  for (const { id } of index.portsOf(first.id)) powered.patch("port", id, { enabled: true });
  const planIndex = must(afterEdits(index, powered), "it can be powered");
  const from = planIndex.portsOf(first.id).map(({ id }) => id);
  expect(from.some((port) => wayFrom(planIndex, port, first.id) !== null)).toBe(true);
  expect(from.filter((port) => wayFrom(planIndex, port, other.id) !== null)).toEqual([]);
  expect(whyNot(planIndex, must(from[0], "a port"), other.id)).toBe(
    "Lower switch has the same address and answers in place of Upper switch.",
  );
});

test("where no VLAN joins a port and a leg, no page opens whatever is entered on the laptop", () => {
  let apart = 0;
  for (const [make, seed] of [fennelStreet, lockkeepersHouse, bramblewick].map(
    (make, at) => [make, at] as const,
  )) {
    const plan = make();
    for (const before of [null, plan, disturbed(plan, dice(seed + 5), 12)]) {
      const index = must(foundState(PlanIndex.of(plan), before), "a state");
      for (const leg of index.plan.interface.values()) {
        const [to] = leg.addresses4;
        for (const port of index.plan.port.values()) {
          if (to === undefined || port.position % 5 !== 1 || !isApart(index, port, leg)) continue;
          const laptop = {
            port: port.id,
            address: must(step(to, 7), "an address"),
            length: 24,
            gateway: null,
          };
          apart += 1;
          expect(pageFrom(index, laptop, { device: leg.device, address: to })).not.toBeNull();
        }
      }
    }
  }
  expect(apart).toBeGreaterThan(300);
});

test("an access point's address and only port are set together: one alone cuts it off", () => {
  const { runbook } = proven(fennelStreet(), null);
  const set = runbook.steps.filter(({ title }) => /^Address .*; Port 1: trunk/.test(title));
  expect(set.length).toBeGreaterThan(1);
  for (const { values } of set)
    expect(values).toContainEqual(["Together", "applied at once: either alone puts it out of reach"]);
});
