import { aDevice, aPort, planWith, testId } from "../testing/build-plan";
import { v } from "../testing/written";
import { BLANK_SSID } from "./blank";
import type { Change } from "./change";
import type { Plan } from "./plan";
import { rebase, rebaseMine, type Choose } from "./rebase";
import type { Port } from "./schema/hardware";
import type { Ssid } from "./schema/separation";

// What becomes of my change when somebody else has changed the same thing, case by case.

const device = aDevice({ name: "Mill" });
const port = aPort({ device: device.id, label: "1", pvid: v(10), untagged: [v(10)] });
const planOf = (now: Port | null): Plan => planWith({ device: [device], port: now === null ? [] : [now] });
const change = (before: Port | null, after: Port | null): Change =>
  ({ kind: "port", id: port.id, before, after }) as Change;
const as = (fields: Partial<Port>): Port => ({ ...port, ...fields });

/** My change of the port, on what others have made of it; clashes as field, mine and theirs. */
function rebased(now: Port | null, mine: Change, choose?: Choose): unknown {
  const outcome = rebase(planOf(now), [mine], choose);
  return outcome.ok
    ? outcome.value.map(({ before, after }) => ({ before, after }))
    : outcome.error.map(({ field, mine, theirs }) => [field, mine, theirs]);
}
/** An answer to one question, and to no other. */
const answer =
  (wanted: string | null, winner: "mine" | "theirs"): Choose =>
  ({ id, field }) =>
    id === port.id && field === wanted ? winner : null;

describe("a thing that is there for one and gone for the other", () => {
  const theirs = as({ note: "theirs" });
  const mine = as({ note: "mine" });

  test("nobody else touched it: it is as I wanted it", () => {
    expect(rebased(port, change(port, null))).toEqual([{ before: port, after: null }]);
    expect(rebased(port, change(port, mine))).toEqual([{ before: port, after: mine }]);
    expect(rebased(null, change(null, mine))).toEqual([{ before: null, after: mine }]);
  });

  test("both did the same: nothing is left to do", () => {
    expect(rebased(null, change(port, null))).toEqual([]);
    expect(rebased(mine, change(port, mine))).toEqual([]);
    expect(rebased(mine, change(null, mine))).toEqual([]);
  });

  test("I removed what they changed", () => {
    const removed = change(port, null);
    expect(rebased(theirs, removed)).toEqual([[null, null, theirs]]);
    expect(rebased(theirs, removed, answer("note", "mine"))).toEqual([[null, null, theirs]]);
    expect(rebased(theirs, removed, answer(null, "mine"))).toEqual([{ before: theirs, after: null }]);
    expect(rebased(theirs, removed, answer(null, "theirs"))).toEqual([]);
  });

  test("they removed what I changed", () => {
    const changed = change(port, mine);
    expect(rebased(null, changed)).toEqual([[null, mine, null]]);
    expect(rebased(null, changed, answer(null, "mine"))).toEqual([{ before: null, after: mine }]);
    expect(rebased(null, changed, answer(null, "theirs"))).toEqual([]);
  });

  test("both made it, and not alike", () => {
    const made = change(null, mine);
    expect(rebased(theirs, made)).toEqual([[null, mine, theirs]]);
    expect(rebased(theirs, made, answer(null, "mine"))).toEqual([{ before: theirs, after: mine }]);
  });
});

