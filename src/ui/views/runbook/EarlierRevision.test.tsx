import { cleanup, render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { scene } from "../../../../tests/support/plan-scene";
import { encodeChanges } from "@/core/formats";
import { must } from "@/core/kernel";
import { applyChanges, invert, PlanEdits, PlanIndex, type Plan } from "@/core/plan";
import { FoundChoice } from "./FoundChoice";

type Support = typeof import("../../../../tests/support/plan-scene");
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.planModule,
);
const mockStarted: { from: string; name: string; plan: Plan }[] = [];
jest.mock("./use-runbook", () => ({
  ...jest.requireActual<object>("./use-runbook"),
  startRunbook: (_: unknown, found: (typeof mockStarted)[number]) => mockStarted.push(found),
}));
const mockAsked: string[] = [];
let mockAnswer: (path: string) => unknown = () => null;
jest.mock("../../plan-store/api", () => ({
  call: (path: string) => {
    mockAsked.push(path);
    return Promise.resolve(mockAnswer(path));
  },
}));

const earlier = lockkeepersHouse();
const edits = new PlanEdits(earlier);
const host = must([...earlier.host.values()][0], "a host");
edits.patch("host", host.id, { notes: "moved" });
const changes = edits.changes();
const applied = applyChanges(earlier, changes);
const plan = must(applied.ok ? applied.value : null, "it fits");
const line = (revision: number) => ({
  id: `line ${revision}`,
  revision,
  authorName: "Ruth",
  madeAt: "2026-11-20T10:00:00Z",
  summary: `what ${revision} was`,
  changeCount: 1,
});
const refused = { ok: false, status: 503, refused: { code: "x", sentence: "The server rests." } };

function show(revision: number, pending: readonly unknown[] = []): void {
  const { store } = scene;
  scene.show(plan);
  const { held } = store.getState();
  store.setState({ held: { ...held, base: plan, revision, pending: pending as never } });
  const index = PlanIndex.of(plan);
  render(<FoundChoice index={index} found={{ from: "box" }} record={[]} />);
}
const open = () => userEvent.click(screen.getByRole("button", { name: "or an earlier revision …" }));

beforeEach(() => {
  mockStarted.length = 0;
  mockAsked.length = 0;
  mockAnswer = (path) =>
    path.includes("history")
      ? { ok: true, value: [line(6), line(5)] }
      : { ok: true, value: { revision: 7, entries: [{ changes: encodeChanges(changes) }], steps: {} } };
});
afterEach(cleanup);

test("an earlier revision is taken as what is on the devices, made from what has changed since", async () => {
  show(7);
  await open();
  expect(screen.getAllByRole("listitem").map(({ textContent }) => textContent)).toEqual([
    expect.stringMatching(/^Revision 6, Ruth, .*: what 6 wasTake it$/),
    expect.stringMatching(/^Revision 5, Ruth, .*: what 5 wasTake it$/),
  ]);
  await userEvent.click(screen.getByRole("button", { name: "Take revision 6" }));
  await waitFor(() => expect(mockStarted).toHaveLength(1));
  expect(mockStarted[0]).toEqual({ from: "plan", name: "revision 6", plan: earlier });
  expect(mockAsked.map((path) => path.replace(/.*\//, ""))).toEqual(["history?before=7", "batches?after=6"]);
  expect(screen.queryByRole("dialog")).toBeNull();
  cleanup();
  const found = { from: "plan", name: "revision 6", plan: earlier } as const;
  render(<FoundChoice index={PlanIndex.of(plan)} found={found} record={[]} />);
  const chosen = screen.getByRole("radio", { name: "what revision 6 says" });
  expect((chosen as HTMLInputElement).checked).toBe(true);
});

interface Refusal {
  readonly revision?: number;
  readonly pending?: readonly unknown[];
  readonly answer: (path: string) => unknown;
}
test.each<[string, Refusal, RegExp]>([
  [
    "somebody else has changed it",
    { revision: 8, answer: (path) => mockNews(path, 9) },
    /Somebody has changed the plan just now/,
  ],
  [
    "what came since does not fit",
    { answer: (path) => mockNews(path, 7, invert(changes)) },
    /Somebody has changed/,
  ],
  ["own changes wait", { pending: [{}], answer: (path) => mockNews(path, 7) }, /not saved yet/],
  ["the server does not answer", { answer: (path) => mockNews(path, null) }, /The server rests\./],
])("nothing is taken and it is said why: %s", async (_, { revision = 7, pending, answer }, says) => {
  mockAnswer = answer;
  show(revision, pending);
  await open();
  await userEvent.click(screen.getByRole("button", { name: "Take revision 6" }));
  expect((await screen.findByRole("alert")).textContent).toMatch(says);
  expect(mockStarted).toEqual([]);
});

function mockNews(path: string, revision: number | null, came = changes): unknown {
  if (path.includes("history")) return { ok: true, value: [line(6)] };
  return revision === null
    ? refused
    : { ok: true, value: { revision, entries: [{ changes: encodeChanges(came) }], steps: {} } };
}

test("a plan in its first revision has no earlier one; a list that does not come says why", async () => {
  show(1);
  expect(screen.queryByRole("button", { name: /earlier revision/ })).toBeNull();
  cleanup();
  mockAnswer = () => refused;
  show(7);
  await open();
  expect((await screen.findByRole("alert")).textContent).toBe("The server rests.");
});
