import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { dice, must } from "../kernel";
import { PlanIndex } from "../plan";
import type { Move } from "../runbook";
import { bestOrder, makeOrderDrill, scoreOf, type OrderDrill } from "./order";

const SITES = [lockkeepersHouse, fennelStreet, bramblewick].map((make) => PlanIndex.of(make()));

/** Any operation from any port, until everything is done; what is out of reach is tried again elsewhere. */
function anyOrder({ rehearsal, count }: OrderDrill, roll: (below: number) => number): Move[] {
  const ports = rehearsal.ports();
  const moves: Move[] = [];
  for (let tries = 0; tries < 60 * count; tries += 1) {
    const { next, isDone } = rehearsal.after(moves);
    if (isDone) return moves;
    const operation = must(next[roll(next.length)], "what is left").id;
    const move = { operation, port: must(ports[roll(ports.length)], "a port").id };
    if (rehearsal.after([...moves, move]).told.at(-1)?.came !== "unreached") moves.push(move);
  }
  return moves;
}

test.each([0, 1, 2])("site %i: one trunk is two ends, the same each time, and can be done", (at) => {
  const index = must(SITES[at], "a site");
  const drill = must(makeOrderDrill(index, 1, 11), "a job");
  expect(must(makeOrderDrill(index, 1, 11), "again").trunks).toEqual(drill.trunks);
  expect(drill.trunks).toHaveLength(1);
  const best = must(bestOrder(drill), "a best order");
  const { isDone, told } = drill.rehearsal.after(best.moves);
  expect([isDone, scoreOf(told)]).toEqual([true, best.score]);
  expect(best.score.unreached).toBe(0);
});

test.each([0, 1, 2])("site %i: no order that somebody takes is better than the best", (at) => {
  const index = must(SITES[at], "a site");
  const roll = dice(at + 40);
  const drill = must(makeOrderDrill(index, 2, 23), "a job");
  const { lockedOut, walks } = must(bestOrder(drill), "a best order").score;
  let done = 0;
  for (let tries = 0; tries < 12; tries += 1) {
    const { told, isDone } = drill.rehearsal.after(anyOrder(drill, roll));
    if (!isDone) continue;
    done += 1;
    const score = scoreOf(told);
    expect(score.lockedOut * 1000 + score.walks).toBeGreaterThanOrEqual(lockedOut * 1000 + walks);
  }
  expect(done).toBeGreaterThan(0);
});

test("lock-outs, what was tried in vain and walks are counted", () => {
  const told = (["done", "unreached", "lockedOut", "done"] as const).map((came, at) => ({
    operation: `${at}`,
    port: at < 2 ? "a" : "b",
    device: "d",
    title: "",
    says: "",
    came,
  }));
  expect(scoreOf(told)).toEqual({ lockedOut: 1, unreached: 1, walks: 1 });
});

test("a site without a cable between switches has no order to get wrong", () => {
  const { plan } = must(SITES[0], "a site");
  expect(makeOrderDrill(PlanIndex.of({ ...plan, link: new Map() }), 1, 1)).toBeNull();
});
