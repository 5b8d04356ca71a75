import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { must } from "../kernel";
import { afterEdits, nameOf, PlanEdits, PlanIndex, vid } from "../plan";
import { foundState } from "./found";
import { Rehearsal, type Move } from "./rehearsal";
import { provenRunbook } from "./runbook";

const plan = fennelStreet();
const index = PlanIndex.of(plan);
const portOf = (device: string, label: string): string =>
  must(
    [...plan.port.values()].find(
      (port) => nameOf(index, "device", port.device) === device && port.label === label,
    ),
    label,
  ).id;

/** The trunk to Switch B as it was: VLAN 10 untagged at both ends, nothing else. */
function trunkBefore() {
  const edits = new PlanEdits(plan);
  const kit = must(vid(10), "VLAN 10");
  for (const id of [portOf("Switch B", "17"), portOf("Upper switch", "25")])
    edits.patch("port", id, { pvid: kit, untagged: [kit], tagged: [], admit: "all" });
  return must(afterEdits(index, edits), "as it was").plan;
}

const rehearsal = must(Rehearsal.of(index, foundState(index, trunkBefore())), "a rehearsal");
const operation = (device: string): string =>
  must(
    rehearsal.after([]).next.find(({ name }) => name.startsWith(`${device}: `)),
    device,
  ).id;
const at = portOf("Upper switch", "23");

test("the near end first locks the far one out: it can't be set from there any more", () => {
  const { told, isDone } = rehearsal.after([
    { operation: operation("Upper switch"), port: at },
    { operation: operation("Switch B"), port: at },
  ]);
  expect(told.map(({ came }) => came)).toEqual(["done", "unreached"]);
  expect(told[1]?.says).toMatch(/^From Upper switch port 23 the laptop does not open Switch B: /);
  expect(isDone).toBe(false);
});

test("the far end first: out of reach for one step, then everything answers", () => {
  const { told, isDone, next } = rehearsal.after([
    { operation: operation("Switch B"), port: at },
    { operation: operation("Upper switch"), port: at },
  ]);
  expect(told.map(({ came }) => came)).toEqual(["lockedOut", "done"]);
  expect(told[0]?.says).toContain("Switch B does not answer at Upper switch port 23 any more");
  expect([isDone, next]).toEqual([true, []]);
});

test("what can't come next, or is nowhere, is left out", () => {
  const once = { operation: operation("Upper switch"), port: at };
  expect(rehearsal.after([once, once, { operation: "nothing", port: at }]).told).toHaveLength(1);
  const nowhere = rehearsal.after([{ ...once, port: "no port" }]).told;
  expect(nowhere.map(({ came }) => came)).toEqual(["unreached"]);
});

test("the runbook's own order, done by hand, always opens the device that it works on", () => {
  const site = PlanIndex.of(lockkeepersHouse());
  const { order } = must(provenRunbook(site, null), "a runbook");
  let port = "";
  const moves = order.taken.map(({ operation: { id }, before, after }): Move => {
    if (before !== "by hand" && before !== null) port = before.port;
    else if (after !== null && after !== "next") port = after.port;
    return { operation: id, port };
  });
  const { told, isDone } = must(Rehearsal.of(site, foundState(site, null)), "a rehearsal").after(moves);
  expect(told.filter(({ came }) => came === "unreached")).toEqual([]);
  expect(isDone).toBe(true);
});
