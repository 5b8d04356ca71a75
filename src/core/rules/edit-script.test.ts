import { dice } from "../testing/plants";
import { editScript, longestCommon, type EditStep } from "./edit-script";

const applied = (have: readonly string[], want: readonly string[], steps: readonly EditStep[]): string[] => {
  const list = [...have];
  for (const step of steps) {
    if (step.do === "insert") list.splice(step.at - 1, 0, want[step.wanted] ?? "?");
    else {
      const [item = "?"] = list.splice(step.at - 1, 1);
      if (step.do === "move") list.splice(step.to - 1, 0, item);
    }
  }
  return list;
};

/** The fewest steps, by trying all of them: breadth first over all lists of these letters. */
function fewest(have: string, want: string): number {
  const letters = [...new Set(want)];
  const seen = new Set([have]);
  let edge = [have];
  for (let steps = 0; ; steps += 1) {
    if (edge.includes(want)) return steps;
    const next: string[] = [];
    const meet = (list: string) => {
      if (!seen.has(list) && list.length <= Math.max(have.length, want.length) + 1) {
        seen.add(list);
        next.push(list);
      }
    };
    for (const list of edge) {
      for (let at = 0; at < list.length; at += 1) {
        const rest = list.slice(0, at) + list.slice(at + 1);
        meet(rest);
        for (let to = 0; to <= rest.length; to += 1)
          meet(rest.slice(0, to) + (list[at] ?? "") + rest.slice(to));
      }
      for (const letter of letters)
        for (let to = 0; to <= list.length; to += 1) meet(list.slice(0, to) + letter + list.slice(to));
    }
    edge = next;
  }
}

test("300 pairs of lists: the steps lead to the wanted list, and no fewer could", () => {
  const roll = dice(4711);
  const word = () => Array.from({ length: roll(6) }, () => "abcde"[roll(5)] ?? "a").join("");
  for (let i = 0; i < 300; i += 1) {
    const [have, want] = [word(), word()];
    const steps = editScript([...have], [...want]);
    expect([have, want, applied([...have], [...want], steps).join("")]).toEqual([have, want, want]);
    expect([have, want, steps.length]).toEqual([have, want, fewest(have, want)]);
  }
});

test("long lists: what is shuffled moves, what is new comes, what is gone goes, and no more", () => {
  const roll = dice(11);
  const have = Array.from({ length: 3000 }, (_, at) => `rule ${at}`);
  const want = have.filter(() => roll(10) > 0);
  for (let i = 0; i < 40; i += 1) {
    const [item = ""] = want.splice(roll(want.length), 1);
    want.splice(roll(want.length), 0, item);
  }
  for (let i = 0; i < 25; i += 1) want.splice(roll(want.length), 0, `new ${i}`);
  const steps = editScript(have, want);
  expect(applied(have, want, steps)).toEqual(want);
  const count = (what: EditStep["do"]) => steps.filter((step) => step.do === what).length;
  expect(count("insert")).toBe(25);
  expect(count("delete")).toBe(have.length - (want.length - 25));
  expect(count("move")).toBeLessThanOrEqual(40);
});

test("what both hold in one order is kept, alike rules among them", () => {
  expect(longestCommon([..."abcab"], [..."bca"])).toEqual([
    [1, 0],
    [2, 1],
    [3, 2],
  ]);
  expect(editScript([..."abc"], [..."abc"])).toEqual([]);
  expect(editScript([..."abc"], [..."bca"])).toEqual([{ do: "move", at: 1, to: 3 }]);
});