describe("an access port's VLAN and the list that goes with it", () => {
  const into = (pvid: number, untagged = [pvid]) => as({ pvid: v(pvid), untagged: untagged.map(v) });
  const both: Choose = ({ field }) => (field === "pvid" || field === "untagged" ? "mine" : null);

  test("are one question, and one answer", () => {
    const mine = change(port, into(20));
    expect(rebased(into(30), mine)).toEqual([
      ["pvid", 20, 30],
      ["untagged", [20], [30]],
    ]);
    expect(rebased(into(30), mine, both)).toEqual([{ before: into(30), after: into(20) }]);
    // Answered in part, the rest is asked.
    expect(rebased(into(30), mine, answer("untagged", "mine"))).toEqual([["pvid", 20, 30]]);
  });

  test("the list is asked about only where each wants one at most, and both have changed it", () => {
    const pvid = ["pvid", 20, 30];
    expect(rebased(into(30), change(port, into(20, [20, 21])))).toEqual([pvid]);
    expect(rebased(into(30, [30, 31]), change(port, into(20)))).toEqual([pvid]);
    expect(rebased(into(30), change(port, into(20, [10])))).toEqual([pvid]);
    expect(rebased(into(30, [10]), change(port, into(20)))).toEqual([pvid]);
    expect(rebased(into(30, [40]), change(port, into(20, [40])))).toEqual([pvid]);
    expect(rebased(into(30, []), change(port, into(20)))).toEqual([pvid, ["untagged", [20], []]]);
  });

  test("a longer list takes in both, also where one is insisted on", () => {
    const [theirs, mine] = [into(30), into(20, [20, 21])];
    const merged = as({ pvid: v(20), untagged: [30, 20, 21].map(v) });
    expect(rebased(theirs, change(port, mine), both)).toEqual([{ before: theirs, after: merged }]);
  });

  test("what stands side by side is not asked about beside it", () => {
    const guards = (own: Partial<Port["guards"]>) => ({ guards: { ...port.guards, ...own } });
    const [theirs, mine] = [
      as({ pvid: v(30), ...guards({ bpduGuard: true }) }),
      as({ pvid: v(20), ...guards({ edge: true }) }),
    ];
    expect(rebased(theirs, change(port, mine))).toEqual([["pvid", 20, 30]]);
    expect(rebased(theirs, change(port, mine), answer("pvid", "mine"))).toEqual([
      { before: theirs, after: as({ pvid: v(20), ...guards({ bpduGuard: true, edge: true }) }) },
    ]);
  });
});

test("what I changed wins where that is asked for, and what others changed beside it stays", () => {
  const [theirs, mine] = [as({ note: "theirs", label: "2" }), as({ note: "mine" })];
  expect(rebaseMine(planOf(theirs), [change(port, mine)])).toEqual([
    { kind: "port", id: port.id, before: theirs, after: { ...theirs, note: "mine" } },
  ]);
});

test("two lists that fit alone and not together are asked about", () => {
  const ids = (n: number, from = 0) => Array.from({ length: n }, (_, i) => testId("segment", `${from + i}`));
  const ssid = (...more: string[]): Ssid => ({
    ...BLANK_SSID,
    id: testId("ssid", "Crew"),
    name: "Crew",
    segment: testId("segment", "main"),
    moreSegments: more,
  });
  const [was, mine, theirs] = [ssid(...ids(31)), ssid(...ids(32)), ssid(...ids(31), ...ids(1, 90))];
  const now: Plan = { ...planOf(port), ssid: new Map([[was.id, theirs]]) };
  const changed = { kind: "ssid", id: was.id, before: was, after: mine } as Change;
  const asked = rebase(now, [changed]);
  expect(asked.ok ? [] : asked.error.map(({ field, id }) => [field, id])).toEqual([["moreSegments", was.id]]);
  // Who has been asked is not asked again: whether it can be applied is said when it is.
  const answered = rebase(now, [changed], ({ id, field }) =>
    id === was.id && field !== null ? "mine" : null,
  );
  expect(answered.ok).toBe(true);
  // One more on each side that fits is no question.
  const room: Plan = { ...now, ssid: new Map([[was.id, ssid(...ids(30), ...ids(1, 90))]]) };
  const fits = rebase(room, [{ ...changed, before: ssid(...ids(30)), after: ssid(...ids(31)) } as Change]);
  expect(fits.ok ? fits.value.length : fits.error).toBe(1);
});
