import { act, fireEvent, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { fennelStreet } from "../../../../demo/fennel-street";
import { scene } from "../../../../tests/support/plan-scene";
import { replaceRules } from "@/core/commands";
import { must } from "@/core/kernel";
import { Margin } from "../../margin/Margin";
import { WallsView } from "./WallsView";

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

const rules = () => {
  const { index } = scene.store.getState().held;
  const device = must(
    [...index.plan.device.values()].find(({ kind }) => kind === "gateway"),
    "the gateway",
  );
  return index.rulesOf(device.id);
};
const proof = () => screen.getByRole("region", { name: "Proof" }).textContent;
const standing = () => userEvent.click(screen.getByRole("radio", { name: /What stands on it/ }));
const table = () => screen.getByRole("grid", { name: "Rules on Gateway" });

beforeEach(() => {
  scene.show(fennelStreet());
  mockWent.length = 0;
  render(
    <>
      <WallsView />
      <Margin view="walls" />
    </>,
  );
});

test("what walls need is proven; a rule's number shows its wall, and the wall its rules", async () => {
  expect(proof()).toMatch(/83 of 83 pairs do as the grid says/);
  const needed = screen.getByRole("table", { name: "Rules that the walls need" });
  const own = within(needed).getByText("reception sees the door").closest("tr");
  await userEvent.click(within(must(own, "its row")).getByRole("button"));
  expect(screen.getByRole("heading", { name: "Practice to Building" })).toBeTruthy();
  expect(must(own, "its row").className).toContain("selected");
});

test("the list that stands: what differs is named, mended in one step each, and proven", async () => {
  await standing();
  expect(proof()).toMatch(/81 of 83/);
  expect(within(table()).getAllByText("never reached")).toHaveLength(2);
  await userEvent.click(screen.getByRole("button", { name: "Practice to Building" }));
  expect(screen.getByText(/The list on Gateway lets through everything/)).toBeTruthy();
  expect(screen.getByText(/More than the wall: everything but video/)).toBeTruthy();
  act(() => scene.ui.getState().select(null));
  await userEvent.click(
    screen.getByRole("button", { name: /^On top of the list: Practice to Building video/ }),
  );
  await userEvent.click(screen.getByRole("button", { name: "Apply" }));
  expect(proof()).toMatch(/82 of 83/);
  await userEvent.click(screen.getByRole("button", { name: /^On top of the list: Servers to Internet/ }));
  await userEvent.click(screen.getByRole("button", { name: "Apply" }));
  expect(proof()).toMatch(/83 of 83/);
  expect(rules()).toHaveLength(24);
});

test("the counter-example opens in Probe, which goes by the list that it is told to go by", async () => {
  await standing();
  await userEvent.click(screen.getByRole("checkbox", { name: "probes go by this list" }));
  await userEvent.click(screen.getByRole("button", { name: "Servers to Internet" }));
  expect(screen.getByText(/Missing: https, ntp/)).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: /^Probe tcp 443 from / }));
  expect(mockWent).toEqual(["probe"]);
  expect(scene.ui.getState().probe.goal).toMatchObject({ to: "internet", service: { ports: [[443, 443]] } });
});

test("a cell is written in place; what can't be read stays open with why, and changes nothing", async () => {
  await standing();
  const cell = within(table()).getByText("no mail past the records");
  const row = must(cell.closest("tr"), "its row");
  const services = within(row).getByText("tcp 25");
  await userEvent.dblClick(services);
  const editor = screen.getByRole("combobox");
  fireEvent.change(editor, { target: { value: "quick" } });
  fireEvent.keyDown(editor, { key: "Enter" });
  expect(await screen.findByText(/"quick" is not a service/)).toBeTruthy();
  fireEvent.change(screen.getByRole("combobox"), { target: { value: "tcp 25, 587" } });
  fireEvent.keyDown(screen.getByRole("combobox"), { key: "Enter" });
  expect(rules()[8]?.services.map(({ name }) => name)).toEqual(["tcp 25", "tcp 587"]);
  expect(scene.written.map(({ refusal }) => refusal === null)).toEqual([false, true]);
});

