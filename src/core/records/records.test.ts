import { v7 } from "uuid";
import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { must } from "../kernel";
import { afterEdits, applyChanges, diff, PlanEdits, PlanIndex, type Plan } from "../plan";
import { foundState, operationsBetween, type Step } from "../runbook";
import { dice, type Dice } from "../testing/plants";
import { disturbed, smallSite } from "../testing/small-sites";
import { siteAsIs } from "./as-is";
import { decodeEntry, encodeEntry, type Recorded, type RecordEntry, type Tick, type TickCame } from "./entry";
import { changesOf, changesOfFound, partsOf } from "./parts";
import { remaining } from "./remaining";
import { follow, latestVisit, tickedStep, unnamedDevices, unsavedDevices } from "./visit";

const PRACTICE = fennelStreet();
const WORKS = bramblewick();
const AT = "2026-11-29T09:00:00.000Z";

type Fields<D> = D extends unknown ? Omit<D, "id" | "at"> : never;

/** Somebody on site: reads the order of what is left, ticks, and everything goes into the record. */
class Hand {
  record: Recorded[] = [];
  index: PlanIndex;

  constructor(plan: Plan) {
    this.index = PlanIndex.of(plan);
  }

  write(fields: Fields<RecordEntry>): RecordEntry {
    const entry = { id: v7(), at: AT, ...fields } as RecordEntry;
    // As it comes back from the server: nothing is lost on the way.
    const back = must(decodeEntry(JSON.parse(JSON.stringify(encodeEntry(entry)))), "it can be read back");
    expect(back).toEqual(entry);
    this.record = [...this.record, { by: "Ruth", entry: back }];
    return back;
  }

  start(before: Plan | null): void {
    const changes = before === null ? [] : must(changesOfFound(this.index, before), "a state");
    this.write({ do: "start", from: before === null ? "box" : "plan", name: "", changes });
  }

