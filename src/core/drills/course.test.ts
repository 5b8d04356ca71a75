import { courseDrill } from "../../../tests/support/course-drill";
import { must } from "../kernel";
import { askedOf, askKey } from "../diagnosis";
import { levelOf } from "./complaint";
import { firstLook } from "./copy";
import { COURSE } from "./course";
import { solve } from "./drill";
import { minutesOf, readingsOf, shortestWay } from "./shortest";

test("there are twenty, in order, each with what it teaches and where that stands in a standard", () => {
  expect(COURSE.map(({ number }) => number)).toEqual(Array.from({ length: 20 }, (_, at) => at + 1));
  expect(new Set(COURSE.map(({ title }) => title)).size).toBe(20);
  for (const { text, standard } of COURSE) {
    expect(text.split(". ").length).toBeGreaterThanOrEqual(2);
    expect(standard).toMatch(/^(IEEE 802\.\S+ (section|clause) [\d.]+|RFC \d+ section [\d.]+)\b/);
  }
});

describe.each(COURSE.map(({ number, title }) => [number, title] as const))("%i, %s", (number) => {
  const lesson = must(COURSE[number - 1], "a lesson");
  const drill = courseDrill(number);
  const { copy, complaints, strands } = drill;

  test("plants what it says, so deep as it says, and is complained of without saying what it is", () => {
    expect(copy.faults.every((fault) => lesson.accepts(fault, copy.index))).toBe(true);
    expect(copy.faults).toHaveLength(lesson.level === 3 ? 2 : 1);
    expect(complaints).toHaveLength(copy.faults.length);
    if (lesson.level !== 3)
      expect(levelOf(copy, must(complaints[0], "a complaint").ask.question)).toBe(lesson.level);
    for (const { ask, told } of complaints) {
      expect(copy.seen(firstLook(ask)).key).not.toBe(copy.planned(firstLook(ask)).key);
      for (const { words } of copy.faults) expect(told).not.toContain(words);
    }
  });

  test("is solved by what diagnosis asks for, in the time that there is", () => {
    const { left, readings } = solve(drill);
    const best = must(left[0], "something is left");
    expect(best.explains.every(Boolean)).toBe(true);
    for (const { id } of copy.faults)
      expect(left.some(({ suspect }) => suspect.id.split(" + ").includes(id))).toBe(true);
    const asked = readings.slice(complaints.length).map(({ ask }) => askedOf(copy.index, ask));
    const start = askedOf(copy.index, must(complaints[0], "a complaint").ask).place;
    expect(minutesOf(asked, start)).toBeLessThan(drill.minutes);
  });

  test("its shortest way leaves only what is planted, and no one or two readings do in less", () => {
    const way = shortestWay(drill);
    expect(way.isProven).toBe(true);
    const start = askedOf(copy.index, must(complaints[0], "a complaint").ask).place;
    const asks = readingsOf(drill);
    const others = strands.flatMap(({ fitting }, at) =>
      fitting.filter(({ id }) => id !== copy.faults[at]?.id).map((suspect) => ({ at, suspect })),
    );
    // What no reading parts from the fault counts as the fault.
    const rulesOut = asks.map((ask) =>
      others.map(({ at, suspect }) => !copy.fits(at, suspect, firstLook(ask))),
    );
    const isParted = others.map((_, i) => rulesOut.some((row) => row[i] === true));
    const leavesOnlyIt = (chosen: readonly number[]) =>
      others.every((_, i) => isParted[i] !== true || chosen.some((row) => rulesOut[row]?.[i] === true));
    const keys = asks.map(askKey);
    const chosen = way.asked.map(({ ask }) => keys.indexOf(askKey(ask)));
    expect(chosen.includes(-1)).toBe(false);
    expect([leavesOnlyIt(chosen), minutesOf(way.asked, start)]).toEqual([true, way.minutes]);
    const each = asks.map((ask) => askedOf(copy.index, ask));
    const cheaper: number[][] = [];
    for (const [i, a] of each.entries())
      for (const [j, b] of each.entries())
        if (j >= i && minutesOf(i === j ? [a] : [a, b], start) < way.minutes && leavesOnlyIt([i, j]))
          cheaper.push([i, j]);
    expect(cheaper).toEqual([]);
  });
});
