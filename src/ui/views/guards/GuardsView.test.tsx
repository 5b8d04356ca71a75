import { act, fireEvent, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { bramblewick } from "../../../../demo/bramblewick";
import { fennelStreet } from "../../../../demo/fennel-street";
import { scene } from "../../../../tests/support/plan-scene";
import type { Plan } from "@/core/plan";
import { must } from "@/core/kernel";
import { afterEdit, donePlan } from "@/core/testing/after-edit";
import { timeAt } from "@/core/guards";
import { Margin } from "../../margin/Margin";
import { GuardsView } from "./GuardsView";
import { TimeChart } from "./TimeChart";

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
jest.mock("@/ui/plan-store/api", () => ({
  call: () => Promise.resolve({ ok: false, status: 0, refused: { code: "no-answer", sentence: "Away." } }),
}));
jest.mock("next/navigation", () => ({ useRouter: () => ({ push: () => {} }), usePathname: () => "/" }));
jest.mock("next/dynamic", () => () => () => null);

/** Everybody is asked, however slow the machine is. */
const PATIENT = { timeout: 20_000 };
const show = async (plan: Plan) => {
  scene.show(plan);
  render(
    <>
      <GuardsView />
      <Margin view="guards" />
    </>,
  );
  await userEvent.click(screen.getByRole("radio", { name: "Sign-in" }));
};
const plan = () => scene.store.getState().held.index.plan;
const profile = () => must([...plan().signIn.values()][0], "a profile");
const margin = () => within(screen.getByRole("complementary", { name: "Margin" }));
const who = () => screen.getByRole("grid", { name: "Who gets in" });
const cellsOf = (name: string) =>
  within(must(within(who()).getByText(name).closest("tr"), "its row")).getAllByRole("gridcell");
const write = (label: string, text: string) => {
  const field = margin().getByRole("textbox", { name: label });
  fireEvent.focus(field);
  fireEvent.change(field, { target: { value: text } });
  fireEvent.keyDown(field, { key: "Enter" });
};

test("who gets in: a cell says how, where and why; by the keyboard from cell to cell", async () => {
  await show(fennelStreet());
  const cells = cellsOf("Phone Reception 1");
  expect(cells.map((cell) => cell.textContent)).toEqual([
    "PHsigns in",
    "PHsigns in",
    "PHno server",
    "GUfailed",
  ]);
  act(() => must(cells[0], "a cell").focus());
  await userEvent.keyboard("{ArrowRight}{ArrowRight}{ArrowDown}");
  expect(scene.ui.getState().selection).toMatchObject({ what: "entry", situation: "allDown" });
  expect(margin().getByRole("heading", { level: 2 }).textContent).toBe("PC Reception 1");
  expect(margin().getByText("no server answers: the port stays closed")).toBeTruthy();
  await userEvent.keyboard("{ArrowRight}{ArrowUp}");
  expect(margin().getByRole("heading", { level: 2 }).textContent).toBe("Another device");
  expect(margin().getByText("Guests, failed")).toBeTruthy();
});

test("what differs from what is meant is said, and the finding's repair mends it", async () => {
  await show(fennelStreet());
  await userEvent.click(must(cellsOf("Office printer")[0], "a cell"));
  await userEvent.click(margin().getByRole("button", { name: "Practice sign-in" }));
  write("Asks", "often");
  expect(scene.written.at(-1)?.refusal).toMatch(
    /does not say how often and how long; write it like 3 x 30 s/,
  );
  write("Asks", "3 x 30 s");
  expect(profile().timers).toMatchObject({ tries: 3, waitSeconds: 30 });
  await userEvent.click(must(cellsOf("Office printer")[0], "a cell"));
  expect(
    margin().getByText(/ask for an address for 60 s, and Practice sign-in lets them in after 91 s/),
  ).toBeTruthy();
  await userEvent.click(margin().getByRole("button", { name: "Ask 2 x 10 s on Practice sign-in" }));
  await userEvent.click(screen.getByRole("button", { name: /^Do it|^Apply|^Write/ }));
  expect(profile().timers).toMatchObject({ tries: 2, waitSeconds: 10 });
});

test("the way to closed says whom each stage cuts off, and goes there", async () => {
  await show(fennelStreet());
  await userEvent.click(
    screen.getByRole("grid", { name: "Sign-in profiles" }).querySelector("[role=gridcell]") as Element,
  );
  write("By MAC", "no");
  write("Failed", "none");
  expect(
    await margin().findAllByText(/cuts off 2: Consult 3 label printer, Office printer/, {}, PATIENT),
  ).toHaveLength(2);
  await userEvent.click(margin().getByRole("button", { name: "Go to watch" }));
  expect(profile().stage).toBe("watch");
  expect(cellsOf("Office printer")[0]?.textContent).toBe("STwatched");
  expect(cellsOf("Office printer")[3]?.textContent).toBe("STwatched, not as meant");
});

test("a site without one: a profile begins at watch; a name twice, a server that is none fail", async () => {
  await show(bramblewick());
  expect(screen.getByText(/No port asks for a sign-in yet/)).toBeTruthy();
  const add = async (name: string) => {
    await userEvent.clear(screen.getByRole("textbox", { name: "Name of a profile" }));
    await userEvent.type(screen.getByRole("textbox", { name: "Name of a profile" }), name);
    await userEvent.click(screen.getByRole("button", { name: "Add a profile" }));
  };
  await add("Offices");
  expect(profile()).toMatchObject({ name: "Offices", stage: "watch", hosts: "several" });
  await add("offices");
  expect(scene.written.at(-1)?.refusal).toBe("There is a profile Offices already.");
  await userEvent.click(within(screen.getByRole("grid", { name: "Sign-in profiles" })).getByText("Offices"));
  write("Servers", "nobody");
  expect(scene.written.at(-1)?.refusal).toMatch(/There is no device "nobody" in the register/);
  write("Visitors", "4000");
  expect(scene.written.at(-1)?.refusal).toMatch(/There is no VLAN "4000"/);
  await userEvent.click(margin().getByRole("button", { name: "Remove the sign-in profile" }));
  expect(plan().signIn.size).toBe(0);
  await act(() => scene.store.getState().undo());
  expect(plan().signIn.size).toBe(1);
});

test("the time from link up to network is drawn, and said in words where it is too long", () => {
  // A chart without a page has no width, and says so.
  jest.spyOn(console, "warn").mockImplementation(() => {});
  scene.show(fennelStreet());
  const { index } = scene.store.getState().held;
  const printer = must(
    [...index.plan.host.values()].find(({ name }) => name === "Office printer"),
    "it",
  );
  const port = must(
    index.plan.port.get(printer.attachment.at === "port" ? printer.attachment.port : ""),
    "its port",
  );
  const time = must(timeAt(index, port, printer, "well"), "its time");
  const { rerender } = render(<TimeChart time={time} host={printer} />);
  expect(screen.getByText(/2 x 10 s asked \+ 1 s at the server = 21 s/)).toBeTruthy();
  expect(screen.queryByText(/It rests after/)).toBeNull();
  rerender(<TimeChart time={{ ...time, waits: 20 }} host={printer} />);
  expect(screen.getByText("It rests after 20 s, until it is switched off and on.")).toBeTruthy();
});

test("regions as one grid: what differs is marked, and all become one in one act", async () => {
  await show(
    donePlan(
      afterEdit(fennelStreet(), ({ edits }) => {
        for (const device of edits.all("device"))
          if (device.kind === "switch")
            edits.patch("device", device.id, {
              tree: { ...device.tree, kind: "multiple", region: "Practice" },
            });
        return null;
      }),
    ),
  );
  await userEvent.click(screen.getByRole("radio", { name: "Regions" }));
  const regions = () => screen.getByRole("grid", { name: "Regions" });
  const cells = (name: string) =>
    within(must(within(regions()).getByText(name).closest("tr"), "its row")).getAllByRole("gridcell");
  expect(within(regions()).getAllByText("AC36177F50283CD4B83821D8AB26DE62")).toHaveLength(3);
  await userEvent.click(must(cells("Switch B")[4], "VLAN 20"));
  await userEvent.keyboard("3{Enter}");
  expect(scene.written.at(-1)?.refusal).toBeNull();
  expect(cells("Switch B")[4]?.textContent).toBe("≠ 3");
  expect(screen.getByText(/^2 regions;/)).toBeTruthy();
  await userEvent.selectOptions(screen.getByRole("combobox", { name: "Region of" }), "Switch B");
  await userEvent.click(screen.getByRole("button", { name: "Give it to 2 other switches" }));
  expect(screen.getByText(/^1 region;/)).toBeTruthy();
  expect(cells("Upper switch")[4]?.textContent).toBe("3");
  await act(() => scene.store.getState().undo());
  expect(screen.getByText(/^2 regions;/)).toBeTruthy();
});

test("switch on safely: what is set, left out and who loses something is said before", async () => {
  await show(fennelStreet());
  await userEvent.click(margin().getByRole("button", { name: "DHCP snooping" }));
  expect(
    await margin().findByText(/nobody who has a network now is without one then/, {}, PATIENT),
  ).toBeTruthy();
  expect(margin().getByText(/is trusted: it leads to the server of VLAN 10/)).toBeTruthy();
  await userEvent.click(margin().getByRole("button", { name: "Switch DHCP snooping on" }));
  await userEvent.click(margin().getByRole("button", { name: /^Do it|^Apply|^Write/ }));
  const snooping = [...plan().device.values()].filter(({ protections }) => protections.snooping.length > 3);
  expect(snooping.map(({ name }) => name).sort()).toEqual(["Lower switch", "Switch B", "Upper switch"]);
  expect(margin().getByText("Nothing is left to switch on.")).toBeTruthy();
  await act(() => scene.store.getState().undo());
  expect([...plan().device.values()].filter(({ protections }) => protections.snooping.length > 3)).toEqual(
    [],
  );
});
