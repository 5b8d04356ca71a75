import { must, dice } from "../kernel";
import { askedOf, Study, WALK_MINUTES, type Ask, type Suspect } from "../diagnosis";
import { nameOf, PlanIndex } from "../plan";
import { asClient } from "../probe";
import { bramblewick } from "../../../demo/bramblewick";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { courseDrill } from "../../../tests/support/course-drill";
import { debrief } from "./debrief";
import { makeDrill, type Drill } from "./drill";
import { faultsIn, lookMinutes, looksIn, MOVE_MINUTES, play, WRONG_MINUTES, type Act } from "./play";
import { readingsOf } from "./shortest";

const portOff = courseDrill(1);
const twoAtOnce = courseDrill(19);
const read = (ask: Ask): Act => ({ act: "read", ask });
const firstOf = ({ complaints }: Drill): Ask => must(complaints[0], "a complaint").ask;
const faultOf = ({ copy }: Drill, at = 0) => must(copy.faults[at], "a fault");
const deviceOf = ({ copy }: Drill): Ask => ({
  what: "look",
  look: must(faultOf({ copy } as Drill).seenAt[0], "where it is seen"),
});

test("every look costs its minutes and the walk, says what was seen, and what is left is told", () => {
  const { copy } = portOff;
  const asks = [firstOf(portOff), deviceOf(portOff)];
  const played = play(portOff, asks.map(read));
  const [seen, page] = played.rows;
  expect(seen).toMatchObject({ minute: 0, saw: "no link", isSound: false });
  expect(seen?.told).toMatch(/^planned: 10\.24\./);
  expect(page).toMatchObject({ told: "not as planned", isSound: false });
  expect(page?.saw).toMatch(/^port \d+: off/);
  const [first, second] = asks.map((ask) => askedOf(copy.index, ask));
  const walk = lookMinutes(must(second, "the page"), must(first, "the complaint").place).walk;
  expect(walk).toBe(WALK_MINUTES);
  expect(played.used).toBe(must(first, "").minutes + walk + must(second, "").minutes);
  expect(played.possible).toEqual([{ left: 1, tried: must(portOff.strands[0], "a strand").tried }]);
  expect([played.end, played.named, played.mended]).toEqual(["open", [false], [false]]);
});

test("a wrong name costs minutes and is told by what it would have shown; the right one is mended", () => {
  const looked = [firstOf(portOff), deviceOf(portOff)].map(read);
  const wrong = must(
    faultsIn(portOff, looksIn(portOff, looked)).find(({ kind }) => kind === "pool"),
    "another fault",
  );
  const before = play(portOff, looked);
  const after = play(portOff, [...looked, { act: "name", fault: wrong.id }]);
  expect(after.used - before.used).toBe(WRONG_MINUTES);
  expect(after.rows.at(-1)).toMatchObject({ did: `Named: ${wrong.words}`, saw: "no", isSound: false });
  expect(after.rows.at(-1)?.told).toMatch(/^With that, minute 0 would have shown: 10\.24\./);
  const right = play(portOff, [...looked, { act: "name", fault: faultOf(portOff).id }]);
  expect([right.named, right.end]).toEqual([[true], "open"]);
  const mended = play(portOff, [
    ...looked,
    { act: "name", fault: faultOf(portOff).id },
    { act: "mend", fault: wrong.id },
    { act: "mend", fault: faultOf(portOff).id },
    read(firstOf(portOff)),
  ]);
  expect(mended.rows.slice(-2).map(({ told, isSound }) => [told, isSound])).toEqual([
    ["nothing changed", false],
    ["as planned", true],
  ]);
  expect(mended.end).toBe("solved");
});

