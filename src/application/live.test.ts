import { makeLive, type LiveState } from "./live";

const at = (revision: number, more: Partial<LiveState> = {}): LiveState => ({
  revision,
  record: 0,
  present: [],
  ...more,
});

/** A database whose sites change, and a clock that goes on when it is told to. */
function world() {
  const sites = new Map<string, LiveState>();
  const asked: (readonly string[])[] = [];
  const waits: number[] = [];
  let goOn: () => void = () => undefined;
  let isAway = false;
  const live = makeLive(
    async (ids) => {
      asked.push(ids);
      if (isAway) throw new Error("away");
      return new Map(ids.flatMap((id) => (sites.has(id) ? [[id, sites.get(id) ?? at(0)] as const] : [])));
    },
    (ms) => {
      waits.push(ms);
      return new Promise<void>((done) => {
        goOn = done;
      });
    },
  );
  const settle = () => new Promise((done) => setImmediate(done));
  return {
    sites,
    asked,
    waits,
    live,
    settle,
    away: (is: boolean) => {
      isAway = is;
    },
    tick: async () => {
      goOn();
      await settle();
    },
  };
}

test("whoever watches is told the state, then each change once; whoever comes later is told at once", async () => {
  const { sites, live, settle, tick, asked } = world();
  sites.set("a", at(1));
  sites.set("b", at(7));
  const heard: string[] = [];
  const hear = (who: string) => (state: LiveState) => heard.push(`${who} ${state.revision}`);
  const stop = live.watch("a", hear("one"));
  live.watch("b", hear("two"));
  await settle();
  await tick();
  expect(heard).toEqual(["one 1", "two 7"]);
  await tick();
  expect(heard).toHaveLength(2);
  sites.set("a", at(2));
  live.watch("a", hear("late"));
  expect(heard.at(-1)).toBe("late 1");
  await tick();
  expect(heard.slice(3).sort()).toEqual(["late 2", "one 2"]);
  stop();
  sites.set("a", at(3, { present: [{ tab: "t", name: "Marek", sheet: "ports", things: [] }] }));
  await tick();
  expect(heard.slice(5)).toEqual(["late 3"]);
  expect(new Set(asked.map((ids) => [...ids].sort().join()))).toEqual(new Set(["a", "a,b"]));
});

test("nobody is asked for when nobody watches, and it begins anew when somebody comes", async () => {
  const { sites, live, settle, tick, asked } = world();
  sites.set("a", at(1));
  live.watch("a", () => undefined)();
  await settle();
  await tick();
  const before = asked.length;
  await tick();
  expect(asked).toHaveLength(before);
  const heard: number[] = [];
  live.watch("a", ({ revision }) => heard.push(revision));
  await settle();
  expect(heard).toEqual([1]);
});

test("a database that is away is asked again later, and everybody is told what changed meanwhile", async () => {
  const { sites, live, settle, tick, away, waits } = world();
  sites.set("a", at(1));
  const heard: number[] = [];
  live.watch("a", ({ revision }) => heard.push(revision));
  await settle();
  away(true);
  sites.set("a", at(2));
  await tick();
  expect([heard, waits.at(-1)]).toEqual([[1], 2000]);
  away(false);
  await tick();
  expect([heard, waits.at(-1)]).toEqual([[1, 2], 400]);
});
