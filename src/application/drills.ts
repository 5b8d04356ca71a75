import type { DrillTry, PersonProgress } from "@/core/drills";
import { grouped } from "@/core/kernel";
import type { DrillStore, Person, TriedDrill } from "./stores";

/** As many lines are answered: a school's, with every drill tried by each. */
const MOST_LINES = 20_000;

/** Counts a try that is over; sent twice, it counts once. */
export const addTry = (store: DrillStore, by: Person, tried: DrillTry): Promise<void> =>
  store.add(by.id, tried);

/** How far everybody has come, and who of them asks; `seesAll` where that may be told to whoever asks. */
export async function drillProgress(
  store: DrillStore,
  asker: Person,
  seesAll: boolean,
): Promise<{ readonly me: string; readonly people: readonly PersonProgress[] }> {
  const lines = await store.all(MOST_LINES, seesAll ? null : asker.id);
  const by = grouped(lines, ({ person }) => person);
  return {
    me: asker.name,
    people: [...by.values()].map((own) => ({ person: own[0]?.name ?? "", drills: own.map(lineOf) })),
  };
}

const lineOf = ({ what, number, tries, solved, best, lastAt }: TriedDrill) => ({
  what,
  number,
  tries,
  solved,
  best,
  lastAt,
});