test("the minute that speaks against a name is that of the look, whatever was named in between", () => {
  const another = must(
    faultsIn(portOff, []).find(({ kind }) => kind === "pool"),
    "another fault",
  );
  const [first] = must(portOff.strands[0], "a strand").fitting.filter(({ id }) => id !== faultOf(portOff).id);
  const { rows } = play(portOff, [
    { act: "name", fault: must(first, "one that fits").id },
    read(firstOf(portOff)),
    { act: "name", fault: another.id },
  ]);
  expect(rows[2]?.told).toMatch(new RegExp(`^With that, minute ${WRONG_MINUTES} would have shown`));
});

test("what is asked of something that is not in the copy is as nothing", () => {
  const gone: Ask = { what: "look", look: { on: "device", device: "gone" } };
  expect(play(portOff, [read(gone)])).toEqual(play(portOff, []));
});

test("what fits everything so far and is not it, is told to be one of several", () => {
  const [other] = must(portOff.strands[0], "a strand").fitting.filter(({ id }) => id !== faultOf(portOff).id);
  const named = play(portOff, [{ act: "name", fault: must(other, "another that fits").id }]);
  expect(named.rows.at(-1)?.told).toMatch(/^Everything that you saw fits that, and other faults, too/);
});

test("nobody mends what was not named, and nothing happens once it is over", () => {
  const fault = faultOf(portOff).id;
  const early = play(portOff, [{ act: "mend", fault }]);
  expect([early.mended, early.end, early.rows.at(-1)?.told]).toEqual([[false], "open", "nothing changed"]);
  const over = play(portOff, [{ act: "giveUp" }]);
  expect(over.end).toBe("given up");
  expect(play(portOff, [{ act: "giveUp" }, read(firstOf(portOff)), { act: "name", fault }])).toEqual(over);
});

test("when the minutes are used up it is lost", () => {
  const long = play(
    portOff,
    Array.from({ length: 200 }, () => read(firstOf(portOff))),
  );
  expect([long.end, long.used]).toEqual(["time is up", portOff.minutes]);
  expect(long.rows).toHaveLength(portOff.minutes);
});

/** A free port set alike on the same device, and one that is in use. */
function portsBeside(index: PlanIndex, from: string) {
  const own = must(index.plan.port.get(from), "its port");
  const isFree = (id: string) => index.hostsAt(id).length === 0 && index.linkAt(id) === undefined;
  const others = [...index.plan.port.values()].filter(
    ({ id, device }) => device === own.device && id !== from,
  );
  return {
    free: others.find(({ id, pvid, enabled }) => enabled && pvid === own.pvid && isFree(id))?.id,
    taken: others.find(({ id }) => index.hostsAt(id).length > 0)?.id,
  };
}

test("a cable moved to a port set alike gets a link; one that is not there is not moved", () => {
  const study = new Study(PlanIndex.of(bramblewick()));
  const { index } = study;
  const isAtPort = ({ kind, subjects }: Suspect) => {
    const port = subjects.find((subject) => subject.kind === "port")?.id ?? "";
    return (
      kind === "portOff" && index.linkAt(port) === undefined && portsBeside(index, port).free !== undefined
    );
  };
  const drill = must(
    makeDrill(study, { level: 1, about: null, accepts: isAtPort }, 4),
    "a port that is set wrong",
  );
  const from = must(
    faultOf(drill).subjects.find(({ kind }) => kind === "port"),
    "its port",
  ).id;
  const { free = "", taken = "" } = portsBeside(index, from);
  const moved = play(drill, [
    { act: "move", from: free, to: from },
    { act: "move", from, to: taken },
    { act: "move", from, to: free },
    read(firstOf(drill)),
    { act: "putBack" },
    read(firstOf(drill)),
  ]);
  expect(moved.rows.map(({ saw }) => saw)).toEqual([
    `there is no cable in ${nameOf(index, "port", free)}`,
    `there is a cable in ${nameOf(index, "port", taken)} already`,
    "done",
    expect.stringMatching(/^(10\.|an answer)/),
    "done",
    expect.stringMatching(/^no|^nothing/),
  ]);
  expect(moved.rows[3]?.told).toBe("as planned");
  expect(moved.used).toBeGreaterThanOrEqual(3 * MOVE_MINUTES);
  expect(moved.isMoved).toBe(false);
  // Only what is wrong at the port itself is cured by that.
  expect(moved.possible[0]?.left).toBeLessThan(must(drill.strands[0], "a strand").fitting.length);
});

