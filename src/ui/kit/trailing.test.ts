import { createStore } from "zustand/vanilla";
import { makeTrailing } from "./trailing";

function scene() {
  const store = createStore<{ readonly n: number }>()(() => ({ n: 0 }));
  const trailing = makeTrailing(store);
  const told: string[] = [];
  const leave = trailing.shown.subscribe((is, was) => told.push(`${was.n} to ${is.n}`));
  return { ...trailing, told, leave, set: (n: number) => store.setState({ n }) };
}

test("it shows what is there until it is held, and then what was there until it is let go", () => {
  const { shown, hold, release, set, told } = scene();
  set(1);
  hold();
  set(2);
  // Held twice is held once.
  hold();
  set(3);
  expect([shown.getState().n, told]).toEqual([1, ["0 to 1"]]);
  release();
  expect([shown.getState().n, told]).toEqual([3, ["0 to 1", "1 to 3"]]);
  set(4);
  expect([shown.getState().n, told.at(-1)]).toEqual([4, "3 to 4"]);
});

test("who was held while nothing came is told nothing; who begins meanwhile begins with what is shown", () => {
  const { shown, hold, release, set, told } = scene();
  hold();
  release();
  expect(told).toEqual([]);
  hold();
  set(1);
  const late: string[] = [];
  shown.subscribe((is, was) => late.push(`${was.n} to ${is.n}`));
  release();
  expect([told, late]).toEqual([["0 to 1"], ["0 to 1"]]);
});

test("who left is told nothing more, held or not", () => {
  const { hold, release, set, told, leave } = scene();
  hold();
  set(1);
  leave();
  release();
  set(2);
  expect(told).toEqual([]);
});
