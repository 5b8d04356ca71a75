import { act, fireEvent, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { fennelStreet } from "../../../../demo/fennel-street";
import { scene } from "../../../../tests/support/plan-scene";
import { compareStates, findingsApart, stateText } from "@/core/comparison";
import { must } from "@/core/kernel";
import { PlanIndex, type Plan } from "@/core/plan";
import type { Issue, RecordEntry, Sign } from "@/core/records";
import { HandOverView } from "./HandOverView";

type Support = typeof import("../../../../tests/support/plan-scene");
interface MockSite {
  earlier: Plan | null;
  started: unknown[];
  saved: string[];
  links: unknown[];
  answer: object;
  asked: unknown[];
}
const mockSite: MockSite = {
  earlier: null,
  started: [],
  saved: [],
  links: [],
  answer: { ok: true, value: {} },
  asked: [],
};
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.planModule,
);
jest.mock(
  "@/ui/frame/use-ui",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.uiModule,
);
jest.mock("@/ui/record-store/use-record", () => {
  const { recordModule } = jest.requireActual<Support>("../../../../tests/support/plan-scene").scene;
  const sync = async () => {
    await Promise.resolve();
    mockSite.asked.push(["the record is sent"]);
  };
  return { ...recordModule, useRecord: () => ({ ...recordModule.useRecord(), sync }) };
});
jest.mock("@/ui/plan-store/plan-at", () => ({
  planAt: () => Promise.resolve(mockSite.earlier ?? "This site has no revision 7: it was made anew."),
}));
jest.mock("@/ui/plan-store/plan-worker", () => ({
  planWorker: () => ({
    check: (plan: Plan) => Promise.resolve(mockCheck(plan)),
    compare: (before: Plan, after: Plan) => {
      const [was, is] = [PlanIndex.of(before), PlanIndex.of(after)];
      return Promise.resolve({ groups: compareStates(was, is), findings: findingsApart(was, is) });
    },
  }),
}));
jest.mock("@/ui/kit/download", () => ({
  ...jest.requireActual<object>("@/ui/kit/download"),
  download: (_name: string, _type: string, text: string) => mockSite.saved.push(text),
}));
jest.mock("@/ui/plan-store/api", () => ({
  call: (path: string, method = "GET", body: { do?: string } = {}) => {
    mockSite.asked.push([path, method, body]);
    if (method === "GET") return Promise.resolve({ ok: true, value: mockSite.links });
    return Promise.resolve(mockSite.answer);
  },
}));
jest.mock("../tests/use-test-sheet", () => ({ useTestSheet: () => ({ sheet: null, of: null }) }));
jest.mock("../runbook/use-runbook", () => ({
  startRunbook: (_index: unknown, found: unknown) => mockSite.started.push(found),
}));

const mockId = (number: number) => `01a00000-0000-7000-8000-${String(number).padStart(12, "0")}`;

/** Stands for a check value: the same for the same text. */
function mockCheck(plan: Plan): string {
  let sum = 7;
  for (const char of stateText(plan)) sum = (sum * 31 + char.charCodeAt(0)) % 1_000_003;
  return sum.toString(16).padStart(64, "0");
}

const entries = () => scene.record.store.getState().record.map(({ entry }) => entry);
const of = <K extends RecordEntry["do"]>(kind: K) =>
  entries().filter((entry): entry is Extract<RecordEntry, { do: K }> => entry.do === kind);
const button = (name: string | RegExp) => screen.getByRole<HTMLButtonElement>("button", { name });
const settle = () => act(async () => Promise.resolve());

beforeAll(() => {
  globalThis.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
});
beforeEach(() => {
  mockSite.earlier = fennelStreet();
  mockSite.started = [];
  mockSite.saved = [];
  mockSite.links = [];
  mockSite.asked = [];
  scene.show(fennelStreet());
  render(<HandOverView />);
});

