import { act, cleanup, render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { bramblewick } from "../../../../demo/bramblewick";
import { fennelStreet } from "../../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { scene } from "../../../../tests/support/plan-scene";
import { bestOrder, COURSE, makeOrderDrill, makeSum, type DrillTry } from "@/core/drills";
import { encodePlan } from "@/core/formats";
import { must } from "@/core/kernel";
import { leaveDrill, resumeDrill } from "@/ui/drill-store/store";
import { DrillRoom } from "@/workers/drill-room";
import { courseDrill } from "../../../../tests/support/course-drill";
import { DrillsView } from "./DrillsView";

type Support = typeof import("../../../../tests/support/plan-scene");
const mockServer: { tries: DrillTry[]; isAway: boolean; saved: string[]; room: DrillRoom | null } = {
  tries: [],
  isAway: false,
  saved: [],
  room: null,
};
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.planModule,
);
jest.mock(
  "@/ui/frame/use-ui",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.uiModule,
);
jest.mock("@/ui/drill-store/remote", () => ({
  // A worker answers later, whatever it is asked.
  drillRoom: () => ({
    open: async (...asked: Parameters<DrillRoom["open"]>) => mockServer.room?.open(...asked),
    play: async (...asked: Parameters<DrillRoom["play"]>) => mockServer.room?.play(...asked),
    faults: async (...asked: Parameters<DrillRoom["faults"]>) => mockServer.room?.faults(...asked),
    debrief: async (...asked: Parameters<DrillRoom["debrief"]>) => mockServer.room?.debrief(...asked),
    bestOrder: async (...asked: Parameters<DrillRoom["bestOrder"]>) => mockServer.room?.bestOrder(...asked),
  }),
  stopDrillRoom: () => undefined,
}));
jest.mock("@/ui/kit/download", () => ({
  ...jest.requireActual<object>("@/ui/kit/download"),
  download: (_name: string, _type: string, text: string) => mockServer.saved.push(text),
}));
jest.mock("@/ui/plan-store/api", () => ({
  call: (_path: string, method = "GET", body?: DrillTry) => {
    if (mockServer.isAway)
      return Promise.resolve({ ok: false, status: 0, refused: { code: "no-answer", sentence: "Away." } });
    if (method === "POST" && body !== undefined) mockServer.tries.push(body);
    const drills = mockServer.tries.map(({ what, number, isSolved, score }) => ({
      what,
      number,
      tries: 1,
      solved: isSolved ? 1 : 0,
      best: isSolved ? score : null,
      lastAt: "2026-11-30T10:00:00.000Z",
    }));
    const people = drills.length === 0 ? [] : [{ person: "Ruth", drills }];
    return Promise.resolve({ ok: true, value: { me: "Ruth", people } });
  },
}));

const FILES = { house: lockkeepersHouse, practice: fennelStreet, works: bramblewick };
const button = (name: string | RegExp) => screen.getByRole("button", { name });
const press = (name: string | RegExp) => userEvent.click(button(name));
const tab = (name: string) => userEvent.click(screen.getByRole("radio", { name }));
async function choose(label: RegExp, text: string) {
  await press(label);
  await userEvent.type(screen.getByPlaceholderText("Type part of the name"), `${text}{Enter}`);
}
const rows = () =>
  within(screen.getByRole("table", { name: "What you looked at" }))
    .getAllByRole("row")
    .slice(1)
    .map((row) =>
      within(row)
        .getAllByRole("cell")
        .map((cell) => cell.textContent),
    );
/** The debrief, once the search for the shortest way is over. */
const debriefed = () =>
  screen.findByText(/of \d+ readings that tell something here/, {}, { timeout: 20_000 });

beforeAll(() => {
  Element.prototype.scrollIntoView = () => undefined;
  globalThis.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
});
beforeEach(() => {
  localStorage.clear();
  Object.assign(mockServer, { tries: [], isAway: false, saved: [] });
  mockServer.room = new DrillRoom((site) => Promise.resolve(encodePlan(FILES[site]())));
  scene.show(lockkeepersHouse());
});
afterEach(() => {
  leaveDrill();
  cleanup();
});

const begin = async (number: number) => {
  render(<DrillsView />);
  await press(new RegExp(`^Play drill ${number},`));
  await screen.findByRole("region", { name: "Job slip" }, { timeout: 20_000 });
};

