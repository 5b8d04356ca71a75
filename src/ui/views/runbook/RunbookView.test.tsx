import { act, fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { fennelStreet } from "../../../../demo/fennel-street";
import { scene } from "../../../../tests/support/plan-scene";
import { must } from "@/core/kernel";
import { emptyPlan, PlanIndex, type Plan } from "@/core/plan";
import { provenRunbook, type Ahead, type Runbook } from "@/core/runbook";
import { aSite } from "@/core/testing/build-plan";
import { StepMargin } from "../../margin/runbook/StepMargin";
import { RunbookView } from "./RunbookView";

type Support = typeof import("../../../../tests/support/plan-scene");
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.planModule,
);
jest.mock(
  "@/ui/frame/use-ui",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.uiModule,
);
jest.mock(
  "@/ui/record-store/use-record",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.recordModule,
);
const mockFile: { answer: unknown } = { answer: null };
jest.mock("@/ui/plan-store/plan-worker", () => ({
  planWorker: () => ({ readFile: () => Promise.resolve(mockFile.answer) }),
}));
interface MockWork {
  plan: Plan | null;
  found: { from: "box" };
  done: number;
  all: number;
  ahead: Ahead | null;
  runbook: Runbook | null;
  fault: string | null;
}
const mockIdle: MockWork = {
  plan: null,
  found: { from: "box" },
  done: 0,
  all: 0,
  ahead: null,
  runbook: null,
  fault: null,
};
const mockNow = { work: mockIdle, looking: false, started: [] as unknown[], cancelled: 0 };
jest.mock("./use-runbook", () => ({
  useRunbook: () => mockNow.work,
  isLooking: () => mockNow.looking,
  startRunbook: (_index: unknown, found: unknown) => mockNow.started.push(found),
  cancelRunbook: () => (mockNow.cancelled += 1),
  foundIndex: (index: PlanIndex) =>
    jest.requireActual<typeof import("@/core/runbook")>("@/core/runbook").foundState(index, null),
}));

const practice = fennelStreet();
const found = must(provenRunbook(PlanIndex.of(practice), null), "a runbook").runbook;

function show(work: Partial<MockWork>, { looking = false, plan = practice } = {}): void {
  scene.show(plan);
  mockNow.work = { ...mockIdle, plan: practice, ...work };
  mockNow.looking = looking;
  mockNow.started = [];
  mockNow.cancelled = 0;
  render(
    <>
      <RunbookView />
      <StepMargin />
    </>,
  );
}

/** How often a sentence stands on the screen. */
const timesSaid = (text: string | RegExp): number => screen.queryAllByText(text).length;

const printed = () => screen.getByRole("list", { name: "Steps, printed", hidden: true });

test("a step is chosen, its margin says what to enter, from where, the way back, and the next", () => {
  show({ runbook: found });
  fireEvent.click(screen.getByRole("button", { name: "First step" }));
  expect(timesSaid(`Step 1 of ${found.steps.length}`)).toBe(1);
  expect(screen.getByRole("button", { name: "Back" })).toHaveProperty("disabled", true);
  const last = found.steps.length - 1;
  act(() => scene.ui.getState().select({ what: "step", number: last }));
  expect(screen.getByRole("button", { name: "Next step" })).toHaveProperty("disabled", true);
  const at = found.steps.findIndex(({ title }) => title.startsWith("Port 1: trunk, 9 VLANs tagged"));
  act(() => scene.ui.getState().select({ what: "step", number: at - 1 }));
  fireEvent.click(screen.getByRole("button", { name: "Next step" }));
  expect(screen.getByRole("heading", { level: 2 }).textContent).toContain("Port 1: trunk, 9 VLANs tagged");
  expect(timesSaid("10 20 30 40 50 60 70 80 90 (9)")).toBe(1);
  expect(timesSaid("a free one in 192.168.205.0/24")).toBe(1);
  expect(timesSaid(/enter what was before/)).toBe(1);
});

test("every step is on paper, with the laptop where it has to be", () => {
  show({ runbook: found });
  const items = within(printed()).getAllByRole("listitem", { hidden: true });
  expect(items).toHaveLength(found.steps.length);
  expect(printed().textContent).toContain("Unpack and power Upper switch");
  expect(printed().textContent).toContain("Laptop at Upper switch port 23");
});

