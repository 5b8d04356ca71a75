import { act, fireEvent, render, screen, within } from "@testing-library/react";
import { fennelStreet } from "../../../demo/fennel-street";
import { scene } from "../../../tests/support/plan-scene";
import { editSegment } from "@/core/commands";
import { must } from "@/core/kernel";
import { emptyPlan, PlanIndex, rebase, type ChangeBatch, type Clash } from "@/core/plan";
import { aSite, testId } from "@/core/testing/build-plan";
import { ClashDialog } from "./ClashDialog";
import { CommandField } from "./CommandField";
import { DroppedDialog } from "./DroppedDialog";
import { KeysHelp } from "./KeysHelp";
import { TitleBlock } from "./TitleBlock";
import { TopBar } from "./TopBar";
import { UndoImportDialog } from "./UndoImportDialog";
import { useKeys } from "./use-keys";
import { WorkOrder } from "./WorkOrder";

// What stands around every sheet, and the questions that come over it.

type Support = typeof import("../../../tests/support/plan-scene");
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../tests/support/plan-scene").scene.planModule,
);
jest.mock(
  "@/ui/frame/use-ui",
  () => jest.requireActual<Support>("../../../tests/support/plan-scene").scene.uiModule,
);
jest.mock("@/ui/plan-store/plan-worker", () => ({ planWorker: () => ({}) }));
const mockErrors: string[] = [];
jest.mock("sonner", () => ({
  toast: Object.assign(() => {}, { error: (text: string) => mockErrors.push(text) }),
}));
const mockCalls: string[] = [];
jest.mock("@/ui/plan-store/api", () => ({
  call: (path: string, method: string) => {
    mockCalls.push(`${method} ${path}`);
    return Promise.resolve({ ok: false, status: 503, refused: { code: "busy", sentence: "Try again." } });
  },
}));

const plan = PlanIndex.of(fennelStreet()).plan;
const staff = must(
  [...plan.segment.values()].find(({ name }) => name === "Staff"),
  "the staff's segment",
);
const set = (part: Partial<ReturnType<typeof scene.store.getState>>) => act(() => scene.store.setState(part));
const held = () => scene.store.getState().held;
const batch = (summary: string): ChangeBatch => ({
  id: testId("batch", summary),
  planner: "test",
  summary,
  args: null,
  changes: [],
});
const turn = () => act(() => new Promise<void>((done) => setTimeout(done, 0)));

beforeEach(() => {
  act(() => scene.show(plan));
  mockErrors.length = 0;
  mockCalls.length = 0;
  window.history.replaceState(null, "", "/");
});

describe("the title block", () => {
  const draw = () => render(<TitleBlock view="segments" fallbackName="Opening" />);
  const text = () => screen.getByRole("contentinfo").textContent ?? "";

  test("says which sheet of which site at which revision, who draws, and what is found", () => {
    draw();
    expect(text()).toContain("Fennel Street Veterinary Practice");
    expect(text()).toContain("02Segments");
    expect(text()).toContain("Revision7");
    expect(text()).toContain("DrawnRuth");
    expect(text()).toMatch(/Sound|Not sound/);
  });

  test("a plan with a stop is not sound, one without is; one that is not judged is being checked", () => {
    draw();
    const [first] = scene.store.getState().list;
    set({ list: [{ ...must(first, "a finding"), severity: "stop" }] });
    expect(text()).toContain("Not sound");
    set({ list: [] });
    expect(text()).toMatch(/(?<!Not )Sound/);
    set({ held: { ...held(), judged: null } });
    expect(text()).toContain("Checking …");
  });

  test("nothing is judged of nothing", () => {
    act(() => scene.show(emptyPlan(aSite())));
    draw();
    expect(text()).toContain("Nothing to judge yet");
  });

  test.each([
    ["saved at a time", { savedAt: Date.UTC(2026, 10, 28, 9, 5) }, /saved \d\d:\d\d/],
    ["nothing saved yet", { savedAt: null }, /^$/],
    ["on the way", { saving: "saving" as const }, /^saving …$/],
    ["one waits to be sent", { saving: "saved" as const, pending: 1 }, /^saving …$/],
    ["nobody answers", { saving: "waiting" as const, pending: 2 }, /^offline: 2 changes waiting$/],
    [
      "the server refuses",
      { saving: "waiting" as const, pending: 1, trouble: "The disk is full." },
      /^not saved: 1 change waiting$/,
    ],
    [
      "signed out",
      { saving: "stranger" as const, pending: 1 },
      /^signed out: 1 change waiting; sign in again$/,
    ],
    [
      "a browser that keeps nothing",
      { saving: "waiting" as const, pending: 1, keeping: "not-kept" as const },
      /lost if this tab is closed now$/,
    ],
  ])("%s", (_, { pending = 0, ...part }: Record<string, unknown> & { pending?: number }, words) => {
    draw();
    set({
      ...part,
      held: { ...held(), pending: Array.from({ length: pending }, (__, i) => batch(`b${i}`)) },
    });
    expect(screen.getByRole("status").textContent).toMatch(words);
  });

  test("what waits for a choice is asked when one says so", () => {
    draw();
    const stuck = [{ batch: batch("Rename"), clashes: [], fault: null }];
    set({ held: { ...held(), pending: [batch("Rename")], stuck } });
    fireEvent.click(screen.getByRole("button", { name: "1 change waits for your choice" }));
    expect(scene.store.getState().asking).toBe(true);
  });
});