test("a drill is played to its end: named wrong, named right, mended; the debrief tells the rest", async () => {
  await begin(6);
  const fault = must(courseDrill(6).copy.faults[0], "the fault");
  expect(screen.getByText(/One thing on the site is not as planned/)).not.toBeNull();
  await press(/^See it yourself/);
  await waitFor(() => expect(rows()).toHaveLength(1));
  await press(/^Read a device/);
  await choose(/^Device: /, "Gateway");
  await press("Look");
  await waitFor(() => expect(rows()[1]?.[3]).toBe("not as planned"));
  expect(screen.getByText(/min used/).textContent).toMatch(/^\d+ of 40 min used$/);
  await choose(/^The fault: /, "Gateway was not saved");
  await press("Name it");
  await waitFor(() =>
    expect(rows()[2]?.slice(2)).toEqual(["no", expect.stringMatching(/^With that, minute/)]),
  );
  await choose(/^The fault: /, fault.words);
  await press("Name it");
  await waitFor(() => expect(rows()[3]?.[2]).toBe("yes"));
  await choose(/^What is done: /, fault.mend);
  await press("Mend it");
  await debriefed();
  expect(screen.getByRole("heading", { name: /Found and mended in \d+ min/ })).not.toBeNull();
  expect(screen.getByText(must(COURSE[5], "the lesson").standard)).not.toBeNull();
  expect(mockServer.tries).toMatchObject([{ what: "course", number: 6, isSolved: true }]);
  await press("All drills");
  expect(button(/^Play drill 6,/).textContent).toBe("Play again");
});

test("given up it is lost, counted as a try, and what it was is told", async () => {
  await begin(8);
  await press("Give up, show me");
  await debriefed();
  expect(screen.getByRole("heading", { name: /Given up/ })).not.toBeNull();
  expect(screen.getByText(/You looked at nothing/)).not.toBeNull();
  expect(screen.getByText(new RegExp(must(courseDrill(8).copy.faults[0], "").words))).not.toBeNull();
  expect(mockServer.tries).toMatchObject([{ number: 8, isSolved: false, score: 0 }]);
});

test("a page that is loaded anew goes on where it was; one that was left does not", async () => {
  await begin(6);
  await press(/^See it yourself/);
  await waitFor(() => expect(rows()).toHaveLength(1));
  const kept = { ...localStorage } as Record<string, string>;
  cleanup();
  leaveDrill();
  // Another page: its store knows of no site yet.
  resumeDrill("another site", lockkeepersHouse(), 7);
  for (const [key, value] of Object.entries(kept)) localStorage.setItem(key, value);
  render(<DrillsView />);
  await screen.findByRole("region", { name: "Job slip" }, { timeout: 20_000 });
  await waitFor(() => expect(rows()).toHaveLength(1));
  await press("Leave it");
  expect(screen.getByRole("table", { name: "Twenty drills" })).not.toBeNull();
  expect(localStorage.getItem(`dianome:drill:${scene.store.getState().site}`)).toBeNull();
});

test("on a site of one's own a drill is given up in words once the site has changed", async () => {
  render(<DrillsView />);
  await tab("This site");
  await press("Plant a fault of level 1");
  await screen.findByRole("region", { name: "Job slip" }, { timeout: 20_000 });
  expect(screen.getByRole("heading", { name: "A fault on this site" })).not.toBeNull();
  const key = `dianome:drill:${scene.store.getState().site}`;
  const kept = must(localStorage.getItem(key), "what is kept");
  cleanup();
  leaveDrill();
  resumeDrill("another site", lockkeepersHouse(), 7);
  localStorage.setItem(key, kept.replace('"revision":7', '"revision":6'));
  render(<DrillsView />);
  expect((await screen.findByRole("alert")).textContent).toMatch(/^The site has changed since/);
});

test("what is kept and cannot be read any more is as nothing", () => {
  localStorage.setItem(`dianome:drill:${scene.store.getState().site}`, "{");
  localStorage.setItem("dianome:drill-tries", '[{"id":1}]');
  localStorage.setItem("dianome:sums", '"x"');
  render(<DrillsView />);
  expect(screen.getByRole("table", { name: "Twenty drills" })).not.toBeNull();
});

test("a try waits for a server that is away, and is sent when it is back", async () => {
  await begin(8);
  mockServer.isAway = true;
  await press("Give up, show me");
  await debriefed();
  await press("All drills");
  await tab("Progress");
  expect(await screen.findByText("1 try waits here for the server.")).not.toBeNull();
  expect(screen.getByText("Away.")).not.toBeNull();
  mockServer.isAway = false;
  cleanup();
  render(<DrillsView />);
  await waitFor(() => expect(mockServer.tries).toHaveLength(1));
});