async function issue(name: string) {
  await userEvent.click(button("Issue this state"));
  await userEvent.type(screen.getByLabelText(/^Name, as/), name);
  await userEvent.type(screen.getByLabelText("For whom"), "the customer");
  await userEvent.click(button("Issue it"));
  await settle();
}
const table = () => within(screen.getByRole("table", { name: "Issued sheets" }));
/** A segment has another name. */
const rename = () =>
  act(() => {
    const { held } = scene.store.getState();
    const segment = must(
      [...held.index.plan.segment.values()].find(({ name }) => name === "Staff"),
      "Staff",
    );
    scene.store.getState().commit({
      ...{ id: "b", planner: "test", summary: "Renamed", args: null },
      changes: [{ kind: "segment", id: segment.id, before: segment, after: { ...segment, name: "Team" } }],
    });
  });

test("a state is issued with revision, check value and how it stands, and signed by name", async () => {
  expect(screen.getByText(/^Nothing was issued yet\./)).not.toBeNull();
  await issue("Offer");
  const [sheet] = of("issue");
  expect(sheet?.sheet).toMatchObject({ name: "Offer", recipient: "the customer", revision: 7 });
  expect(sheet?.sheet.check).toBe(mockCheck(fennelStreet()));
  expect(sheet?.sheet.stood[0]).toMatch(/^findings open: \d+ that stop it/);
  expect(table().getByText("nothing changed")).not.toBeNull();
  await userEvent.click(button("Write down as checked"));
  // What was checked is accepted next.
  expect(screen.getByRole("radio", { name: "Accepted" }).getAttribute("aria-checked")).toBe("true");
  expect(button("Write down as accepted").disabled).toBe(true);
  await userEvent.type(screen.getByLabelText("Who accepts it"), "Dr Okafor");
  const day = screen.getByLabelText("On");
  fireEvent.change(day, { target: { value: "" } });
  expect(button("Write down as accepted").disabled).toBe(true);
  fireEvent.change(day, { target: { value: "2026-11-29" } });
  await userEvent.click(button("Write down as accepted"));
  expect(of("sign").map(({ as, name, issue: id }: Sign) => [as, name, id])).toEqual([
    ["checked", "Ruth", sheet?.id],
    ["accepted", "Dr Okafor", sheet?.id],
  ]);
  expect(table().getByText("Dr Okafor, 29 Nov 2026")).not.toBeNull();
  await userEvent.click(button("Take back: accepted by Dr Okafor"));
  expect(table().queryByText(/Dr Okafor/)).toBeNull();
});

test("a name is needed, and what the server does not have yet is not issued", async () => {
  await userEvent.click(button("Issue this state"));
  expect(button("Issue it").disabled).toBe(true);
  await userEvent.type(screen.getByLabelText(/^Name, as/), "Offer");
  expect(button("Issue it").disabled).toBe(false);
  rename();
  expect(button("Issue it").disabled).toBe(true);
  expect(screen.getByRole("alert").textContent).toMatch(/does not have your last changes yet/);
  expect(of("issue")).toEqual([]);
});

test("nothing is issued, nor said of how it stands, until the plan is judged", async () => {
  const { held } = scene.store.getState();
  await userEvent.click(button("Issue this state"));
  await userEvent.type(screen.getByLabelText(/^Name, as/), "Offer");
  const stood = screen.getByRole("region", { name: "How it stands" });
  expect(stood.textContent).toMatch(/finding/);
  act(() => scene.store.setState({ held: { ...held, judged: null } }));
  expect(stood.textContent).toBe("The plan is being judged: how it stands is said in a moment.");
  expect(button("Issue it").disabled).toBe(true);
  act(() => scene.store.setState({ held }));
  await userEvent.click(button("Issue it"));
  expect(of("issue").map(({ sheet }: Issue) => sheet.name)).toEqual(["Offer"]);
});

test("what has changed since is told with both values, and leads to the thing and to the runbook", async () => {
  await issue("Offer");
  await settle();
  const since = () => within(screen.getByRole("region", { name: "Changed since" }));
  expect(since().getByText("✓ Nothing has changed.")).not.toBeNull();
  rename();
  await settle();
  expect(since().getByText("name: Staff became Team")).not.toBeNull();
  expect(since().getByText(/^Nothing is found wrong that was not before/)).not.toBeNull();
  await userEvent.click(since().getByRole("button", { name: "Runbook for the difference" }));
  expect(mockSite.started).toMatchObject([{ from: "plan", name: "A Offer" }]);
});

