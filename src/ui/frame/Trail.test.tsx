import { act, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { useContext } from "react";
import { scene } from "../../../tests/support/plan-scene";
import { editSegment } from "@/core/commands";
import { HoldContext } from "@/ui/plan-store/shown";
import { PlanProvider, usePlan } from "@/ui/plan-store/use-plan";
import { aHost, aSegment, aZone, planWith } from "@/core/testing/build-plan";
import { Trail } from "./Trail";
import { UiProvider, useUi } from "./use-ui";

type Support = typeof import("../../../tests/support/plan-scene");
jest.mock("@/ui/plan-store/store", () => ({
  createPlanStore: () =>
    Object.assign(jest.requireActual<Support>("../../../tests/support/plan-scene").scene.store, {
      wouldBeLost: () => false,
      wake: () => undefined,
    }),
}));

const staff = aSegment({ name: "Staff" });

/** What is shown of the plan and of what is looked at. */
function Told({ as }: { readonly as: string }) {
  const name = usePlan(({ held }) => held?.index.plan.segment.get(staff.id)?.name);
  const selection = useUi((state) => state.selection);
  return <p aria-label={as}>{`${name}, ${selection?.what ?? "nothing"} selected`}</p>;
}

/** A table in which a name is written, with or without having said so before. */
function Sheet() {
  const hold = useContext(HoldContext);
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const write = (text: string) => {
    edit(editSegment({ segment: staff.id, column: "name", text }));
    select({ what: "segment", id: staff.id });
  };
  const writeFirst = () => {
    hold();
    write("Office");
  };
  return (
    <>
      <Told as="sheet" />
      <button type="button" onClick={writeFirst}>
        in the table
      </button>
      <button type="button" onClick={() => write("Desk")}>
        elsewhere
      </button>
    </>
  );
}

function shown(hosts: number): () => (string | null)[] {
  const host = Array.from({ length: hosts }, (_, i) => aHost({ name: `PC ${i}` }));
  act(() => scene.show(planWith({ zone: [aZone()], segment: [staff], host })));
  render(
    <PlanProvider site="site" person="Ruth" role="owner">
      <UiProvider>
        <Trail sheet={<Sheet />} behind={<Told as="behind" />} />
      </UiProvider>
    </PlanProvider>,
  );
  return () => ["sheet", "behind"].map((label) => screen.getByLabelText(label).textContent);
}
const press = (name: string) => fireEvent.click(screen.getByRole("button", { name }));
const BEFORE = "Staff, nothing selected";
const OFFICE = "Office, segment selected";

test("what is written in a large plan's table is on the sheet first, beside it a frame later", async () => {
  const texts = shown(5001);
  expect(texts()).toEqual([BEFORE, BEFORE]);
  const between: (string | null)[] = [];
  const behind = screen.getByLabelText("behind");
  const watch = new MutationObserver(() => between.push(behind.textContent));
  watch.observe(behind, { characterData: true, subtree: true, childList: true });
  press("in the table");
  expect(texts()).toEqual([OFFICE, BEFORE]);
  await waitFor(() => expect(texts()).toEqual([OFFICE, OFFICE]));
  // The plan and what is selected come together.
  expect(new Set(between)).toEqual(new Set([OFFICE]));
  watch.disconnect();
  // And what comes then is not held up.
  press("elsewhere");
  expect(texts()).toEqual(["Desk, segment selected", "Desk, segment selected"]);
});

test("a small plan is drawn at once, in the table and beside it", () => {
  const texts = shown(20);
  press("in the table");
  expect(texts()).toEqual([OFFICE, OFFICE]);
});
