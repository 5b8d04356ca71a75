import {
  aDevice,
  aHost,
  aLink,
  aPort,
  aSegment,
  aVlan,
  aZone,
  planWith,
  testId,
} from "../testing/build-plan";
import { v } from "../testing/written";
import { BLANK_ROOM, BLANK_RULE } from "./blank";
import { afterEdits, PlanEdits, PlanIndex, type Change, type Derived, type Plan } from ".";

// What an index keeps from one edit to the next, and its look-ups with their order.

const zone = aZone();
const plan = planWith({
  zone: [zone],
  host: [aHost({ name: "Till" })],
  segment: [aSegment({ name: "Staff" })],
});
const edit = (index: PlanIndex, work: (edits: PlanEdits) => void): PlanIndex => {
  const edits = new PlanEdits(index.plan);
  work(edits);
  const next = afterEdits(index, edits);
  if (next === null) throw new Error("the plan does not take it");
  return next;
};
const named = (name: string) => (edits: PlanEdits) => edits.patch("host", testId("host", "Till"), { name });
const renamedZone = (edits: PlanEdits) => edits.patch("zone", zone.id, { name: "Other" });

/** What is derived from hosts: their names, with how it came about. */
function recipe(follow?: (changes: readonly Change[]) => boolean) {
  const done: string[] = [];
  const make = (index: PlanIndex) => {
    done.push("made");
    return [...index.plan.host.values()].map(({ name }) => name).join();
  };
  const derived: Derived<string> = {
    reads: ["host"],
    make,
    ...(follow === undefined
      ? {}
      : {
          follow: (was: string, _: PlanIndex, changes: readonly Change[]) => {
            done.push(
              `after ${was}: ${changes.map(({ after }) => (after as { name?: string }).name).join()}`,
            );
            return follow(changes) ? `followed ${was}` : null;
          },
        }),
  };
  return { derived, done };
}

describe("what is derived", () => {
  test("is worked out when it is asked for, once, and handed on where nothing it reads has changed", () => {
    const { derived, done } = recipe();
    const index = PlanIndex.of(plan);
    expect(done).toEqual([]);
    expect([index.derived(derived), index.derived(derived)]).toEqual(["Till", "Till"]);
    const next = edit(index, renamedZone);
    expect([next.derived(derived), done]).toEqual(["Till", ["made"]]);
    expect([edit(next, named("Desk")).derived(derived), done]).toEqual(["Desk", ["made", "made"]]);
  });

  test("follows all edits since it was asked for, the oldest first, and those that concern it only", () => {
    const { derived, done } = recipe(() => true);
    const first = PlanIndex.of(plan);
    first.derived(derived);
    const last = [named("A"), renamedZone, named("B"), named("C")].reduce(edit, first);
    expect([last.derived(derived), last.derived(derived)]).toEqual(["followed Till", "followed Till"]);
    expect(done).toEqual(["made", "after Till: A,B,C"]);
    // From there on only what came since.
    edit(last, named("D")).derived(derived);
    expect(done.at(-1)).toBe("after followed Till: D");
    // Who was asked before stays as it was.
    expect(first.derived(derived)).toBe("Till");
  });

  test("what cannot follow is worked out anew; what was never asked for follows nothing", () => {
    const { derived, done } = recipe(() => false);
    const index = edit(PlanIndex.of(plan), named("A"));
    index.derived(derived);
    expect([edit(index, named("B")).derived(derived), done]).toEqual(["B", ["made", "after A: B", "made"]]);
  });

  test("at a minute of the week what does not depend on hours is kept", () => {
    const { derived, done } = recipe();
    const ofHours: Derived<number | null> = { reads: ["exception"], make: ({ minute }) => minute };
    const index = PlanIndex.of(plan, "2027-06-30");
    index.groups("hostsBySegment");
    expect([index.derived(derived), index.derived(ofHours)]).toEqual(["Till", null]);
    const then = index.atMinute(600);
    expect([then.derived(derived), then.derived(ofHours), then.minute]).toEqual(["Till", 600, 600]);
    expect([done, then.today, then.plan === index.plan]).toEqual([["made"], "2027-06-30", true]);
    expect(then.groups("hostsBySegment")).toBe(index.groups("hostsBySegment"));
    expect([index.minute, index.derived(ofHours)]).toEqual([null, null]);
    // An edit stays at its minute and day.
    expect([edit(then, named("A")).minute, edit(then, named("A")).today]).toEqual([600, "2027-06-30"]);
  });
});

