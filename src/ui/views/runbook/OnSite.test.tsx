import { act, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { JPEG } from "../../../../tests/support/jpeg";
import { scene } from "../../../../tests/support/plan-scene";
import { setRadio } from "@/core/commands";
import { must } from "@/core/kernel";
import { PlanIndex, type Plan } from "@/core/plan";
import { latestVisit, remaining, type Recorded } from "@/core/records";
import type { Runbook, Step } from "@/core/runbook";
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
/** What the browser makes of a file; a canvas is not here. */
const mockReads = new Map<string, object>();
jest.mock("../../kit/photo", () => ({ photoOf: ({ name }: File) => Promise.resolve(mockReads.get(name)) }));
jest.mock("../../plan-store/api", () => ({
  call: () => Promise.resolve({ ok: false, status: 0, refused: { code: "no-answer", sentence: "Away." } }),
}));
jest.mock("../../plan-store/plan-worker", () => ({ planWorker: () => ({}) }));

/** The worker's part, done here and at once: what is looked for is there the next time it is drawn. */
interface Work {
  readonly plan: Plan;
  readonly found:
    { readonly from: "box" } | { readonly from: "record"; readonly record: readonly Recorded[] };
  readonly runbook: Runbook;
}
const mockNow: { work: Work | null; found: number; heard: Set<() => void> } = {
  work: null,
  found: 0,
  heard: new Set(),
};
jest.mock("./use-runbook", () => {
  const { useSyncExternalStore } = jest.requireActual<typeof import("react")>("react");
  const { remaining: left } = jest.requireActual<typeof import("@/core/records")>("@/core/records");
  const idle = { plan: null, found: { from: "box" }, runbook: null };
  return {
    useRunbook: () => ({
      done: 0,
      all: 0,
      fault: null,
      ...useSyncExternalStore(
        (heard: () => void) => {
          mockNow.heard.add(heard);
          return () => mockNow.heard.delete(heard);
        },
        () => mockNow.work ?? idle,
      ),
    }),
    isLooking: () => false,
    startRunbook: (index: PlanIndex, found: Work["found"]) => {
      mockNow.found += 1;
      const proven = left(index, found.from === "record" ? found.record : []);
      if (proven !== null) mockNow.work = { plan: index.plan, found, runbook: proven.runbook };
      for (const heard of mockNow.heard) heard();
    },
    cancelRunbook: () => undefined,
  };
});

const house = lockkeepersHouse();

async function begin(): Promise<void> {
  Element.prototype.scrollIntoView = () => undefined;
  scene.show(house);
  mockNow.work = null;
  mockNow.found = 0;
  render(<RunbookView />);
  await userEvent.click(screen.getByRole("radio", { name: "On site" }));
  await userEvent.click(
    screen.getByRole("button", { name: "Begin a visit with gear as it comes out of the box" }),
  );
}

const press = (name: string | RegExp) => userEvent.click(screen.getByRole("button", { name }));
const heading = () => screen.getByRole("heading", { level: 2 }).textContent;
const record = () => scene.record.store.getState().record;
const visit = () => must(latestVisit(record()), "a visit");
const ticked = () => within(screen.getByRole("list", { name: "Ticked" })).getAllByRole("listitem");

/** Ticks until a step of several parts is the next, and answers which. */
async function doneUntilManyParts(): Promise<Step & { readonly operation: NonNullable<Step["operation"]> }> {
  const steps = must(mockNow.work, "an order").runbook.steps;
  const at = steps.findIndex(
    ({ operation }) => (operation?.edits.length ?? 0) > 2 && operation?.page !== "power",
  );
  for (let n = 0; n < at; n += 1) await press("Done");
  const step = must(steps[at], "a step of several parts");
  expect(heading()).toBe(step.title);
  return { ...step, operation: must(step.operation, "an operation") };
}

test("a visit is begun, its steps are ticked, and the order need not be found anew", async () => {
  await begin();
  expect(heading()).toBe("Note what the laptop has now; wireless off");
  const found = mockNow.found;
  await press("Done");
  expect(heading()).toMatch(/^Unpack and power/);
  expect(document.activeElement?.textContent).toBe("Done");
  await userEvent.type(screen.getByRole("textbox", { name: "Note (never a password)" }), "Label was loose");
  await press("Done");
  expect(ticked().map((row) => row.textContent)).toEqual([
    expect.stringMatching(/^✓Unpack and power .*Ruth, .*; Label was looseTake back$/),
    expect.stringMatching(/^✓Note what the laptop has now; wireless off.*Ruth/),
  ]);
  expect(screen.getByText(/^Visit of Ruth, since .*: 2 steps ticked, \d+ to go\.$/)).not.toBeNull();
  expect(screen.getByText(/^Step 3 of \d+$/)).not.toBeNull();
  expect(mockNow.found).toBe(found);
  expect(screen.queryByText("On the devices now:")).toBeNull();
});

test("a tick that is taken back stands no more: the step comes again", async () => {
  await begin();
  await press("Done");
  const title = must(heading(), "a title");
  await press("Done");
  await userEvent.click(screen.getByRole("button", { name: new RegExp(`^Take back: ${title}`) }));
  expect(heading()).toBe(title);
  expect(visit().ticks).toHaveLength(1);
});

test("where a step differs, what did take is chosen, and only the rest of it comes again", async () => {
  await begin();
  const { device, operation } = await doneUntilManyParts();
  const { page, edits } = operation;
  await press("Differs …");
  const parts = screen.getAllByRole("checkbox");
  expect(parts).toHaveLength(edits.length);
  await userEvent.click(must(parts[0], "a part"));
  await userEvent.type(
    screen.getByRole("textbox", { name: "What is read instead" }),
    "the others are refused",
  );
  await press("Write it down; find the order anew");
  expect(must(ticked()[0], "a row").textContent).toMatch(/^≠.*: differs.*; read: the others are refused/);
  expect(visit().ticks.at(-1)?.tick.changes).toHaveLength(1);
  const left = must(mockNow.work, "an order").runbook.steps.flatMap((step) =>
    step.device === device && step.operation?.page === page ? step.operation.edits.length : [],
  );
  expect(left).toContain(edits.length - 1);
  expect(left).not.toContain(edits.length);
});

test("where a step differs, what the device shows is pasted: read, and the order goes on", async () => {
  await begin();
  const { device } = await doneUntilManyParts();
  const own = must(house.device.get(device ?? ""), "its device");
  const port = must(PlanIndex.of(house).portsOf(own.id)[0], "a port");
  await press("Differs …");
  // A note goes with a tick and not with a reading: it must not vanish with one.
  const note = screen.getByRole("textbox", { name: /^Note/ });
  const paste = screen.getByRole<HTMLButtonElement>("button", { name: "Paste what it shows …" });
  await userEvent.type(note, "x");
  expect(paste.disabled).toBe(true);
  await userEvent.clear(note);
  await userEvent.click(paste);
  const read = screen.getByRole("region", { name: "Read a device" });
  expect(within(read).getByRole("button", { name: /^Device:/ }).textContent).toContain(own.name);
  const text = within(read).getByRole("textbox", { name: /^Paste its table of ports/ });
  await userEvent.click(text);
  await userEvent.paste(`Port\tPVID\n${port.label}\t77`);
  await press(`Note it as what is on ${own.name}`);
  const entry = must(scene.record.store.getState().record.at(-1), "an entry").entry;
  expect(entry).toMatchObject({ do: "read", device: own.id });
  expect(JSON.stringify("changes" in entry ? entry.changes : [])).toContain('"pvid":77');
});

test("what can't be done needs a reason, is left out, and the rest goes on", async () => {
  await begin();
  const { title } = await doneUntilManyParts();
  await press("Can’t be done …");
  expect(screen.getByRole("button", { name: "Write down that it can’t be done" })).toHaveProperty(
    "disabled",
    true,
  );
  await userEvent.type(screen.getByRole("textbox", { name: "Why it can't be done" }), "No licence");
  await press("Write down that it can’t be done");
  expect(must(ticked()[0], "a row").textContent).toContain("No licence");
  expect(heading()).not.toBe(title);
  const left = must(remaining(PlanIndex.of(house), record()), "an order").runbook.steps;
  expect(
    left.filter((step) => step.title === title && step.device === visit().ticks.at(-1)?.tick.step.device),
  ).toEqual([]);
});

test("what another person ticks is taken in; when they end the visit, it is over here, too", async () => {
  await begin();
  const step = must(mockNow.work?.runbook.steps[0], "a step");
  const at = "2026-11-29T09:00:00.000Z";
  const tick = {
    do: "tick",
    after: null,
    step: { kind: step.kind, device: null, page: null, title: step.title, values: [] },
    came: "done",
    read: "",
    note: "",
    photos: [],
    changes: [],
  } as const;
  const add = (entry: Recorded["entry"]) =>
    act(() => scene.record.store.setState({ record: [...record(), { by: "Marek", entry }] }));
  add({ id: "01a2254d-e987-7125-9e5a-539b88e9bd68", at, ...tick });
  expect(heading()).toMatch(/^Unpack and power/);
  add({ id: "01a2254d-e987-7125-9e5a-539b88e9bd69", at, do: "end", note: "" });
  expect(screen.getByText(/^The last visit, of Ruth, ended .*: 1 step ticked\.$/)).not.toBeNull();
});

test("a plan that changes meanwhile is taken in: the order is found anew from what is done", async () => {
  await begin();
  await press("Done");
  await press("Done");
  const found = mockNow.found;
  const radio = must(
    [...house.radio.values()].find(({ enabled }) => enabled),
    "a radio",
  ).id;
  const set = setRadio({ radio, fields: { enabled: false } });
  act(() => expect(scene.store.getState().edit(set)).toBeNull());
  expect(mockNow.found).toBe(found + 1);
  expect(mockNow.work?.plan.radio.get(radio)?.enabled).toBe(false);
  expect(visit().ticks).toHaveLength(2);
});

test("a visit with everything ticked says so; the next one begins with what it left", async () => {
  await begin();
  for (let n = 0; n < 300 && screen.queryByRole("button", { name: "Done" }) !== null; n += 1)
    await press("Done");
  expect(screen.getByText("✓ Everything that can be done is done. End the visit.")).not.toBeNull();
  await press("End the visit");
  expect(screen.getByText("There is nothing to do: the devices are as planned.")).not.toBeNull();
  expect(screen.getByRole("radio", { name: "what the record says" })).toHaveProperty("checked", true);
});

test("what is not sent yet says so, with why and where it is kept", async () => {
  await begin();
  const waiting = record().map(({ entry }) => entry);
  act(() => scene.record.store.setState({ waiting, trouble: "The server does not answer.", isKept: true }));
  expect(
    screen.getByText("Not sent yet: 1 entry, kept in this browser. The server does not answer."),
  ).not.toBeNull();
  act(() => scene.record.store.setState({ isKept: false }));
  expect(screen.getByText(/keeps nothing: leave the page open/)).not.toBeNull();
});

const aFile = (name: string) => new File([], name, { type: "image/jpeg" });
const pictured = () => {
  const tick = latestVisit(scene.record.store.getState().record)?.ticks.at(-1)?.tick;
  return tick?.photos;
};

test("photos go with a step, four at most; one opens large and can be taken out for everybody", async () => {
  await begin();
  mockReads.set("rack.jpg", { jpeg: JPEG });
  mockReads.set("notes.txt", { refusal: "notes.txt is no picture that this browser can open." });
  const add = (...names: string[]) =>
    userEvent.upload(screen.getByLabelText("Add a photo"), names.map(aFile));
  await add("notes.txt");
  expect(screen.getByRole("alert").textContent).toMatch(/notes\.txt is no picture/);
  await add("rack.jpg", "rack.jpg", "rack.jpg");
  expect(screen.queryByRole("alert")).toBeNull();
  await userEvent.click(screen.getByRole("button", { name: "Leave out: Photo 2" }));
  await add("rack.jpg", "rack.jpg", "rack.jpg");
  expect(screen.getByRole("alert").textContent).toBe("At most 4 photos go with a step.");
  expect(screen.queryByLabelText("Add a photo")).toBeNull();
  expect(screen.getAllByRole("img", { name: /^Photo/ })).toHaveLength(4);

  await userEvent.click(screen.getByRole("button", { name: "Done" }));
  const ids = must(pictured(), "a tick with photos");
  expect(scene.record.store.getState().photos).toEqual(ids.map((id) => ({ id, jpeg: JPEG })));
  expect(screen.getByLabelText("Add a photo")).toBeTruthy();

  const small = screen.getAllByRole("button", { name: /^Open: Photo \d of “/ });
  expect(small).toHaveLength(4);
  await userEvent.click(must(small[1], "the second"));
  await userEvent.click(screen.getByRole("button", { name: "Take the photo out" }));
  expect(scene.record.store.getState().record.at(-1)?.entry).toMatchObject({ do: "takeOut", photo: ids[1] });
  expect(screen.getByText("A photo was taken out.")).toBeTruthy();
  expect(screen.getAllByRole("button", { name: /^Open: Photo \d of “/ })).toHaveLength(3);

  const customers = screen.getByRole<HTMLInputElement>("checkbox", {
    name: /^The customer's, in the papers/,
  });
  expect(customers.checked).toBe(false);
  await userEvent.click(customers);
  expect(scene.record.store.getState().record.at(-1)?.entry).toMatchObject({
    ...{ do: "photosFor", for: "customer" },
    entry: scene.record.store.getState().record.find(({ entry }) => entry.do === "tick")?.entry.id,
  });
  expect(customers.checked).toBe(true);
  await userEvent.click(customers);
  expect(scene.record.store.getState().record.at(-1)?.entry).toMatchObject({ do: "photosFor", for: "us" });

  // A step that is taken back does not hide what it showed.
  await userEvent.click(screen.getByRole("button", { name: /^Take back:/ }));
  expect(screen.getByRole("heading", { name: "Photos of steps that were taken back" })).toBeTruthy();
  expect(screen.getAllByRole("button", { name: /^Open: Photo \d of “/ })).toHaveLength(3);
});

test("a photo that is still on another phone says so and can be asked for again", async () => {
  await begin();
  mockReads.set("rack.jpg", { jpeg: JPEG });
  await userEvent.upload(screen.getByLabelText("Add a photo"), [aFile("rack.jpg")]);
  await userEvent.click(screen.getByRole("button", { name: "Done" }));
  act(() => scene.record.store.setState({ photos: [] }));
  const picture = () => screen.getByRole("button", { name: /^Open: Photo 1/ }).querySelector("img");
  act(() => void must(picture(), "it").dispatchEvent(new Event("error")));
  await userEvent.click(screen.getByRole("button", { name: /is not here yet: try again$/ }));
  expect(picture()?.getAttribute("src")).toMatch(/^\/api\/sites\/.*\/photos\/.*#1$/);
});

test("a step is not ticked while its photo is still being read", async () => {
  await begin();
  let finish: (read: object) => void = () => undefined;
  mockReads.set("slow.jpg", new Promise<object>((done) => (finish = done)));
  await userEvent.upload(screen.getByLabelText("Add a photo"), [aFile("slow.jpg")]);
  const done = screen.getByRole<HTMLButtonElement>("button", { name: "Done" });
  expect(done.disabled).toBe(true);
  await act(async () => finish({ jpeg: JPEG }));
  expect(done.disabled).toBe(false);
  await userEvent.click(done);
  expect(pictured()).toHaveLength(1);
});