describe("the top bar", () => {
  const draw = () => render(<TopBar view="walls" fallbackName="Opening" />);

  test("undo and redo name what they would do, and are off where there is nothing", () => {
    draw();
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Undo" }).disabled).toBe(true);
    set({ steps: { undo: "Rename Staff", redo: "Add a segment", undoIsImport: false } });
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Undo: Rename Staff" }).disabled).toBe(
      false,
    );
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Redo: Add a segment" }).disabled).toBe(
      false,
    );
  });

  test("what can't be undone says why", async () => {
    draw();
    set({ steps: { undo: "Rename Staff", redo: null, undoIsImport: false } });
    fireEvent.click(screen.getByRole("button", { name: "Undo: Rename Staff" }));
    await turn();
    expect(mockErrors).toEqual(["There is nothing to undo."]);
  });

  test("signing out asks the server, and says when it can't", async () => {
    draw();
    fireEvent.click(screen.getByRole("button", { name: "Sign out" }));
    await turn();
    expect(mockCalls).toEqual(["DELETE /api/enter"]);
    expect(mockErrors).toEqual(["Try again."]);
  });

  test("the field opens the command field, Probe goes to its sheet", () => {
    draw();
    fireEvent.click(screen.getByRole("button", { name: /Find or do/ }));
    expect(scene.ui.getState().commandOpen).toBe(true);
    fireEvent.click(screen.getByRole("button", { name: /^Probe/ }));
    expect(window.location.pathname).toBe(`/sites/${plan.site.id}/probe`);
  });
});

describe("the work order", () => {
  test("each sheet with what is found in its part; the one on screen is marked", () => {
    render(<WorkOrder view="ports" />);
    const entries = screen.getAllByRole("link");
    expect(entries.map(({ textContent }) => textContent ?? "").join(" ")).toMatch(
      /01Survey.*08Walls.*12Failures/,
    );
    expect(entries.filter((entry) => entry.getAttribute("aria-current") !== null)).toHaveLength(1);
    const all = screen.getByRole("link", { name: /Findings/ });
    const counts = [...(all.textContent ?? "").matchAll(/\d+/g)].map(([n]) => Number(n)).slice(1);
    expect(counts.reduce((sum, n) => sum + n, 0)).toBe(scene.store.getState().list.length);
  });
});

describe("the keys that work everywhere", () => {
  const Keys = () => {
    useKeys();
    return <input aria-label="a field" />;
  };
  const press = (key: string, more: object = {}, on: Element = document.body) =>
    fireEvent.keyDown(on, { key, ...more });

  test.each([
    [["g", "2"], "segments"],
    [["g", "0", "8"], "walls"],
    [["g", "1", "2"], "failures"],
    [["p"], "probe"],
  ])("%p goes to %s", (keys, view) => {
    render(<Keys />);
    for (const key of keys) press(key);
    expect(window.location.pathname).toBe(`/sites/${plan.site.id}/${view}`);
  });

  test("letters in a field are letters, and none act once they are switched off", () => {
    render(<Keys />);
    press("p", {}, screen.getByLabelText("a field"));
    act(() => scene.ui.getState().set({ singleKeys: false }));
    press("p");
    press("?");
    expect(window.location.pathname).toBe("/");
    expect(scene.ui.getState().helpOpen).toBe(false);
    act(() => scene.ui.getState().set({ singleKeys: true }));
    press("?");
    expect(scene.ui.getState().helpOpen).toBe(true);
  });

  test("Escape lets go of what is chosen, and leaves a field alone", () => {
    render(<Keys />);
    const chosen = () => scene.ui.getState().selection;
    act(() => scene.ui.getState().select({ what: "device", id: "some" }));
    press("Escape", {}, screen.getByLabelText("a field"));
    expect(chosen()).not.toBeNull();
    press("Escape");
    expect(chosen()).toBeNull();
  });

  test("Ctrl K finds, Ctrl Z undoes with a word why not, but leaves a field's own undo alone", async () => {
    render(<Keys />);
    press("k", { ctrlKey: true });
    expect(scene.ui.getState().commandOpen).toBe(true);
    press("z", { ctrlKey: true }, screen.getByLabelText("a field"));
    await turn();
    expect(mockErrors).toEqual([]);
    press("z", { ctrlKey: true });
    await turn();
    expect(mockErrors).toEqual(["There is nothing to undo."]);
  });
});