describe("look-ups", () => {
  const device = aDevice({ name: "Mill" });
  const port = (label: string, position: number) => aPort({ device: device.id, label, position });
  const ids = (list: readonly { readonly id: string }[]) => list.map(({ id }) => id);

  test("ports in printed order, those at one place by their ids, the same list until one changes", () => {
    const [a, b, c, d] = [port("a", 3), port("b", 1), port("c", 2), port("d", 2)];
    const index = PlanIndex.of(planWith({ device: [device], port: [a, b, c, d] }));
    const [low, high] = [c.id, d.id].sort();
    expect(ids(index.portsOf(device.id))).toEqual([b.id, low, high, a.id]);
    expect(index.portsOf(device.id)).toBe(index.portsOf(device.id));
    expect(index.portsOf("nobody")).toEqual([]);
    const next = edit(index, (edits) => edits.patch("port", a.id, { position: 0 }));
    expect(ids(next.portsOf(device.id))).toEqual([a.id, b.id, low, high]);
  });

  test("the rules of a device by their place, those at one place by their ids", () => {
    const other = aDevice({ name: "Barn" });
    const rule = (name: string, place: number, of = device.id) => ({
      ...{ ...BLANK_RULE, id: testId("rule", name), device: of },
      place,
    });
    const [a, b, c, d] = [rule("a", 30), rule("b", 10), rule("c", 20), rule("d", 20)];
    const plan = planWith({ device: [device, other], rule: [a, b, c, d, rule("e", 5, other.id)] });
    expect(ids(PlanIndex.of(plan).rulesOf(device.id))).toEqual([b.id, ...[c.id, d.id].sort(), a.id]);
    expect(PlanIndex.of(plan).rulesOf("nobody")).toEqual([]);
  });

  test("the room that a place names, whatever its capitals", () => {
    const room = { ...BLANK_ROOM, id: testId("room", "Hall"), name: "Back Hall", position: 1 };
    const index = PlanIndex.of(planWith({ room: [room] }));
    expect(["Back Hall", "back hall", "BACK HALL"].map((place) => index.roomAt(place)?.id)).toEqual(
      Array(3).fill(room.id),
    );
    expect(["", "hall"].map((place) => index.roomAt(place))).toEqual([undefined, undefined]);
  });

  test("the port at the other end of a cable, from either end", () => {
    const ends = [port("a", 1), port("b", 2), port("c", 3)];
    const [a, b, c] = ids(ends) as [string, string, string];
    const index = PlanIndex.of(planWith({ device: [device], port: ends, link: [aLink({ a, b })] }));
    expect([a, b, c].map((end) => index.peerOf(end)?.id)).toEqual([b, a, undefined]);
  });

  test("hosts at a port, with those behind them however deep", () => {
    const at = port("a", 1);
    const [phone, pc, cam, other] = ["phone", "pc", "cam", "other"].map((name) => testId("host", name));
    const behind = (name: string, host = "") => aHost({ name, attachment: { at: "behind", host } });
    const host = [
      aHost({ name: "phone", attachment: { at: "port", port: at.id } }),
      aHost({ name: "other", attachment: { at: "port", port: at.id } }),
      behind("pc", phone),
      behind("cam", pc),
    ];
    const index = PlanIndex.of(planWith({ device: [device], port: [at], host }));
    const plugged = [phone, other].sort();
    expect(ids(index.hostsAt(at.id))).toEqual([...plugged, pc, cam]);
    const bare = PlanIndex.of(planWith({ device: [device], port: [at], host: host.slice(0, 2) }));
    expect(ids(bare.hostsAt(at.id))).toEqual(plugged);
    expect(bare.hostsAt("nowhere")).toEqual([]);
  });

  test("a VLAN by its number in its domain, the first of two; none without a domain", () => {
    const vlans = ["x", "y"].map((name) => aVlan({ id: testId("vlan", name), vid: v(20), name }));
    const [first] = ids(vlans).sort();
    const { domain } = vlans[0] ?? aVlan({ vid: v(20) });
    const whole: Plan = { ...plan, vlan: new Map(vlans.map((vlan) => [vlan.id, vlan])) };
    const index = PlanIndex.of(whole);
    expect(index.vlanOf(domain, 20)?.id).toBe(first);
    expect([index.vlanOf(domain, 30), index.vlanOf(null, 20), index.vlanOf("elsewhere", 20)]).toEqual([
      undefined,
      undefined,
      undefined,
    ]);
  });
});