test("a round of sums: nonsense costs nothing, each answer shows its working, ten are a round", async () => {
  localStorage.setItem(
    "dianome:sums",
    JSON.stringify({
      version: 1,
      kind: "any",
      seed: 77,
      id: "01a227ee-a58d-77c2-b6f3-a407cb9cb7a0",
      answers: [],
    }),
  );
  render(<DrillsView />);
  await tab("Sums");
  const field = () => screen.getByRole("textbox");
  await userEvent.type(field(), "no idea{Enter}");
  expect(screen.getByRole("alert").textContent).toMatch(/^“no idea” is not what is asked for; write /);
  for (let at = 0; at < 10; at += 1) {
    const { question, answer, isRight } = makeSum(null, 77 + at);
    expect(screen.getByText(question)).not.toBeNull();
    const wrong = ["1", "1.1.1.1", "1.0.0.0/8", "/1", "no", "yes"].find((text) => isRight(text) === false);
    await userEvent.clear(field());
    await userEvent.type(field(), `${at === 4 ? must(wrong, "a wrong one") : answer}{Enter}`);
    expect(screen.getByText(at === 4 ? /is wrong: it is/ : /is right$/)).not.toBeNull();
  }
  expect(screen.getByText("✓ Passed: 9 of 10 right")).not.toBeNull();
  await waitFor(() => expect(mockServer.tries).toMatchObject([{ what: "sums", isSolved: true, score: 1 }]));
  await press("Another round");
  expect(screen.getByText(/^0 of 10 in this round/)).not.toBeNull();
});

test("an order of work: what is done stays done, mistakes are counted, the best order is told", async () => {
  const { index } = scene.store.getState().held;
  const drill = must(makeOrderDrill(index, 1, 11), "a job");
  const [first, second] = must(bestOrder(drill), "its best order").moves;
  const id = "01a227ee-a58d-77c2-b6f3-a407cb9cb7a0";
  localStorage.setItem(
    `dianome:order:${index.plan.site.id}`,
    JSON.stringify({ version: 1, level: 1, seed: 11, revision: 7, id, moves: [first] }),
  );
  render(<DrillsView />);
  await tab("Order of work");
  const came = () => screen.getByRole("list", { name: "What came of it" }).children;
  expect(came()).toHaveLength(1);
  expect(screen.queryByRole("button", { name: "Take it back" })).toBeNull();
  // Somebody else takes every cable out of the plan: the job goes on as it was begun.
  act(() => {
    const links = [...index.plan.link.values()];
    scene.store.getState().commit({
      ...{ id: "cables", planner: "test", summary: "Out", args: null },
      changes: links.map((link) => ({ kind: "link", id: link.id, before: link, after: null })),
    });
  });
  expect(scene.store.getState().held.index.plan.link.size).toBe(0);
  expect(came()).toHaveLength(1);
  const port = must(
    drill.rehearsal.ports().find((choice) => choice.id === second?.port),
    "the laptop's port",
  );
  await choose(/^The laptop is at: /, port.name);
  await choose(/^Do next: /, ": ");
  await press("Do it");
  expect(came()).toHaveLength(2);
  expect(screen.getByText(/^✓ Everything is on the devices as planned: 0 lock-outs/)).not.toBeNull();
  expect(await screen.findByText(/^The best there is/, {}, { timeout: 20_000 })).not.toBeNull();
  expect(mockServer.tries).toMatchObject([{ id, what: "order", number: 1, isSolved: true, score: 0 }]);
  await press("Another job");
  expect(screen.queryByRole("list", { name: "What came of it" })).toBeNull();
});

test("the teacher's sheet: everybody's best by drill, and as a table", async () => {
  mockServer.tries = [
    { id: "a", what: "course", number: 4, isSolved: true, score: 22 },
    { id: "b", what: "course", number: 5, isSolved: false, score: 40 },
    { id: "c", what: "sums", number: 0, isSolved: true, score: 1 },
  ];
  render(<DrillsView />);
  await tab("Progress");
  const line = await screen.findByRole("row", { name: /^Ruth \(you\)/ });
  const cells = within(line)
    .getAllByRole("cell")
    .map((cell) => cell.textContent);
  expect([cells[3], cells[4], cells[20], cells[23]]).toEqual(["22", "·", "1 of 20", "1 of 1 rounds"]);
  await press("Save CSV");
  expect(mockServer.saved[0]).toContain("Ruth,Course,4,The hop that was forgotten,1,1,22,minutes,");
});
