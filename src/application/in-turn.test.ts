import { inTurn } from "./in-turn";

const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

test("what changes one site is done one after another as it was asked, failures too", async () => {
  let underWay = 0;
  let most = 0;
  const done: number[] = [];
  const work = (n: number) => async () => {
    underWay += 1;
    most = Math.max(most, underWay);
    await pause(n % 3);
    underWay -= 1;
    done.push(n);
    if (n % 4 === 1) throw new Error(`no ${n}`);
    return n;
  };
  const asked = Array.from({ length: 12 }, (_, n) =>
    inTurn("a", work(n)).catch((error: Error) => error.message),
  );
  expect(await Promise.all(asked)).toEqual(
    Array.from({ length: 12 }, (_, n) => (n % 4 === 1 ? `no ${n}` : n)),
  );
  expect([most, done]).toEqual([1, Array.from({ length: 12 }, (_, n) => n)]);
});

test("another site does not wait", async () => {
  let free: () => void = () => {};
  const held = inTurn("a", () => new Promise<void>((done) => (free = done)));
  expect(await inTurn("b", () => Promise.resolve("b"))).toBe("b");
  free();
  await held;
  expect(await inTurn("a", () => Promise.resolve("a"))).toBe("a");
});