describe("find or do", () => {
  const draw = () => {
    act(() => scene.ui.setState({ commandOpen: true }));
    render(<CommandField />);
    return screen.getByRole("combobox");
  };
  const offered = () => screen.getAllByRole("option").map(({ textContent }) => textContent ?? "");

  test("is not there until it is asked for", () => {
    render(<CommandField />);
    expect(screen.queryByRole("dialog")).toBeNull();
  });

  test("finds by name, by address, and says when there is nothing", () => {
    const field = draw();
    fireEvent.change(field, { target: { value: "Imaging" } });
    expect(offered().join("\n")).toMatch(/Imaging/);
    fireEvent.change(field, { target: { value: "10.24.20.1" } });
    expect(offered().join("\n")).toMatch(/10\.24\.20\.1/);
    fireEvent.change(field, { target: { value: "zzzz no such thing" } });
    expect(screen.getByText("No match in this plan.")).toBeTruthy();
  });

  test("goes to what is chosen, selects it and closes", () => {
    const field = draw();
    fireEvent.change(field, { target: { value: "Staff" } });
    fireEvent.click(must(screen.getAllByRole("option")[0], "a hit"));
    expect(scene.ui.getState()).toMatchObject({
      commandOpen: false,
      selection: expect.anything() as unknown,
    });
    expect(window.location.pathname).toMatch(/^\/sites\//);
  });

  test("offers what can be done, undo by its name", () => {
    set({ steps: { undo: "Rename Staff", redo: null, undoIsImport: false } });
    const field = draw();
    expect(offered()).toEqual(expect.arrayContaining(["Go to Walls", "Undo: Rename Staff", "Show all keys"]));
    fireEvent.change(field, { target: { value: "show all" } });
    fireEvent.click(must(screen.getAllByRole("option").at(-1), "the help"));
    expect(scene.ui.getState().helpOpen).toBe(true);
  });
});

test("the help names every sheet with its number", () => {
  act(() => scene.ui.setState({ helpOpen: true }));
  render(<KeysHelp />);
  expect(screen.getByRole("dialog").textContent).toMatch(/02 Segments.*08 Walls/);
});

describe("a question whether the whole import is taken back", () => {
  test("names the step, and is answered either way", () => {
    const answers: string[] = [];
    set({
      confirmingUndo: true,
      steps: { undo: "Import practice.json", redo: null, undoIsImport: true },
      keepImport: () => answers.push("kept"),
      undoImport: () => {
        answers.push("undone");
        return Promise.resolve(null);
      },
    });
    render(<UndoImportDialog />);
    expect(screen.getByRole("dialog").textContent).toContain("Import practice.json");
    fireEvent.click(screen.getByRole("button", { name: "Cancel" }));
    fireEvent.click(screen.getByRole("button", { name: "Undo the import" }));
    expect(answers).toEqual(["kept", "undone"]);
  });
});

describe("what can never be saved", () => {
  test("is named with its reason, copied as text, and goes when it is acknowledged", async () => {
    const copied: string[] = [];
    Object.assign(navigator, {
      clipboard: {
        writeText: (text: string) => {
          copied.push(text);
          return Promise.resolve();
        },
      },
    });
    set({ dropped: [{ batch: batch("Rename Staff"), sentence: "The site is full." }] });
    render(<DroppedDialog />);
    expect(screen.getByRole("dialog").textContent).toMatch(/Rename Staff.*The site is full\./);
    fireEvent.click(screen.getByRole("button", { name: "Copy" }));
    await turn();
    expect(copied[0]).toMatch(/^Rename Staff\nThe site is full\.\n\{/);
    const close = screen
      .getAllByRole("button", { name: "Close" })
      .find(({ textContent }) => textContent === "Close");
    fireEvent.click(must(close, "the button"));
    expect(screen.queryByRole("dialog")).toBeNull();
  });

  test("a browser that lets nothing be copied says what to do", async () => {
    Object.assign(navigator, {
      clipboard: { writeText: () => Promise.reject(new DOMException("no", "NotAllowedError")) },
    });
    set({ dropped: [{ batch: batch("Rename Staff"), sentence: "The site is full." }] });
    render(<DroppedDialog />);
    fireEvent.click(screen.getByRole("button", { name: "Copy" }));
    await turn();
    expect(mockErrors.join()).toMatch(/copy it yourself/);
  });
});

describe("somebody changed the same", () => {
  /** My two changes of one segment against theirs: a real clash of two fields. */
  function clashed(): { mine: ChangeBatch; clashes: readonly Clash[] } {
    const mine: ChangeBatch = {
      ...batch("Rename Staff"),
      changes: [
        { kind: "segment", id: staff.id, before: staff, after: { ...staff, name: "Crew", planned: 31 } },
      ],
    };
    const theirs = { ...plan, segment: new Map(plan.segment) };
    theirs.segment.set(staff.id, { ...staff, name: "People", planned: 57 });
    act(() => scene.show(theirs));
    const rebased = rebase(theirs, mine.changes);
    return { mine, clashes: rebased.ok ? [] : rebased.error };
  }
  const rows = () => within(screen.getByRole("dialog")).getAllByRole("listitem");

  test("each field is asked with both values, none chosen beforehand; saved when all are", () => {
    const { mine, clashes } = clashed();
    let chosen: unknown = null;
    set({
      asking: true,
      held: { ...held(), pending: [mine], stuck: [{ batch: mine, clashes, fault: null }] },
      decide: (choose) => {
        chosen = clashes.map((clash) => choose(clash));
      },
    });
    render(<ClashDialog />);
    expect(rows()).toHaveLength(2);
    expect(screen.getByRole("dialog").textContent).toMatch(/Yours: Crew.*Theirs: People/);
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "2 to choose" }).disabled).toBe(true);
    fireEvent.click(screen.getByRole("radio", { name: /Theirs: People/ }));
    fireEvent.click(screen.getByRole("radio", { name: /Yours: 31/ }));
    fireEvent.click(screen.getByRole("button", { name: "Save what is chosen" }));
    expect(chosen).toEqual(clashes.map(({ field }) => (field === "name" ? "theirs" : "mine")));
  });

  test("all of one side in one go", () => {
    const { mine, clashes } = clashed();
    let chosen: unknown = null;
    set({
      asking: true,
      held: { ...held(), pending: [mine], stuck: [{ batch: mine, clashes, fault: null }] },
      decide: (choose) => {
        chosen = clashes.map((clash) => choose(clash));
      },
    });
    render(<ClashDialog />);
    fireEvent.click(screen.getByRole("button", { name: "All: theirs" }));
    fireEvent.click(screen.getByRole("button", { name: "Save what is chosen" }));
    expect(chosen).toEqual(["theirs", "theirs"]);
  });

  test("what no longer fits the plan at all is said, and can only be taken back", () => {
    const { mine } = clashed();
    let back = false;
    const fault = { code: "stale-before", kind: "segment", id: staff.id } as const;
    set({
      asking: true,
      held: { ...held(), pending: [mine], stuck: [{ batch: mine, clashes: [], fault }] },
      withdraw: () => {
        back = true;
      },
    });
    render(<ClashDialog />);
    expect(screen.getByRole("dialog").textContent).toMatch(/no longer fits the plan/);
    fireEvent.click(screen.getByRole("button", { name: "Take my change back" }));
    expect(back).toBe(true);
  });

  test("closed, nothing is asked and nothing decided", () => {
    const { mine, clashes } = clashed();
    set({
      asking: false,
      held: { ...held(), pending: [mine], stuck: [{ batch: mine, clashes, fault: null }] },
    });
    render(<ClashDialog />);
    expect(screen.queryByRole("dialog")).toBeNull();
  });
});

test("an edit through the scene is what the store would do: shown, and taken back", async () => {
  act(() => {
    scene.store.getState().edit(editSegment({ segment: staff.id, column: "name", text: "Crew" }));
  });
  expect(held().index.plan.segment.get(staff.id)?.name).toBe("Crew");
  await act(() =>
    scene.store
      .getState()
      .undo()
      .then(() => undefined),
  );
  expect(held().index.plan.segment.get(staff.id)?.name).toBe("Staff");
});
