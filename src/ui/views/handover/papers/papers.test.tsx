import { act, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { fennelStreet } from "../../../../../demo/fennel-street";
import { scene } from "../../../../../tests/support/plan-scene";
import { must } from "@/core/kernel";
import type { RecordEntry } from "@/core/records";
import type { Wanted } from "./make-pack";
import { HandOverView } from "../HandOverView";

type Support = typeof import("../../../../../tests/support/plan-scene");
const mockMade: { wanted: Wanted[]; labels: unknown[]; saved: string[]; answer: "bytes" | string } = {
  wanted: [],
  labels: [],
  saved: [],
  answer: "bytes",
};
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../../../tests/support/plan-scene").scene.planModule,
);
jest.mock(
  "@/ui/frame/use-ui",
  () => jest.requireActual<Support>("../../../../../tests/support/plan-scene").scene.uiModule,
);
jest.mock(
  "@/ui/record-store/use-record",
  () => jest.requireActual<Support>("../../../../../tests/support/plan-scene").scene.recordModule,
);
jest.mock("@/ui/plan-store/plan-worker", () => ({ planWorker: () => ({}) }));
jest.mock("@/ui/kit/download", () => ({
  ...jest.requireActual<object>("@/ui/kit/download"),
  downloadBlob: (name: string) => mockMade.saved.push(name),
}));
jest.mock("../../tests/use-test-sheet", () => ({ useTestSheet: () => ({ sheet: null, of: null }) }));
jest.mock("./make-pack", () => ({
  tapeInks: () => ({}),
  makePack: (_from: unknown, wanted: Wanted, { signal }: { signal: AbortSignal }) => {
    mockMade.wanted.push(wanted);
    if (mockMade.answer === "never") return new Promise(() => signal);
    return Promise.resolve(
      mockMade.answer === "bytes" ? { bytes: Uint8Array.of(1, 2, 3), missing: 1 } : mockMade.answer,
    );
  },
}));
jest.mock("comlink", () => ({
  ...jest.requireActual<object>("comlink"),
  wrap: () => ({
    labels: (all: unknown[], how: unknown) => {
      mockMade.labels.push([all.length, how]);
      return Promise.resolve({ bytes: Uint8Array.of(1), ending: "pdf", sheets: 4, tooSmall: 2 });
    },
  }),
}));

const button = (name: string | RegExp) => screen.getByRole<HTMLButtonElement>("button", { name });
const entries = () => scene.record.store.getState().record.map(({ entry }) => entry);
const of = <K extends RecordEntry["do"]>(kind: K) =>
  entries().filter((entry): entry is Extract<RecordEntry, { do: K }> => entry.do === kind);
const tab = (name: string) => userEvent.click(screen.getByRole("radio", { name }));
const paper = () => scene.store.getState().held.index.plan.site.paper;

beforeAll(() => {
  globalThis.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
  globalThis.Worker = class {
    terminate() {}
  } as never;
});
beforeEach(() => {
  mockMade.wanted = [];
  mockMade.labels = [];
  mockMade.saved = [];
  mockMade.answer = "bytes";
  scene.show(fennelStreet());
  render(<HandOverView />);
});

test("a pack is made for a reader, on a paper; photos that can't be had are said", async () => {
  await tab("Papers");
  await tab("Customer");
  await tab("Letter");
  await userEvent.click(screen.getByRole("checkbox", { name: "Wireless" }));
  await userEvent.click(button("Make PDF"));
  expect(mockMade.wanted).toEqual([
    { sheet: null, reader: "customer", size: "Letter", leftOut: ["wireless"], as: "pdf" },
  ]);
  expect(mockMade.saved).toEqual(["fennel-street-veterinary-practice-as-it-stands-customer.pdf"]);
  expect(screen.getByText(/is written: 1 kB\. 1 photo of the record could not be had\./)).not.toBeNull();
});

test("without any part there is nothing to make", async () => {
  await tab("Papers");
  await tab("Electrician");
  const parts = within(screen.getByRole("group", { name: "Parts" }));
  for (const box of parts.getAllByRole("checkbox")) await userEvent.click(box);
  expect([button("Make PDF").disabled, button(/^Make ZIP/).disabled]).toEqual([true, true]);
  expect(screen.getByText("Choose at least one part.")).not.toBeNull();
});

test("a pack that can't be made says why; one that takes long can be stopped", async () => {
  await tab("Papers");
  mockMade.answer = "Revision 3 of this site is not what was issued as A.";
  await userEvent.click(button(/^Make ZIP/));
  expect(screen.getByRole("alert").textContent).toBe(mockMade.answer);
  mockMade.answer = "never";
  await userEvent.click(button("Make PDF"));
  expect(button("Make PDF").disabled).toBe(true);
  await userEvent.click(button("Stop"));
  expect([button("Make PDF").disabled, mockMade.saved]).toEqual([false, []]);
});