  asIs(): PlanIndex {
    return must(siteAsIs(this.index, this.#entries()), "a state");
  }

  #entries(): RecordEntry[] {
    return this.record.map(({ entry }) => entry);
  }

  steps(): readonly Step[] {
    return must(remaining(this.index, this.record), "an order").runbook.steps;
  }

  left(): number {
    return operationsBetween(this.asIs(), this.index).length;
  }

  tick(step: Step, came: TickCame = "done", parts: ReadonlySet<number> | null = null): RecordEntry | null {
    const none = step.operation === null || came === "cannot";
    const changes = none ? [] : changesOf(this.asIs(), must(step.operation, "an operation"), parts);
    return changes === null
      ? null
      : this.write({
          do: "tick",
          after: this.last(),
          step: tickedStep(step),
          came,
          read: "",
          note: "",
          photos: [],
          changes,
        });
  }

  last(): string | null {
    return latestVisit(this.record)?.ticks.at(-1)?.tick.id ?? null;
  }

  ticks(): Tick[] {
    return must(latestVisit(this.record), "a visit").ticks.map(({ tick }) => tick);
  }

  /** Goes through everything that is left, as it is found now. */
  goThrough(): void {
    for (const step of this.steps()) this.tick(step);
  }
}

/** A morning on site: reloads, a tick taken back, a step of which only a part did take. */
function morning(hand: Hand, roll: Dice): void {
  for (let tries = 0; tries < 6; tries += 1) {
    const steps = hand.steps();
    const known = hand.ticks().length;
    const many = roll(steps.length + 1);
    for (const [at, step] of steps.slice(0, many).entries()) {
      const count = step.operation?.edits.length ?? 0;
      if (count > 1 && roll(2) === 0) {
        hand.tick(step, "differs", new Set([roll(count)]));
        break;
      }
      hand.tick(step);
      const { ticks, holds } = follow(steps, hand.ticks().slice(known));
      expect(holds).toBe(true);
      expect(ticks.map((tick) => tick !== null)).toEqual(steps.map((_, number) => number <= at));
    }
    const ticked = hand.ticks();
    const last = ticked.at(-1);
    if (last !== undefined && roll(3) === 0) hand.write({ do: "takeBack", tick: last.id });
  }
}

/** Everything stands on the devices as it is planned, is saved, and nobody has the leaflet's word any more. */
function isDone(hand: Hand): void {
  expect(hand.left()).toBe(0);
  expect(unsavedDevices(hand.ticks())).toEqual([]);
  expect(unnamedDevices(hand.ticks())).toEqual([]);
  expect(hand.steps()).toEqual([]);
}

test("on 15 small sites, whatever is reloaded, taken back or half done, the rest leads to the plan", () => {
  const roll = dice(401);
  let partly = 0;
  for (let n = 0; n < 15; n += 1) {
    const { before, plan } = smallSite(roll);
    const hand = new Hand(plan);
    hand.start(roll(3) === 0 ? null : before);
    morning(hand, roll);
    partly += hand.ticks().filter(({ came }) => came === "differs").length;
    hand.goThrough();
    isDone(hand);
  }
  expect(partly).toBeGreaterThan(4);
});

test.each([
  ["the house", lockkeepersHouse()],
  ["the works", WORKS],
] as const)("%s from out of the box, in two visits with a break in each", (_, plan) => {
  const hand = new Hand(plan);
  hand.start(null);
  for (const step of hand.steps().slice(0, 40)) hand.tick(step);
  hand.write({ do: "end", note: "Rain." });
  expect(latestVisit(hand.record)?.ended).toBe(AT);
  hand.write({ do: "start", from: "last", name: "", changes: [] });
  const before = hand.left();
  expect(before).toBeGreaterThan(0);
  hand.goThrough();
  expect(hand.left()).toBe(0);
});

const practice = (): { readonly hand: Hand; readonly before: Plan } => {
  const before = disturbed(PRACTICE, dice(7), 6);
  const hand = new Hand(PRACTICE);
  hand.start(before);
  return { hand, before };
};

test("a visit that starts with a plan file has on the devices what that says", () => {
  const { hand, before } = practice();
  const found = must(foundState(hand.index, before), "a state");
  expect(operationsBetween(hand.asIs(), found)).toEqual([]);
  expect(operationsBetween(found, hand.asIs())).toEqual([]);
  expect(hand.left()).toBeGreaterThan(0);
});

test("a tick changes what is on the devices by its operation and nothing else, and taken back nothing", () => {
  const { hand } = practice();
  const step = must(
    hand.steps().find(({ operation }) => operation !== null),
    "something to do",
  );
  const was = hand.asIs().plan;
  const entry = must(hand.tick(step), "it can be done");
  const is = hand.asIs().plan;
  const applied = applyChanges(
    was,
    must(changesOf(hand.asIs(), must(step.operation, "one")), "none are left"),
  );
  expect(applied.ok && diff(applied.value, was)).toEqual([]);
  expect(diff(was, is).length).toBe(must(step.operation, "one").edits.length);
  hand.write({ do: "takeBack", tick: entry.id });
  expect(diff(hand.asIs().plan, was)).toEqual([]);
});

test("what can't be done is left out of what comes next, and everything else is still done", () => {
  const { hand } = practice();
  const step = must(
    hand.steps().find(({ operation }) => operation !== null),
    "something to do",
  );
  hand.tick(step, "cannot");
  const rest = hand.steps();
  expect(rest.some(({ title, device }) => title === step.title && device === step.device)).toBe(false);
  for (const step of rest) hand.tick(step);
  expect(hand.left()).toBe(1);
});

test("a plan that changes while a visit goes on: only the difference is left", () => {
  const { hand } = practice();
  hand.goThrough();
  expect(hand.left()).toBe(0);
  const port = must(
    [...PRACTICE.port.values()].find(({ device, untagged, tagged }) => {
      const own = PRACTICE.device.get(device);
      return (
        own?.bridging === "vlan" && own.kind === "switch" && untagged.length === 1 && tagged.length === 0
      );
    }),
    "an access port",
  );
  const edits = new PlanEdits(PRACTICE);
  edits.patch("port", port.id, { enabled: !port.enabled });
  hand.index = must(afterEdits(PlanIndex.of(PRACTICE), edits), "it can be edited so");
  const done = hand.steps().filter(({ kind }) => kind === "do");
  expect(done.map(({ device }) => device)).toEqual([port.device]);
});

test("what was done to gear that is gone from the plan is left out, the rest stays done", () => {
  const hand = new Hand(WORKS);
  hand.start(null);
  hand.goThrough();
  const edits = new PlanEdits(WORKS);
  const segment = must(
    [...WORKS.scope.values()].find(({ serverDevice }) => serverDevice !== null),
    "a scope",
  );
  edits.remove("scope", segment.id);
  hand.index = must(afterEdits(PlanIndex.of(WORKS), edits), "it can be edited so");
  expect(hand.asIs().plan.scope.has(segment.id)).toBe(true);
  const left = operationsBetween(hand.asIs(), hand.index);
  expect(left.map(({ page }) => page)).toEqual(["scope"]);
});

test("two who tick the same steps at once have done them once: a later one like them stays open", () => {
  const hand = new Hand(WORKS);
  hand.start(null);
  const steps = hand.steps();
  const saves = steps.flatMap(({ kind, device }, at) => (kind === "save" ? [{ device, at }] : []));
  const [first, again] = must(
    saves
      .map((save) => [save, saves.find(({ device, at }) => at > save.at && device === save.device)] as const)
      .find(([, later]) => later !== undefined),
    "a device that is saved twice",
  );
  for (const step of steps.slice(0, first.at - 1)) hand.tick(step);
  const both = steps.slice(first.at - 1, first.at + 1);
  const common = hand.record;
  for (const step of both) hand.tick(step);
  const hers = hand.record.slice(common.length);
  hand.record = common;
  for (const step of both) hand.tick(step);
  const his = hand.record.slice(common.length);
  hand.record = [...common, ...hers, ...his];
  const { ticks, holds } = follow(steps, hand.ticks());
  expect(holds).toBe(true);
  expect(ticks.findIndex((tick) => tick === null)).toBe(first.at + 1);
  expect(ticks[must(again, "later").at]).toBeNull();
});

test("two who begin at the same time are on one visit: what the first has ticked stays", () => {
  const { hand } = practice();
  const [begin, step] = hand.steps();
  hand.tick(must(begin, "a step"));
  hand.tick(must(step, "a step"));
  const [asIs, ticks] = [hand.asIs().plan, hand.ticks()];
  hand.start(null);
  expect(diff(hand.asIs().plan, asIs)).toEqual([]);
  expect(hand.ticks()).toEqual(ticks);
  hand.write({ do: "end", note: "" });
  hand.start(null);
  expect(hand.ticks()).toEqual([]);
  expect(diff(hand.asIs().plan, must(foundState(hand.index, null), "a state").plan)).toEqual([]);
});

test("the parts of a step are said one by one", () => {
  const { hand } = practice();
  const step = must(
    hand.steps().find(({ operation }) => (operation?.edits.length ?? 0) > 0),
    "something to do",
  );
  const operation = must(step.operation, "one");
  const parts = partsOf(hand.index, hand.asIs(), operation);
  expect(parts).toHaveLength(operation.edits.length);
  expect(parts[0]).toMatch(/\w+, .*\d/);
});

test("what is no entry is none, and an entry of half a character neither", () => {
  const hand = new Hand(PRACTICE);
  const entry = encodeEntry(hand.write({ do: "end", note: "Fine" })) as object;
  expect(decodeEntry(entry)).not.toBeNull();
  expect(decodeEntry({ ...entry, note: "\ud83d" })).toBeNull();
  expect(decodeEntry({ ...entry, at: "yesterday" })).toBeNull();
  expect(decodeEntry({ ...entry, more: 1 })).toBeNull();
  expect(decodeEntry(null)).toBeNull();
});

test("a copy that was made in a visit is not asked for again after a reload", () => {
  const hand = new Hand(lockkeepersHouse());
  hand.start(disturbed(lockkeepersHouse(), dice(11), 3));
  const steps = hand.steps();
  const upTo = steps.findIndex(({ kind }) => kind === "copy");
  for (const step of steps.slice(0, upTo + 1)) hand.tick(step);
  const left = hand.steps().filter(({ kind }) => kind === "copy");
  expect(left.map(({ device }) => device)).not.toContain(must(steps[upTo], "a copy").device);
  hand.goThrough();
  isDone(hand);
});