test("the picture says in words how often the laptop is plugged in", () => {
  show({ runbook: found });
  expect(screen.getByRole("img").getAttribute("aria-label")).toBe(
    `${found.steps.length} steps, 8 devices; the laptop is plugged in ${found.moves} times. ` +
      "The table below says the same in words.",
  );
});

test("a site on which everything is as planned says that there is nothing to do", () => {
  show({ runbook: { ...found, steps: [], alreadySo: found.devices } });
  expect(timesSaid(/Everything is on the devices as planned/)).toBe(1);
});

test("an order that needs a console cable says whether every other was tried", () => {
  show({ runbook: { ...found, consoles: 2, isExhaustive: true } });
  expect(timesSaid(/2 steps need a console cable/)).toBe(1);
  expect(timesSaid(/every order was tried/)).toBe(1);
});

test("an order of one's own is tried by hand: what it comes to is told, and taken back", async () => {
  show({ runbook: found });
  fireEvent.click(screen.getByRole("radio", { name: "Rehearse by hand" }));
  expect(screen.getByText(/Try an order of your own/).tagName).toBe("P");
  expect(screen.getByRole("button", { name: "Do it" })).toHaveProperty("disabled", true);
  const user = userEvent.setup();
  const choose = async (what: string, typed: string) => {
    await user.click(screen.getByRole("button", { name: new RegExp(`^${what}`) }));
    const box = await screen.findByRole("dialog", { name: what });
    await user.type(within(box).getByRole("combobox"), `${typed}{Enter}`);
  };
  await choose("The laptop is at", "Upper switch port 23");
  await choose("Do next", "Unpack and power Upper switch");
  fireEvent.click(screen.getByRole("button", { name: "Do it" }));
  const told = await screen.findByRole("list", { name: "What came of it" });
  expect(told.textContent).toContain(
    "Upper switch answers at 192.168.204.2, its first address; the laptop has a free one in",
  );
  fireEvent.click(screen.getByRole("button", { name: "Take it back" }));
  expect(screen.queryByRole("list", { name: "What came of it" })).toBeNull();
});

test("while it looks it says how far it is, and can be called off", () => {
  const ahead = {
    operation: "x",
    device: "Gateway",
    title: "Spanning tree off",
    values: [["Kind", "off"]] as const,
  };
  show({ done: 7, all: 88, ahead: { ...ahead, laptop: "laptop at Gateway port 3" } }, { looking: true });
  const next = screen.getByRole("region", { name: "Comes next" });
  expect(next.textContent).toContain("Gateway: Spanning tree offKindofflaptop at Gateway port 3");
  expect(timesSaid("7 of 88 operations have their place")).toBe(1);
  fireEvent.click(screen.getByRole("button", { name: "Stop" }));
  expect(mockNow.cancelled).toBe(1);
});

test("an order of an earlier plan says so and is looked for again", () => {
  show({ runbook: found, plan: emptyPlan(practice.site) });
  expect(
    timesSaid("The plan, or what is known of the devices, has changed since this order was found."),
  ).toBe(1);
  fireEvent.click(screen.getByRole("button", { name: "Look again" }));
  expect(mockNow.started).toEqual([{ from: "box" }]);
});

test("a site without gear says what belongs here and looks for nothing", () => {
  show({}, { plan: emptyPlan(aSite()) });
  expect(timesSaid(/Add the gear on Hardware first/)).toBe(1);
  expect(mockNow.started).toEqual([]);
});

const choose = (name: string) =>
  fireEvent.change(screen.getByLabelText("Plan file of what is on the devices"), {
    target: { files: [Object.assign(new File(["{}"], name), { text: () => Promise.resolve("{}") })] },
  });

test("a plan file of this site is what is on the devices; any other is refused in words", async () => {
  show({ runbook: found });
  mockFile.answer = { ok: true, value: practice };
  choose("before.json");
  await waitFor(() =>
    expect(mockNow.started).toEqual([{ from: "plan", name: "before.json", plan: practice }]),
  );
  mockFile.answer = { ok: true, value: emptyPlan(aSite()) };
  choose("other.json");
  expect((await screen.findByRole("alert")).textContent).toContain("other.json is of another site");
  mockFile.answer = { ok: false, error: [{ place: "", sentence: "This is no plan file." }] };
  choose("broken.json");
  await waitFor(() => expect(screen.getByRole("alert").textContent).toContain("This is no plan file."));
  expect(mockNow.started).toHaveLength(1);
});