test("what stands on the papers is written when its field is left; a wrong address is said", async () => {
  await tab("Papers");
  const agreed = screen.getByLabelText("What was agreed");
  await userEvent.clear(agreed);
  await userEvent.type(agreed, "Only this.");
  await userEvent.tab();
  expect(paper().agreed).toBe("Only this.");
  const address = screen.getByLabelText("Address for the codes on labels");
  await userEvent.clear(address);
  await userEvent.type(address, "plans?x=1");
  await userEvent.tab();
  expect(screen.getByRole("alert").textContent).toMatch(
    /^"plans\?x=1" is no address for labels; write it as/,
  );
  expect(paper().linkBase).toBe("https://plans.example.net");
  await userEvent.type(address, "{Escape}");
  expect((address as HTMLTextAreaElement).value).toBe("https://plans.example.net");
});

test("labels are printed for what is new, and noted as printed once they came out well", async () => {
  await tab("Labels");
  expect(screen.getByText("none was printed yet")).not.toBeNull();
  const all = Number(/PDF of (\d+) labels/.exec(button(/^PDF of/).textContent ?? "")?.[1]);
  await userEvent.click(button(/^PDF of/));
  expect(mockMade.labels).toEqual([[all, expect.objectContaining({ as: "pdf", skip: 0 })]]);
  expect(screen.getByText(/labels on 4 sheets\. On 2 labels the type is below 4 points/)).not.toBeNull();
  await userEvent.click(button(/came out well/));
  expect(must(of("labels")[0], "the entry").printed.length).toBe(all);
  expect(button("Nothing to print").disabled).toBe(true);
  await userEvent.click(screen.getByRole("checkbox", { name: /printed as they are, too/ }));
  expect(button(/^PDF of/).textContent).toBe(`PDF of ${all} labels`);
});

test("a form that can't be, and a place that the sheet has not, are refused in words", async () => {
  await tab("Labels");
  const first = screen.getByLabelText("First free place");
  await userEvent.clear(first);
  await userEvent.type(first, "25");
  expect(screen.getByRole("alert").textContent).toBe("The first free place is a whole number from 1 to 24.");
  await userEvent.selectOptions(screen.getByRole("combobox", { name: "Form" }), "measures of my own");
  const wide = screen.getByLabelText("Label, width mm");
  await userEvent.clear(wide);
  await userEvent.type(wide, "90,5");
  expect(screen.getByRole("alert").textContent).toBe(
    "3 labels side by side take 271.5 mm; the sheet has 210.",
  );
  expect([button(/^PDF of/).disabled, button("SVG").disabled]).toEqual([true, true]);
});

test("a point is written down, told in the diary, seen to, and after all not", async () => {
  await tab("Diary");
  expect(screen.getByText(/^Nothing was written down on site yet\./)).not.toBeNull();
  await userEvent.click(button("Remark on the site …"));
  expect(button("Write it down").disabled).toBe(true);
  await userEvent.type(screen.getByLabelText("Remark"), "the lock of cabinet B is stiff");
  await userEvent.click(screen.getByRole("radio", { name: /the customer’s/ }));
  await userEvent.click(screen.getByRole("checkbox", { name: /An open point/ }));
  await userEvent.type(screen.getByLabelText("Until"), "2026-12-24");
  await userEvent.click(button("Write it down"));
  expect(of("remark")).toEqual([
    expect.objectContaining({
      for: "customer",
      isOpen: true,
      due: "2026-12-24",
      text: "the lock of cabinet B is stiff",
    }),
  ]);
  expect([screen.getByText("1 point"), screen.getByText("open until 24 Dec 2026")].length).toBe(2);
  expect(within(screen.getByRole("region", { name: "Days" })).getByText("1 remark")).not.toBeNull();
  await userEvent.click(button("Seen to: the lock of cabinet B is stiff"));
  expect(screen.getByText("none")).not.toBeNull();
  await userEvent.click(button("Withdraw: the lock of cabinet B is stiff"));
  expect(screen.getByText("1 point")).not.toBeNull();
});

test("the job report is made from the diary", async () => {
  await tab("Diary");
  await userEvent.click(button("Make the job report"));
  await act(async () => Promise.resolve());
  expect(mockMade.wanted).toEqual([{ sheet: null, reader: "report", size: "A4", leftOut: [], as: "pdf" }]);
});