test("of two faults each is named and mended by itself, and the other stays", () => {
  const [a, b] = [faultOf(twoAtOnce, 0), faultOf(twoAtOnce, 1)];
  const half = play(twoAtOnce, [
    { act: "name", fault: b.id },
    { act: "mend", fault: b.id },
    ...twoAtOnce.complaints.map(({ ask }) => read(ask)),
  ]);
  expect([half.named, half.mended, half.end]).toEqual([[false, true], [false, true], "open"]);
  expect(half.rows.slice(-2).map(({ isSound }) => isSound)).toEqual([false, true]);
  const whole = play(twoAtOnce, [
    { act: "name", fault: b.id },
    { act: "mend", fault: b.id },
    { act: "name", fault: a.id },
    { act: "mend", fault: a.id },
  ]);
  expect(whole.end).toBe("solved");
});

test("what is left to be possible never grows, and what is planted is always among it", () => {
  const roll = dice(5);
  for (const number of [3, 8, 12, 20]) {
    const drill = courseDrill(number);
    const asks = readingsOf(drill);
    const acts = Array.from({ length: 12 }, () => read(must(asks[roll(asks.length)], "a reading")));
    let before = Infinity;
    for (let count = 0; count <= acts.length; count += 1) {
      const { possible, used, end } = play(drill, acts.slice(0, count));
      const left = possible.reduce((sum, step) => sum + step.left, 0);
      expect(left).toBeGreaterThanOrEqual(drill.copy.faults.length);
      expect(left).toBeLessThanOrEqual(before);
      expect(end === "open" || used >= drill.minutes).toBe(true);
      before = left;
    }
  }
});

test("the debrief tells what each look left, and what would have left less for its time", () => {
  const drill = courseDrill(4);
  const elsewhere: Ask = {
    what: "try",
    question: asClient(
      { at: "host", host: must([...drill.copy.index.plan.host.keys()][0], "a host") },
      { to: "address" },
    ),
  };
  const { looks, faults, shortest } = debrief(drill, [elsewhere, deviceOf(drill)].map(read));
  expect(faults.map(({ words }) => words)).toEqual(drill.copy.faults.map(({ words }) => words));
  const all = must(drill.strands[0], "a strand").fitting.length;
  expect(looks[0]).toMatchObject({ before: all });
  expect(must(looks[0], "the first").better?.left).toBeLessThan(must(looks[0], "the first").after);
  expect(looks[1]).toMatchObject({ after: 1, better: null });
  expect(shortest.minutes).toBeLessThanOrEqual(drill.minutes);
});

test.each([1, 2, 3] as const)(
  "on a site of one's own, level %i: the same for the same seed, another for another",
  (level) => {
    const study = new Study(PlanIndex.of(lockkeepersHouse()));
    const drills = [1, 2, 1].map((seed) =>
      must(makeDrill(study, { level, about: null, accepts: () => true }, seed), "a drill"),
    );
    const ids = drills.map(({ copy }) => copy.faults.map(({ id }) => id).join(" "));
    expect(ids[0]).toBe(ids[2]);
    expect(ids[0]).not.toBe(ids[1]);
    expect(drills.map((drill) => [drill.level, drill.copy.faults.length])).toEqual(
      drills.map(() => [level, level === 3 ? 2 : 1]),
    );
  },
);

test("a site with nothing to break has no drill", () => {
  const { index } = new Study(PlanIndex.of(lockkeepersHouse()));
  const empty = { ...index.plan, host: new Map(), ssid: new Map() };
  expect(
    makeDrill(new Study(PlanIndex.of(empty)), { level: 1, about: null, accepts: () => true }, 1),
  ).toBeNull();
});
