import { act, cleanup, render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { JPEG } from "../../../../tests/support/jpeg";
import { scene } from "../../../../tests/support/plan-scene";
import { worker } from "../../../../tests/support/test-sheet";
import { must } from "@/core/kernel";
import { emptyPlan, PlanIndex } from "@/core/plan";
import { asClient, probe } from "@/core/probe";
import type { TestTaken } from "@/core/records";
import { aSite, testId } from "@/core/testing/build-plan";
import { Journey } from "../probe/Journey";
import { TestsView } from "./TestsView";

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
jest.mock("../../kit/photo", () => ({
  photoOf: () => Promise.resolve({ jpeg: mockJpeg() }),
}));
const mockJpeg = () => JPEG;
const saved: { name: string; text: string }[] = [];
jest.mock("../../kit/download", () => ({
  ...jest.requireActual<object>("../../kit/download"),
  download: (name: string, _: string, text: string) => mockSaved(name, text),
}));
const mockSaved = (name: string, text: string) => saved.push({ name, text });
jest.mock(
  "./use-test-sheet",
  () =>
    jest.requireActual<typeof import("../../../../tests/support/test-sheet")>(
      "../../../../tests/support/test-sheet",
    ).testSheetModule,
);

jest.mock(
  "./captures/use-capture",
  () =>
    jest.requireActual<typeof import("../../../../tests/support/capture")>(
      "../../../../tests/support/capture",
    ).captureModule,
);
jest.mock(
  "./wrong/use-diagnosis",
  () =>
    jest.requireActual<typeof import("../../../../tests/support/diagnosis")>(
      "../../../../tests/support/diagnosis",
    ).diagnosisModule,
);

const house = lockkeepersHouse();
beforeEach(() => {
  Element.prototype.scrollIntoView = () => undefined;
  // The list draws what is in sight: all of it here.
  jest.spyOn(Element.prototype, "clientHeight", "get").mockReturnValue(4000);
  jest.spyOn(Element.prototype, "clientWidth", "get").mockReturnValue(800);
  saved.length = 0;
  worker.now = {};
});
afterEach(() => jest.restoreAllMocks());

const taken = (): TestTaken[] =>
  scene.record.store.getState().record.flatMap(({ entry }) => (entry.do === "test" ? [entry] : []));
const rows = () => screen.getAllByRole("option");
const button = (name: string | RegExp) => screen.getByRole<HTMLButtonElement>("button", { name });
const chooseRow = (text: RegExp) =>
  userEvent.click(
    must(
      rows().find((row) => text.test(row.getAttribute("aria-label") ?? row.textContent ?? "")),
      String(text),
    ),
  );
const field = () => screen.getByRole("textbox", { name: /^What / });

async function begin(): Promise<void> {
  act(() => scene.show(house));
  render(<TestsView />);
  await screen.findByRole("listbox", { name: "Readings" });
}

test("a reading is ticked as expected, and the hand goes on with the next", async () => {
  await begin();
  const all = rows().length;
  await userEvent.click(must(rows()[0], "a reading"));
  const first = screen.getByRole("heading", { level: 2 }).textContent;
  await userEvent.click(button("As expected"));
  expect(rows()).toHaveLength(all - 1);
  expect(document.activeElement?.textContent).toBe("As expected");
  const [entry] = taken();
  expect([entry?.came, entry?.test.at, entry?.read]).toEqual(["expected", first, ""]);
  await userEvent.keyboard("{Enter}");
  expect(taken()).toHaveLength(2);
  expect(screen.getByRole("radio", { name: "All " + all })).not.toBeNull();
  // Whoever goes through the list by keys stays in it.
  await userEvent.click(must(rows()[0], "a reading"));
  await userEvent.keyboard("{ArrowDown}");
  await waitFor(() => expect(document.activeElement?.getAttribute("data-row")).toBe("1"));
  expect(screen.getByRole("radio", { name: `To take ${all - 2}` })).not.toBeNull();
});

test("what is typed is judged at once; what is otherwise can't be ticked as expected", async () => {
  await begin();
  await chooseRow(/Hall switch port 4.*Plug in/);
  const shown = within(screen.getByLabelText("Has to be read")).getByText(/ to .*, /).textContent ?? "";
  await userEvent.type(field(), "192.168.55.3");
  expect(screen.getByText(/in no subnet of this site: another DHCP server answers/)).not.toBeNull();
  expect(button("As expected").disabled).toBe(true);
  await userEvent.clear(field());
  await userEvent.type(field(), shown.split(" to ")[0] ?? "");
  expect(screen.getByText(/is right\.$/)).not.toBeNull();
  expect(button("Otherwise").disabled).toBe(true);
  await userEvent.clear(field());
  await userEvent.type(field(), "192.168.55.3");
  await userEvent.click(button("Otherwise"));
  const [entry] = taken();
  expect([entry?.came, entry?.read, entry?.says]).toEqual([
    "otherwise",
    "192.168.55.3",
    expect.stringContaining("another DHCP server answers"),
  ]);

  // It stands under Otherwise, is not proven, and can be taken back.
  await userEvent.click(screen.getByRole("radio", { name: "Otherwise 1" }));
  await userEvent.click(must(rows()[0], "the reading"));
  expect(screen.getByText("✕ Otherwise")).not.toBeNull();
  await userEvent.click(screen.getByRole("radio", { name: "What is proven" }));
  expect(screen.getByText(/✕ [1-9]\d* read otherwise/)).not.toBeNull();
  // A fact leads to the reading that proves it, or here does not.
  await userEvent.click(must(rows()[0], "a fact"));
  expect(screen.getByText("✕ Otherwise")).not.toBeNull();
  await userEvent.click(screen.getByRole("radio", { name: "Otherwise 1" }));
  await userEvent.click(screen.getByRole("button", { name: /^Take the reading back/ }));
  expect(screen.getByText("Nothing was read otherwise.")).not.toBeNull();
});

test("what must be right before hand-over has its numbers, and leads to where it is done", async () => {
  scene.show(house);
  render(<TestsView />);
  await userEvent.click(screen.getByRole("radio", { name: "Acceptance" }));
  const list = screen.getByRole("list", { name: "Before hand-over" });
  expect(within(list).getByText(/^not yet: no visit is in the record$/)).not.toBeNull();
  expect(
    within(list).getByText(/^not yet: 0 of \d+ proven, \d+ still to prove$/, {
      selector: "li:nth-child(3) *",
    }),
  ).not.toBeNull();
  await userEvent.click(button("Save as CSV"));
  expect(saved[0]?.name).toMatch(/acceptance\.csv$/);
  expect(saved[0]?.text.split("\r\n")).toHaveLength(within(list).getAllByRole("listitem").length + 2);
  await userEvent.click(button(/^Sheet: Every VLAN passes/));
  expect(screen.getByRole("heading", { level: 1 }).textContent).toBe("Tests");
});

test("from a reading that is otherwise one asks what is wrong, and gets back to the sheet", async () => {
  scene.show(house);
  render(<TestsView />);
  await chooseRow(/Plug in/);
  await userEvent.type(screen.getByLabelText(/^What is read/), "10.1.2.3");
  await userEvent.click(button("Otherwise"));
  await userEvent.click(screen.getByRole("radio", { name: "Otherwise 1" }));
  await userEvent.click(must(rows()[0], "the reading"));
  await userEvent.click(button("What is wrong?"));
  expect(screen.getByRole("heading", { level: 1 }).textContent).toBe("What is wrong?");
  expect(screen.getByRole("region", { name: "What was read" }).textContent).toContain("10.1.2.3");
  expect(screen.getByText(/single faults tried/)).not.toBeNull();
  await userEvent.click(screen.getByRole("radio", { name: "Sheet" }));
  expect(screen.getByRole("heading", { level: 1 }).textContent).toBe("Tests");
});

test("a switch's table, pasted whole, is laid beside its plan", async () => {
  scene.show(house);
  render(<TestsView />);
  await chooseRow(/Look on Hall switch itself/);
  const [port] = [...house.port.values()].filter(
    ({ device, pvid }) => house.device.get(device)?.name === "Hall switch" && pvid !== null,
  );
  const { label, pvid } = must(port, "a port");
  const paste = async (vid: number) => {
    await userEvent.clear(field());
    await userEvent.click(field());
    await userEvent.paste(`Port;PVID;Untagged\n${label};${vid};${vid}\n`);
  };
  await paste(must(pvid, "a VLAN"));
  expect(screen.getByText("✓ 1 port read; all as planned.")).not.toBeNull();
  const other = must(
    [...house.vlan.values()].find(({ vid }) => vid !== pvid),
    "another VLAN",
  ).vid;
  await paste(other);
  expect(
    screen.getByText(new RegExp(`^✕ 1 port read; 1 line differs\\. port ${label}: untagged ${other},`)),
  ).not.toBeNull();
  await userEvent.click(button("Otherwise"));
  expect(taken()[0]?.says).toContain("1 line differs");
});

test("what was asked on Probe stands ready to be written down as what is otherwise on site", async () => {
  scene.show(house);
  const television = must(
    [...house.host.values()].find(({ name }) => name === "television"),
    "the television",
  );
  const question = asClient({ at: "host", host: television.id }, { to: "internet", service: null });
  render(<Journey outcome={probe(PlanIndex.of(house), question, () => "")} />);
  await userEvent.click(button("On site it is otherwise"));
  expect(window.location.pathname).toMatch(/tests$/);
  cleanup();
  render(<TestsView />);
  const form = screen.getByRole("region", { name: "Another reading" });
  expect(within(form).getByText("television: See whether the internet answers.")).not.toBeNull();
  await userEvent.type(within(form).getByRole("textbox"), "nothing");
  await userEvent.click(within(form).getByRole("button", { name: "Otherwise" }));
  expect(taken().map(({ came, read, test: { at } }) => [came, read, at])).toEqual([
    ["otherwise", "nothing", "television"],
  ]);
});

test("nothing is written down as otherwise or unread without a word; a photo goes with it", async () => {
  await begin();
  await userEvent.click(must(rows()[0], "a reading"));
  expect([button("Otherwise").disabled, button("Can’t be read").disabled]).toEqual([true, true]);
  await userEvent.type(screen.getByRole("textbox", { name: /^Note/ }), "the cupboard is locked");
  await userEvent.upload(
    screen.getByLabelText("Add a photo"),
    new File(["x"], "door.jpg", { type: "image/jpeg" }),
  );
  await screen.findByRole("img", { name: "Photo 1" });
  await userEvent.click(button("Can’t be read"));
  const [entry] = taken();
  expect([entry?.came, entry?.note, entry?.photos.length]).toEqual(["cannot", "the cupboard is locked", 1]);
  // It is still to be taken: somebody comes back with the key.
  expect(screen.getByRole("radio", { name: /^To take/ }).textContent).toBe(`To take ${rows().length}`);
  expect(rows().some((row) => /can't be read/.test(row.getAttribute("aria-label") ?? ""))).toBe(true);
  await userEvent.click(button("Next"));
  expect(taken()).toHaveLength(1);
});

test("after the plan changed an older reading has to be taken anew; the table has all of it", async () => {
  await begin();
  await chooseRow(/Hall switch port 4.*Plug in/);
  await userEvent.click(button("As expected"));
  const id = must(taken()[0], "it").test.id;
  const at = scene.record.store.getState();
  act(() =>
    scene.record.store.setState({
      record: at.record.map((recorded) =>
        recorded.entry.do === "test"
          ? {
              ...recorded,
              entry: { ...recorded.entry, test: { ...recorded.entry.test, expected: "10.9.9.9" } },
            }
          : recorded,
      ),
    }),
  );
  await chooseRow(/Hall switch port 4.*Plug in.*to take anew/);
  expect(
    screen.getByText(/The plan has changed since: then it had to be 10\.9\.9\.9\. Read it anew\./),
  ).not.toBeNull();
  await userEvent.click(button("Save as CSV"));
  const [file] = saved;
  expect(file?.name).toMatch(/tests\.csv$/);
  const line = must(
    file?.text.split("\r\n").find((line) => line.includes("to take anew")),
    "its line",
  );
  expect(line).toContain("Hall switch port 4");
  expect(id).toMatch(/^lease port /);
});

test("two people part the places between them: each sees what is to be taken at one", async () => {
  await begin();
  const all = rows().length;
  await userEvent.click(screen.getByRole("button", { name: /^Place:/ }));
  const choices = within(screen.getByRole("dialog", { name: "Place" })).getAllByRole("option");
  expect(choices[0]?.textContent).toBe("everywhere");
  const counted = choices.slice(1).map(({ textContent }) => Number(/(\d+) to take$/.exec(textContent)?.[1]));
  expect(counted.reduce((sum, count) => sum + count, 0)).toBe(all);
  await userEvent.click(must(choices[1], "a place"));
  expect(rows()).toHaveLength(counted[0] ?? 0);
  expect(counted[0]).toBeLessThan(all);
});

test("a site without gear says what belongs here", () => {
  act(() => scene.show(emptyPlan(aSite({ id: testId("site", "bare") }))));
  render(<TestsView />);
  expect(screen.getByText(/Add the gear on Hardware first/)).not.toBeNull();
});

test("while worked out it says how far; called off, or of an earlier plan, it is offered", async () => {
  act(() => scene.show(house));
  worker.now = { sheet: null, of: null, isWorking: true, done: 2, all: 5 };
  const { rerender } = render(<TestsView />);
  expect(screen.getByRole<HTMLProgressElement>("progressbar").value).toBe(2);
  worker.now = { sheet: null, of: null };
  rerender(<TestsView key="called off" />);
  expect(screen.getByText("Called off.")).not.toBeNull();
  worker.started.length = 0;
  await userEvent.click(button("Work them out"));
  expect(worker.started).toEqual([house]);
  worker.now = { of: emptyPlan(aSite()) };
  rerender(<TestsView key="earlier" />);
  expect(screen.getByText("The plan has changed since these readings were worked out.")).not.toBeNull();
  expect(screen.getByRole("listbox", { name: "Readings" })).not.toBeNull();
});
