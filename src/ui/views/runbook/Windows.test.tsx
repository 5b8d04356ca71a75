import { fireEvent, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { bramblewick } from "../../../../demo/bramblewick";
import { fennelStreet } from "../../../../demo/fennel-street";
import { scene } from "../../../../tests/support/plan-scene";
import { must } from "@/core/kernel";
import { PlanIndex, type Plan, type Window } from "@/core/plan";
import { provenRunbook } from "@/core/runbook";
import { testId } from "@/core/testing/build-plan";
import { useIndex } from "@/ui/plan-store/use-plan";
import { calendarOf } from "@/http/contracts/windows-calendar";
import { NowStep } from "./NowStep";
import { Windows } from "./Windows";

type Support = typeof import("../../../../tests/support/plan-scene");
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.planModule,
);
jest.mock(
  "@/ui/frame/use-ui",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.uiModule,
);

const saturday: Window = {
  id: testId("window", "Saturday"),
  name: "Saturday",
  starts: "2028-06-03T18:00",
  minutes: 30,
  segments: [],
  permit: "14/26",
  consent: "",
  notes: "",
};
const practice: Plan = { ...fennelStreet(), window: new Map([[saturday.id, saturday]]) };
/** The practice as it works, but for the software of the upper switch. */
const before: Plan = {
  ...practice,
  device: new Map(
    [...practice.device].map(([id, device]) => [
      id,
      device.name === "Upper switch" ? { ...device, softwareFound: "", softwareWanted: "" } : device,
    ]),
  ),
};
const { runbook } = must(provenRunbook(PlanIndex.of(practice), before), "an order");

function Shown() {
  return <Windows index={useIndex()} runbook={runbook} />;
}

test("windows are pasted; how steps fall, whom they stop and the point of no return are told", async () => {
  scene.show(practice);
  render(<Shown />);
  const falls = within(screen.getByRole("region", { name: "How the steps fall" }));
  expect(falls.getAllByRole("listitem").map(({ textContent }) => textContent)).toEqual([
    expect.stringMatching(/^Steps 1 to 4at any time, \d+ min$/),
    expect.stringMatching(
      new RegExp(
        "^Step 5Saturday, Sat 3 Jun 2028, 18:00, 17 minStops .* and \\d+ more \\(\\d+ devices\\)\\. " +
          "Point of no return: step 5 itself\\. Once begun it can't be taken back within the window\\.$",
      ),
    ),
    expect.stringMatching(/^Steps 6 to 7at any time, 2 min$/),
  ]);
  const cell = screen.getByRole("gridcell", { name: /^New window/ });
  fireEvent.mouseDown(cell);
  fireEvent.doubleClick(cell);
  fireEvent.change(screen.getByRole("textbox"), { target: { value: "Sunday 2028-06-32 8:00" } });
  fireEvent.keyDown(screen.getByRole("textbox"), { key: "Enter" });
  expect(screen.getByRole("alert").textContent).toMatch(/"2028-06-32 8:00" is no day and time/);
  fireEvent.change(screen.getByRole("textbox"), { target: { value: "Sunday 2028-06-04 8:00" } });
  fireEvent.keyDown(screen.getByRole("textbox"), { key: "Enter" });
  expect(screen.getByRole("gridcell", { name: "2028-06-04 08:00" })).not.toBeNull();
  await userEvent.click(falls.getByRole("button", { name: "Step 5" }));
  expect(scene.ui.getState().selection).toEqual({ what: "step", number: 4 });
});

test("the calendar has each window in UTC, by summer time, with steps and what is to be signed", () => {
  const index = PlanIndex.of(practice);
  const file = calendarOf(index, [saturday], runbook);
  const text = "text" in file ? file.text.replaceAll("\r\n\t", "").replaceAll("\r\n ", "") : "";
  expect(text).toMatch(/^BEGIN:VCALENDAR\r\nVERSION:2\.0/);
  expect(text).toMatch(/DTSTART:20280603T170000Z/);
  expect(text).toMatch(/DURATION:PT30M/);
  expect(text).toMatch(/SUMMARY:Fennel Street Veterinary Practice: Saturday/);
  expect(text).toMatch(/DESCRIPTION:Permit: 14\/26\\n5\. Bring its software to 2\.3\.1/);
  expect(text.split("\r\n").every((line) => !line.includes("\n"))).toBe(true);
});

test("where the site's time zone is not known, the calendar keeps the time on its clock", () => {
  const works = bramblewick();
  const index = PlanIndex.of({ ...works, site: { ...works.site, timeZone: "Nowhere/Land" } });
  const file = calendarOf(index, [saturday], { steps: [], slots: [] });
  expect("text" in file ? file.text : "").toMatch(/DTSTART:20280603T180000\r/);
});

test("a permit is ticked only with who signed it", async () => {
  scene.show(practice);
  const ticked: unknown[] = [];
  render(
    <NowStep
      index={PlanIndex.of(practice)}
      record={[]}
      step={must(
        runbook.steps.find(({ kind }) => kind === "permit"),
        "a permit",
      )}
      number={1}
      all={2}
      goesOn={false}
      onTick={(came, said) => {
        ticked.push([came, said]);
        return true;
      }}
    />,
  );
  const signed = screen.getByRole("button", { name: "Signed" });
  expect(signed).toHaveProperty("disabled", true);
  expect(screen.queryByRole("button", { name: /Differs/ })).toBeNull();
  await userEvent.type(screen.getByRole("textbox", { name: /^Who signed/ }), "R. Lindqvist, until 22:00");
  await userEvent.click(signed);
  expect(ticked).toEqual([["done", { read: "", note: "R. Lindqvist, until 22:00", photos: [] }]]);
});
