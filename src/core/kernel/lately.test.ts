import { Lately } from "./lately";

test("what was asked for longest ago is made anew, what was asked for last is not", () => {
  const made: string[] = [];
  const kept = new Lately<string, string | null>(2);
  const ask = (key: string) =>
    kept.get(key, () => {
      made.push(key);
      return key === "nothing" ? null : key.toUpperCase();
    });
  expect(["a", "nothing", "a", "nothing", "b"].map(ask)).toEqual(["A", null, "A", null, "B"]);
  expect(made).toEqual(["a", "nothing", "b"]);
  expect(ask("nothing")).toBeNull();
  expect(made).toEqual(["a", "nothing", "b"]);
  expect(ask("a")).toBe("A");
  expect(made).toEqual(["a", "nothing", "b", "a"]);
});