test("a rule is moved, switched off and removed in the margin; its number follows", async () => {
  await standing();
  fireEvent.mouseDown(within(table()).getByText("no mail past the records"));
  const heading = () => screen.getByRole("heading", { level: 2, name: /^Rule \d+$/ }).textContent;
  expect(heading()).toBe("Rule 9");
  expect(screen.getByText("Rule 7 does otherwise before it.")).toBeTruthy();
  const number = screen.getByRole("textbox", { name: "Number" });
  fireEvent.change(number, { target: { value: "99" } });
  fireEvent.blur(number);
  expect(screen.getByText("The list has the numbers 1 to 21.")).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "Move up" }));
  await userEvent.click(screen.getByRole("button", { name: "Move up" }));
  expect(heading()).toBe("Rule 7");
  expect(screen.getByText("decides some packets")).toBeTruthy();
  await userEvent.click(screen.getByRole("checkbox", { name: "Switched on" }));
  expect(screen.getAllByText("off").length).toBeGreaterThan(0);
  await userEvent.click(screen.getByRole("button", { name: "Remove" }));
  expect(rules()).toHaveLength(20);
});

test("a list is read: bad lines by number, good ones replace what stood, undo brings it back", async () => {
  await userEvent.click(screen.getByRole("button", { name: "Read a rule list" }));
  const paste = (text: string) =>
    fireEvent.paste(screen.getByLabelText(/or paste here/), {
      clipboardData: { getData: () => text },
    });
  paste("  \n");
  expect(screen.getByRole("alert").textContent).toMatch(/no row in it/);
  paste("From,To,Services,Action\nStaff,Servers,https,allow\nLabb,Servers,https,allow\n");
  const region = screen.getByRole("region", { name: "Read a rule list" });
  expect(within(region).getByRole("status").textContent).toMatch(/1 rule read1 line can’t be read/);
  expect(
    within(region).getByText(/^Line 2, from: There is no zone, segment or device called "Labb"/),
  ).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "Put them in place of 21 rules" }));
  expect(rules()).toHaveLength(1);
  await act(() => scene.store.getState().undo());
  expect(rules()).toHaveLength(21);
  await userEvent.click(screen.getByRole("button", { name: "Read a rule list" }));
  paste('{"ietf-access-control-list:acls":{"speed":1}}');
  expect(screen.getByRole("alert").textContent).toMatch(/speed is not known here. Nothing was taken over/);
  paste('[{"from":"Staff","to":"Servers","services":"https"}]');
  expect(screen.getByText("1 rule read")).toBeTruthy();
});

test("the way from what stands to what is needed, step by step; noted, nothing is left", async () => {
  await userEvent.click(screen.getByRole("radio", { name: "Steps between them" }));
  const steps = within(screen.getByRole("table", { name: "Steps on Gateway" }))
    .getAllByRole("row")
    .slice(1);
  expect(steps.some((row) => /delete rule \d+/.test(row.textContent ?? ""))).toBe(true);
  expect(steps.some((row) => /insert as rule \d+/.test(row.textContent ?? ""))).toBe(true);
  await userEvent.click(screen.getByRole("button", { name: "Note all as done" }));
  expect(screen.getByText(/is the one that its walls need, rule by rule/)).toBeTruthy();
  expect(scene.written.at(-1)?.refusal).toBeNull();
  await act(() => scene.store.getState().undo());
  expect(rules()).toHaveLength(21);
});

test("the steps stay chosen when the last rule that stands on the device goes", async () => {
  await userEvent.click(screen.getByRole("radio", { name: "Steps between them" }));
  const device = must(rules()[0], "a rule").device;
  act(() => {
    scene.store.getState().edit(replaceRules({ device, rules: [] }));
  });
  expect(screen.getByRole("radio", { name: "Steps between them" }).getAttribute("aria-checked")).toBe("true");
});

test("the rules that the walls need, noted as entered, stand on the device and are proven", async () => {
  await userEvent.click(screen.getByRole("button", { name: "Note as entered" }));
  expect(proof()).toMatch(/83 of 83/);
  expect(screen.getByRole("radio", { name: /What stands on it, 17/ }).getAttribute("aria-checked")).toBe(
    "true",
  );
});
