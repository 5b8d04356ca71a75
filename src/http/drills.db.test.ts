import { v7 } from "uuid";
import type { DrillsAnswer } from "@/http/contracts/answers";
import { must } from "@/core/kernel";
import { ask, closeStores, cookieOf, enter } from "../../tests/support/handlers";

// How far people have come with the drills, by the routes, on the real database.

const route = () => import("@/app/api/drills/route");
const people: Record<string, string> = {};
const as = async (name: string): Promise<string> => (people[name] ??= cookieOf(await enter(name)));
afterAll(closeStores);

async function post(name: string, body: unknown) {
  const answer = await ask((await route()).POST, { method: "POST", body, cookie: await as(name) });
  return { status: answer.status, body: (await answer.json()) as { sentence?: string } };
}
async function of(name: string) {
  const answer = await ask((await route()).GET, { method: "GET", cookie: await as(name) });
  return (await answer.json()) as DrillsAnswer;
}
const aTry = (more: object = {}) => ({
  id: v7(),
  what: "course",
  number: 3,
  isSolved: true,
  score: 20,
  ...more,
});
const drillsOf = ({ people: all }: DrillsAnswer, name: string) =>
  must(
    all.find(({ person }) => person === name),
    name,
  ).drills.map(({ lastAt, ...drill }) => {
    expect(lastAt).toMatch(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}\.\d{3}Z$/);
    return drill;
  });

test("a try counts once however often it is sent; the least stays, a failed one takes nothing", async () => {
  const first = aTry({ score: 30 });
  for (const tried of [
    first,
    first,
    aTry({ score: 12 }),
    aTry({ score: 25 }),
    aTry({ isSolved: false, score: 40 }),
  ])
    expect((await post("Edda", tried)).status).toBe(200);
  await post("Edda", aTry({ what: "sums", number: 0, isSolved: false, score: 4 }));
  expect(drillsOf(await of("Edda"), "Edda")).toEqual([
    { what: "course", number: 3, tries: 4, solved: 3, best: 12 },
    { what: "sums", number: 0, tries: 1, solved: 0, best: null },
  ]);
});

test("two who end a first try of the same drill at once are both counted", async () => {
  await Promise.all(Array.from({ length: 8 }, (_, at) => post("Jonah", aTry({ number: 9, score: 10 + at }))));
  expect(drillsOf(await of("Jonah"), "Jonah")).toEqual([
    { what: "course", number: 9, tries: 8, solved: 8, best: 10 },
  ]);
});

test("everybody sees everybody, by name, and who asks", async () => {
  const seen = await of("Jonah");
  // Others may have tried some on this database, too.
  const known = seen.people.map(({ person }) => person).filter((person) => /^(Edda|Jonah)$/.test(person));
  expect([seen.me, known]).toEqual(["Jonah", ["Edda", "Jonah"]]);
});

test("what fits no drill is refused in a sentence and counts nothing; a stranger learns nothing", async () => {
  const before = drillsOf(await of("Edda"), "Edda");
  for (const [more, words] of [
    [{ what: "exam" }, /what/],
    [{ number: 100 }, /number/],
    [{ number: 1.5 }, /number/],
    [{ score: -1 }, /score/],
    [{ score: 60_001 }, /score/],
    [{ id: "1" }, /id/],
    [{ person: v7() }, /person/],
  ] as const) {
    const { status, body } = await post("Edda", aTry(more));
    expect([status, body.sentence]).toEqual([400, expect.stringMatching(words)]);
  }
  expect((await post("Edda", { ...aTry(), padding: "x".repeat(3000) })).status).toBe(413);
  expect(drillsOf(await of("Edda"), "Edda")).toEqual(before);
  const { GET, POST } = await route();
  expect((await ask(GET, { method: "GET" })).status).toBe(401);
  expect((await ask(POST, { method: "POST", body: aTry() })).status).toBe(401);
});
