import { act, fireEvent, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { bramblewick } from "../../../../demo/bramblewick";
import { fennelStreet } from "../../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { scene } from "../../../../tests/support/plan-scene";
import type { Plan } from "@/core/plan";
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
jest.mock("@/ui/plan-store/api", () => ({
  call: () => Promise.resolve({ ok: false, status: 0, refused: { code: "no-answer", sentence: "Away." } }),
}));
jest.mock("next/navigation", () => ({ useRouter: () => ({ push: () => {} }), usePathname: () => "/" }));
jest.mock("next/dynamic", () => () => () => null);

const show = (plan: Plan) => {
  scene.show(plan);
  render(
    <>
      <WallsView />
      <Margin view="walls" />
    </>,
  );
};
const plan = () => scene.store.getState().held.index.plan;
const margin = () => within(screen.getByRole("complementary", { name: "Margin" }));
const choose = (name: RegExp) => userEvent.click(screen.getByRole("radio", { name }));
const grid = (name: string) => within(screen.getByRole("grid", { name }));
const write = (field: HTMLElement, text: string) => {
  fireEvent.focus(field);
  fireEvent.change(field, { target: { value: text } });
  fireEvent.keyDown(field, { key: "Enter" });
};

test("a service is added by what it is; what can't be meant changes nothing; undo works", async () => {
  show(fennelStreet());
  await choose(/^Services, 1/);
  const add = async (name: string, is: string) => {
    for (const [label, text] of [
      ["Name of a service", name],
      ["What it is", is],
    ] as const) {
      await userEvent.clear(screen.getByRole("textbox", { name: label }));
      await userEvent.type(screen.getByRole("textbox", { name: label }), text);
    }
    await userEvent.click(screen.getByRole("button", { name: "Add a service" }));
  };
  await add("dns", "tcp 53");
  expect(scene.written.at(-1)?.refusal).toMatch(/in the catalogue already/);
  expect(plan().service.size).toBe(1);
  await add("backup", "records, tcp 8007");
  await userEvent.click(grid("Services").getByText("backup"));
  expect(margin().getByText(/tcp 443 445 8007/)).toBeTruthy();
  expect(margin().getByText("nothing yet")).toBeTruthy();
  write(margin().getByRole("textbox", { name: "Is" }), "backup");
  expect(scene.written.at(-1)?.refusal).toMatch(/would take in itself/);
  await act(() => scene.store.getState().undo());
  expect(plan().service.size).toBe(1);
});

test("a service that changes, changes the wall that lets it through", async () => {
  show(fennelStreet());
  await choose(/^Services, 1/);
  await userEvent.click(grid("Services").getByText("records"));
  expect(margin().getByText("1 wall")).toBeTruthy();
  write(margin().getByRole("textbox", { name: "Is" }), "files, tcp 8443");
  const ports = [...plan().wall.values()].flatMap(({ services }) =>
    services.filter(({ name }) => name === "records").map((service) => service.ports),
  );
  expect(ports).toEqual([
    [
      [445, 445],
      [8443, 8443],
    ],
  ]);
});

test("conduits stand on an industrial site: a door goes into one, and it goes without its doors", async () => {
  show(bramblewick());
  await choose(/^Conduits, 5/);
  await userEvent.click(grid("Conduits").getByText("Cooling demand"));
  expect(margin().getByText("Tanks to Cold")).toBeTruthy();
  write(margin().getByRole("textbox", { name: "Target level" }), "5");
  expect(scene.written.at(-1)?.refusal).toMatch(/"5" is no target level/);
  await userEvent.click(margin().getByRole("button", { name: "Remove the conduit" }));
  expect([plan().conduit.size, plan().wall.size]).toEqual([4, bramblewick().wall.size]);
  const walls = screen.getByRole("grid", { name: "Walls between zones" });
  await userEvent.click(within(walls).getByRole("gridcell", { name: /^Tanks to Cold/ }));
  write(margin().getByRole("textbox", { name: "Conduit" }), "Cooling again");
  expect([...plan().conduit.values()].map(({ name }) => name)).toContain("Cooling again");
  expect(
    [...plan().wall.values()].some(
      ({ conduit }) => plan().conduit.get(conduit ?? "")?.name === "Cooling again",
    ),
  ).toBe(true);
});

test("a zone's level and the level that it shall reach are chosen in its margin", async () => {
  show(bramblewick());
  const walls = screen.getByRole("grid", { name: "Walls between zones" });
  await userEvent.click(within(walls).getByRole("gridcell", { name: /^Office to Office/ }));
  await userEvent.selectOptions(margin().getByRole("combobox", { name: "Level of control" }), "dmz");
  await userEvent.selectOptions(margin().getByRole("combobox", { name: "Target level" }), "3");
  const office = [...plan().zone.values()].find(({ name }) => name === "Office");
  expect(office).toMatchObject({ level: "dmz", securityLevel: 3 });
});

test("at home there are no conduits and no levels to choose", async () => {
  show(lockkeepersHouse());
  expect(screen.queryByRole("radio", { name: /^Conduits/ })).toBeNull();
  const walls = screen.getByRole("grid", { name: "Walls between zones" });
  await userEvent.click(within(walls).getByText("https video"));
  expect(margin().queryByRole("textbox", { name: "Conduit" })).toBeNull();
});
