import { fireEvent, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { scene } from "../../../../tests/support/plan-scene";
import { removeLeg } from "@/core/commands";
import { emptyPlan } from "@/core/plan";
import { Margin } from "../../margin/Margin";
import { GatewayView } from "./GatewayView";

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
const mockWent: string[] = [];
jest.mock("@/ui/frame/go-to", () => ({
  ...jest.requireActual<object>("@/ui/frame/go-to"),
  useGoTo: () => ({ view: (view: string) => mockWent.push(view), subject: () => {}, device: () => {} }),
}));
jest.mock("@/ui/plan-store/api", () => ({
  call: () => Promise.resolve({ ok: false, status: 0, refused: { code: "no-answer", sentence: "Away." } }),
}));
jest.mock("next/navigation", () => ({ useRouter: () => ({ push: () => {} }), usePathname: () => "/" }));
jest.mock("next/dynamic", () => () => () => null);

const draw = () =>
  render(
    <>
      <GatewayView />
      <Margin view="gateway" />
    </>,
  );
const lines = () =>
  [...scene.store.getState().held.index.plan.line.values()].sort((a, b) => a.place - b.place);
const forwards = () => [...scene.store.getState().held.index.plan.forward.values()];
const pasteOn = (cell: HTMLElement, text: string) => {
  fireEvent.mouseDown(cell);
  fireEvent.paste(cell, { clipboardData: { getData: () => text } });
};

beforeEach(() => {
  mockWent.length = 0;
  scene.show(lockkeepersHouse());
});

test("lines and legs are drawn from the outside in; each opens its own margin", async () => {
  draw();
  const drawing = screen.getByRole("region", { name: "Lines and legs" });
  expect(within(drawing).getByText("first: carries everything, back after 60 s")).toBeTruthy();
  expect(within(drawing).getByText("next: after 10 s without Fibre line")).toBeTruthy();
  expect(within(within(drawing).getByRole("list", { name: "Legs" })).getAllByRole("listitem")).toHaveLength(
    6,
  );
  await userEvent.click(within(drawing).getByRole("button", { name: /^Fibre line/ }));
  expect(scene.ui.getState().selection).toMatchObject({ what: "line" });
  await userEvent.click(within(drawing).getByRole("button", { name: /Household/ }));
  expect(scene.ui.getState().selection).toMatchObject({ what: "interface" });
});

test("a leg is added with the gateway's address; the order of a line is written in its margin", async () => {
  const { index } = scene.store.getState().held;
  const leg = [...index.plan.interface.values()].find(
    ({ name, segment }) => segment !== null && name === "Visitors",
  );
  scene.store.getState().edit(removeLeg({ device: leg?.device ?? "", leg: leg?.id ?? "" }));
  draw();
  await userEvent.click(screen.getByRole("button", { name: "Add a leg, 172.19.60.1" }));
  expect(screen.queryByRole("button", { name: /^Add a leg/ })).toBeNull();
  await userEvent.click(screen.getByRole("button", { name: /^Mobile line/ }));
  await userEvent.clear(screen.getByRole("textbox", { name: "Order" }));
  await userEvent.type(screen.getByRole("textbox", { name: "Order" }), "1{Enter}");
  expect(screen.getByText("first: carries everything, back after 60 s")).toBeTruthy();
  expect(lines()[0]?.name).toBe("Mobile line");
});

test("forwards are pasted; one that meets another is moved, probed and removed from its margin", async () => {
  draw();
  const had = forwards().length;
  const grid = screen.getByRole("grid", { name: "Forwards" });
  pasteOn(
    within(grid).getByText("New forward"),
    "Panel\tFibre line\ttcp 9443\t172.19.30.20\t443\t203.0.113.41\n" +
      "Spare\tFibre line\ttcp 9443\t172.19.30.20\t80\t203.0.113.41",
  );
  expect(forwards()).toHaveLength(had + 2);
  expect(screen.getByText(/both want TCP 9443 on Fibre line/)).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "Move Spare to TCP 9444" }));
  await userEvent.click(screen.getByRole("button", { name: "Apply" }));
  expect(forwards().find(({ name }) => name === "Spare")?.ports).toEqual([9444, 9444]);
  fireEvent.mouseDown(within(grid).getByText("Spare"));
  await userEvent.click(screen.getByRole("button", { name: "Probe it from outside" }));
  expect(mockWent).toEqual(["probe"]);
  fireEvent.mouseDown(within(grid).getByText("Spare"));
  await userEvent.click(screen.getByRole("button", { name: "Remove" }));
  expect(forwards()).toHaveLength(had + 1);
});