test("one thing is brought back as it was then, as a change that is undone as any other", async () => {
  await issue("Offer");
  rename();
  await settle();
  await userEvent.click(button("As it was: Team"));
  await settle();
  expect(screen.getByText("✓ Nothing has changed.")).not.toBeNull();
  expect(scene.written.at(-1)?.batch?.summary).toBe("As in A Offer: Team");
});

test("a device that came or went goes as one with its parts", async () => {
  await issue("Offer");
  act(() => {
    const { held } = scene.store.getState();
    const loner = {
      ...must([...held.index.plan.device.values()][0], "a device"),
      id: mockId(1),
      name: "Spare switch",
    };
    const port = {
      ...must([...held.index.plan.port.values()][0], "a port"),
      id: mockId(2),
      device: loner.id,
      lag: null,
    };
    scene.store.getState().commit({
      ...{ id: "e", planner: "test", summary: "A spare one", args: null },
      changes: [
        { kind: "device", id: loner.id, before: null, after: { ...loner, asksFrom: null, hears: [] } },
        { kind: "port", id: port.id, before: null, after: port },
      ],
    });
  });
  await settle();
  const group = within(screen.getByRole("region", { name: "Spare switch" }));
  expect(group.getAllByRole("listitem").map((item) => item.textContent)).toEqual([
    "Spare switch is new",
    expect.stringMatching(/^port .* is new$/),
  ]);
  await userEvent.click(group.getByRole("button", { name: "All 2 as they were: Spare switch" }));
  await settle();
  expect(screen.getByText("✓ Nothing has changed.")).not.toBeNull();
});

test("a sheet is compared with another one; one whose state is not here says so", async () => {
  await issue("Offer");
  await issue("As built");
  await userEvent.selectOptions(screen.getByRole("combobox", { name: "Compared with" }), "A Offer");
  await settle();
  expect(screen.getByText("✓ Nothing has changed.")).not.toBeNull();
  await userEvent.click(button(/^A\s*Offer/));
  mockSite.earlier = null;
  await userEvent.click(button(/^B\s*As built/));
  await settle();
  expect(screen.getByText("This site has no revision 7: it was made anew.")).not.toBeNull();
  const other = fennelStreet();
  mockSite.earlier = { ...other, site: { ...other.site, name: "Elsewhere" } };
  await userEvent.click(button(/^A\s*Offer/));
  await settle();
  expect(screen.getByText(/^Revision 7 of this site is not what was issued as A/)).not.toBeNull();
});

test("a withdrawn sheet keeps its letter and replaces nothing", async () => {
  await issue("Offer");
  await issue("As built");
  expect(table().getByText("replaced by B")).not.toBeNull();
  await userEvent.click(button("Withdraw B …"));
  // It is asked for twice, and can still be left.
  await userEvent.click(button("Close"));
  expect(of("takeBack")).toEqual([]);
  await userEvent.click(button("Withdraw B …"));
  await userEvent.click(button("Withdraw B"));
  expect(table().queryByText("replaced by B")).toBeNull();
  expect(table().getByText("withdrawn")).not.toBeNull();
  await issue("As built, again");
  expect(table().getByText("replaced by C")).not.toBeNull();
  expect(of("issue").map(({ sheet }: Issue) => sheet.name)).toEqual(["Offer", "As built", "As built, again"]);
});

