import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { bramblewick } from "../../../../demo/bramblewick";
import { fennelStreet } from "../../../../demo/fennel-street";
import { scene } from "../../../../tests/support/plan-scene";
import { vid, type Plan } from "@/core/plan";
import { must } from "@/core/kernel";
import { afterEdit, donePlan } from "@/core/testing/after-edit";
import { Margin } from "../Margin";

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
  render(<Margin view="guards" />);
};
const plan = () => scene.store.getState().held.index.plan;
const kinds = () => [...plan().device.values()].map(({ tree }) => tree.kind);
const press = (name: string | RegExp) => userEvent.click(screen.getByRole("button", { name }));

test("to multiple trees: the order is shown, done in one act by keyboard, and nothing is left", async () => {
  show(bramblewick());
  const before = kinds().filter((kind) => kind === "rapid").length;
  screen.getByRole("button", { name: "Go over to multiple trees" }).focus();
  await userEvent.keyboard("{Enter}");
  expect(screen.getByText(/In this order no state in between has a loop or a split/)).toBeTruthy();
  const steps = within(screen.getByRole("list", { name: "Order of the switches" })).getAllByRole("listitem");
  expect(steps[0]?.textContent).toBe("Office switch, no port changes");
  expect(steps).toHaveLength(before);
  await press(`Plan multiple trees on ${before} switches`);
  await press("Apply");
  expect(kinds().filter((kind) => kind === "multiple")).toHaveLength(before);
  expect(screen.getByText(/No switch runs a rapid tree that could run multiple ones/)).toBeTruthy();
});

test("roots that share the load: what each cable carries now and then, and the roots set", async () => {
  const instances = [20, 30].map((number, at) => ({
    number: at + 1,
    vids: [must(vid(number), "a VLAN ID")],
    priority: 32_768,
  }));
  show(
    donePlan(
      afterEdit(bramblewick(), ({ edits }) => {
        for (const { id, tree } of edits.all("device"))
          if (tree.kind === "rapid")
            edits.patch("device", id, { tree: { ...tree, kind: "multiple", region: "works", instances } });
        return null;
      }),
    ),
  );
  await press("Share the load");
  const roots = within(screen.getByRole("list", { name: "Roots" })).getAllByRole("listitem");
  expect(roots.map((root) => root.textContent?.split(":")[0])).toEqual(["instance 1", "instance 2"]);
  const rows = within(screen.getByRole("table", { name: "Load of each cable" })).getAllByRole("row");
  expect(rows.length).toBeGreaterThan(3);
  expect(rows[1]?.textContent).toMatch(/ %.* %/);
});

test("without trees each question says what is missing", async () => {
  show(fennelStreet());
  await press("How long a change takes");
  expect(screen.getByText("No two bridges run a tree together yet.")).toBeTruthy();
  await press("Share the load");
  expect(screen.getByText(/There is one tree for all VLANs/)).toBeTruthy();
});
