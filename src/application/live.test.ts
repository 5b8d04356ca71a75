import { makeLive, type LiveState, type Told } from "./live";
import type { LogEntry } from "./stores";

const at = (revision: number, more: Partial<LiveState> = {}): LiveState => ({
  revision,
  record: 0,
  present: [],
  ...more,
});

/** Entries of which nothing but the revision is looked at. */
const entriesOf = (after: number, until: number) =>
  Array.from({ length: until - after }, (_, n) => ({ revision: after + 1 + n }) as LogEntry);
const MUCH = 5;

/** A database whose sites change, and a clock that goes on when it is told to. */
function world() {
  const sites = new Map<string, LiveState>();
  const asked: (readonly string[])[] = [];
  const waits: number[] = [];
  let goOn: () => void = () => undefined;
  let isAway = false;
  const cameBetween: string[] = [];
  const live = makeLive(
    {
      states: async (ids) => {
        asked.push(ids);
        if (isAway) throw new Error("away");
        return new Map(ids.flatMap((id) => (sites.has(id) ? [[id, sites.get(id) ?? at(0)] as const] : [])));
      },
      cameBetween: async (site, after, until) => {
        cameBetween.push(`${site} ${after}-${until}`);
        return until - after >= MUCH ? null : entriesOf(after, until);
      },
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
    cameBetween,
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

test("who watches is told the state, then each change once; who comes later at once", async () => {
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

test("what changed is told with it, read once for all; not where it is much or goes back", async () => {
  const { sites, live, settle, tick, cameBetween } = world();
  sites.set("a", at(3));
  const heard: string[] = [];
  const hear = (who: string) => (told: Told) => {
    const { revision, news } = told;
    const what = news === null ? "?" : `${news.after}: ${news.entries.map((entry) => entry.revision).join()}`;
    heard.push(`${who} ${revision} ${what}`);
  };
  live.watch("a", hear("one"));
  await settle();
  live.watch("a", hear("two"));
  sites.set("a", at(5));
  await tick();
  expect(heard).toEqual(["one 3 ?", "two 3 ?", "one 5 3: 4,5", "two 5 3: 4,5"]);
  expect(cameBetween).toEqual(["a 3-5"]);

  const next = async (state: LiveState) => {
    sites.set("a", state);
    await tick();
    return heard.at(-1);
  };
  // Somebody moves, and nothing else: nothing is read.
  const here = { present: [{ tab: "t", name: "Marek", sheet: "ports", things: [] }] };
  expect(await next(at(5, here))).toBe("two 5 5: ");
  expect(await next(at(5 + MUCH))).toBe("two 10 ?");
  // Made anew under the same id.
  expect(await next(at(1))).toBe("two 1 ?");
  expect(await next(at(2))).toBe("two 2 1: 2");
  expect(cameBetween).toEqual(["a 3-5", "a 5-10", "a 1-2"]);
});