test("what falls due stands with its days, and leaves as a calendar and as a table", async () => {
  act(() => {
    const { held } = scene.store.getState();
    const device = must([...held.index.plan.device.values()][0], "a device");
    scene.store.getState().commit({
      ...{ id: "d", planner: "test", summary: "Support", args: null },
      changes: [
        { kind: "device", id: device.id, before: device, after: { ...device, supportUntil: "2031-04-05" } },
      ],
    });
  });
  await userEvent.click(screen.getByRole("radio", { name: "What falls due" }));
  const list = within(screen.getByRole("region", { name: "What falls due" }));
  expect(list.getByText("5 Apr 2031")).not.toBeNull();
  await userEvent.click(list.getByRole("button", { name: "Save as a calendar" }));
  await userEvent.click(list.getByRole("button", { name: "Save CSV" }));
  const [calendar, table] = mockSite.saved;
  expect(calendar).toMatch(/BEGIN:VEVENT[^]*DTSTART;VALUE=DATE:20310405[^]*END:VEVENT/);
  expect(table).toMatch(/2031-04-05,The maker's support for .* ends/);
});

test("a second press while a link is being made makes no second one; the next press does", async () => {
  await issue("As built");
  const part = within(screen.getByRole("region", { name: "Hand it on" }));
  mockSite.answer = { ok: true, value: { key: "the-key" } };
  const make = part.getByRole("button", { name: "Make the link" });
  const made = () => mockSite.asked.filter((asked) => (asked as string[])[1] === "POST").length;
  // Both presses come before anything of the first has an answer.
  await act(async () => {
    fireEvent.click(make);
    fireEvent.click(make);
    await Promise.resolve();
  });
  await part.findByLabelText(/^Send this link/);
  expect(made()).toBe(1);
  await userEvent.click(make);
  expect(made()).toBe(2);
});

test("a sheet is handed on by a link, with its visits, and withdrawn; a refusal is said", async () => {
  await issue("As built");
  const [sheet] = of("issue");
  const part = within(screen.getByRole("region", { name: "Hand it on" }));
  expect(part.getByLabelText<HTMLInputElement>("Who gets it").value).toBe("the customer");
  await userEvent.selectOptions(part.getByLabelText("Papers"), "for the electrician");
  fireEvent.change(part.getByLabelText("Last day"), { target: { value: "2026-12-24" } });
  mockSite.answer = { ok: true, value: { key: "the-key" } };
  const seen = { beganAt: "2026-11-30T09:00:00Z", lastAt: "2026-11-30T09:05:00Z", cameFrom: "", asked: 3 };
  const link = (id: string, issued: string | undefined, more: object = {}) => ({
    ...{ id, title: "the customer", madeBy: { id: "r", name: "Ruth" }, madeAt: "2026-11-30T08:00:00Z" },
    ...{ endsAt: "2026-12-25T00:00:00Z", isWithdrawn: false, isOver: false, visits: 3, seen: [seen] },
    opens: { kind: "sheet", site: "s", issue: issued, reader: "electrician" },
    ...more,
  });
  mockSite.links = [
    link("one", sheet?.id),
    link("of another sheet", "other"),
    link("over", sheet?.id, { isOver: true, visits: 0, seen: [] }),
  ];
  await userEvent.click(part.getByRole("button", { name: "Make the link" }));
  expect(part.getByLabelText<HTMLInputElement>(/^Send this link/).value).toMatch(/\/handed\?key=the-key$/);
  const asked = mockSite.asked.map((request) => (request as string[]).slice(0, 2).join(" "));
  // The server knows the sheet by then, however soon after its issue the link is made.
  expect(asked.slice(-3)).toEqual([
    "the record is sent",
    expect.stringMatching(/links POST$/),
    expect.stringMatching(/links GET$/),
  ]);
  const list = within(await part.findByRole("list", { name: "Links to A" }));
  expect(list.getByText("asked 3 times; the last 1 visit")).not.toBeNull();
  expect(list.getByText(/address unknown, 3×/)).not.toBeNull();
  expect(list.getByText(/over since 25 Dec 2026/)).not.toBeNull();
  expect(list.getByText("not opened yet")).not.toBeNull();
  mockSite.answer = {
    ok: false,
    status: 422,
    refused: { code: "bad-end", sentence: "body.lastDay: The last day has to be today or later." },
  };
  await userEvent.click(list.getByRole("button", { name: "Withdraw the customer, for the electrician" }));
  expect(part.getByRole("alert").textContent).toBe("The last day has to be today or later.");
  // Nothing is kept for later, and nobody is told that it was.
  mockSite.answer = { ok: false, status: 0, refused: { code: "no-answer", sentence: "It is kept here." } };
  await userEvent.click(list.getByRole("button", { name: "Withdraw the customer, for the electrician" }));
  expect(part.getByRole("alert").textContent).toMatch(/^Links are made and listed with a connection only/);
  const posts = mockSite.asked.filter((asked) => (asked as string[])[1] === "POST");
  expect(posts.map((asked) => (asked as unknown[])[2])).toEqual([
    {
      ...{ do: "make", issue: sheet?.id, reader: "electrician" },
      ...{ title: "the customer", lastDay: "2026-12-24" },
    },
    { do: "withdraw", id: "one" },
    { do: "withdraw", id: "one" },
  ]);
});