test("routes are pasted and refused in place; a next hop that is no neighbour is found", () => {
  draw();
  const grid = screen.getByRole("grid", { name: "Routes on Gateway" });
  pasteOn(within(grid).getByText(/^New route/), "10.9.0.0/16\t10.8.0.1");
  expect(within(grid).getByText("10.9.0.0/16")).toBeTruthy();
  expect(screen.getByText(/which lies in no network that it has an address in/)).toBeTruthy();
  pasteOn(within(grid).getByText(/^New route/), "10.9.0.0/16\t10.8.0.1");
  expect(scene.written.at(-1)?.refusal).toMatch(
    /There is a route for 10\.9\.0\.0\/16 by 10\.8\.0\.1 already/,
  );
});

test("without anything that routes it says what belongs here and where to begin", async () => {
  scene.show(emptyPlan(lockkeepersHouse().site));
  draw();
  await userEvent.click(screen.getByRole("button", { name: "Go to Hardware" }));
  expect(mockWent).toEqual(["hardware"]);
});

const lineCell = (line: string, column: string) => {
  const grid = screen.getByRole("grid", { name: "Lines" });
  const at = within(grid)
    .getAllByRole("columnheader")
    .findIndex((head) => head.textContent?.startsWith(column));
  const row = within(grid)
    .getAllByRole("row")
    .find((row) => within(row).queryAllByText(line).length > 0);
  return within(row ?? grid).getAllByRole("gridcell")[at] as HTMLElement;
};

test("lines are put in order, share, are watched and get pins; what can't be changes nothing", () => {
  draw();
  pasteOn(lineCell("Mobile line", "Order"), "1");
  expect(lines().map(({ name, place }) => [name, place])).toEqual([
    ["Mobile line", 0],
    ["Fibre line", 1],
  ]);
  pasteOn(lineCell("Mobile line", "Order"), "2");
  pasteOn(
    lineCell("Fibre line", "Share"),
    "70\t198.51.100.1, 203.0.113.9\t15 s\tby hand\tStudio or nothing, sip",
  );
  pasteOn(lineCell("Mobile line", "Share"), "30 %");
  expect(lines()[0]).toMatchObject({
    name: "Fibre line",
    share: 70,
    watch: { by: "target", afterSeconds: 15, returns: false },
  });
  expect(lines()[0]?.watch.targets).toHaveLength(2);
  expect(lines()[0]?.pins.map(({ what, orElse }) => `${what} ${orElse}`)).toEqual([
    "segment stays",
    "service next",
    "service next",
  ]);
  expect(screen.getByText(/^carries 30 % of what goes out$/)).toBeTruthy();
  const before = lines();
  for (const [column, text] of [
    ["Order", "7"],
    ["Share", "120"],
    ["Loss noticed", "the moon"],
    ["Next after", "soon"],
    ["Pinned", "Nobody at all"],
  ] as const)
    pasteOn(lineCell("Fibre line", column), text);
  expect(lines()).toEqual(before);
});

test("a new line is begun with its name, stands last and carries nothing yet", async () => {
  draw();
  const grid = screen.getByRole("grid", { name: "Lines" });
  const last = within(grid).getAllByRole("row").at(-1) as HTMLElement;
  pasteOn(within(last).getAllByRole("gridcell")[1] as HTMLElement, "Radio line");
  expect(lines().map(({ name, place }) => [name, place])).toEqual([
    ["Fibre line", 0],
    ["Mobile line", 1],
    ["Radio line", 2],
  ]);
});
