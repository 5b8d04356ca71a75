import { act, fireEvent, render } from "@testing-library/react";
import type { ComponentType } from "react";
import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { scene } from "../../../tests/support/plan-scene";
import { sentenceOf } from "@/core/checks";
import { ranked, FailureStudy, singleFailures } from "@/core/failure";
import { applyChanges, emptyPlan, PlanIndex, type Plan } from "@/core/plan";
import { must } from "@/core/kernel";
import { aSite } from "@/core/testing/build-plan";
import { dice } from "@/core/testing/plants";
import { mixedSite } from "@/core/testing/mixed-site";
import { AddressesView } from "./addresses/AddressesView";
import { DrillsView } from "./drills/DrillsView";
import { FailuresView } from "./failures/FailuresView";
import { FindingMargin } from "../margin/findings/FindingMargin";
import { FindingsView } from "./findings/FindingsView";
import { GatewayView } from "./gateway/GatewayView";
import { GuardsView } from "./guards/GuardsView";
import { HandOverView } from "./handover/HandOverView";
import { HardwareView } from "./hardware/HardwareView";
import { PortsView } from "./ports/PortsView";
import { ProbeView } from "./probe/ProbeView";
import { RunbookView } from "./runbook/RunbookView";
import { TestsView } from "./tests/TestsView";
import { SegmentsView } from "./segments/SegmentsView";
import { SurveyView } from "./survey/SurveyView";
import { WallsView } from "./walls/WallsView";
import { WirelessView } from "./wireless/WirelessView";

// Every sheet is drawn for every kind of site, an empty one among them, and its tables are written in.

type Support = typeof import("../../../tests/support/plan-scene");
const mockLosses: { plan: Plan | null; losses: unknown[] } = { plan: null, losses: [] };
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../tests/support/plan-scene").scene.planModule,
);
jest.mock(
  "@/ui/frame/use-ui",
  () => jest.requireActual<Support>("../../../tests/support/plan-scene").scene.uiModule,
);
jest.mock("@/ui/plan-store/api", () => ({
  call: () => Promise.resolve({ ok: false, status: 0, refused: { code: "no-answer", sentence: "Away." } }),
}));
jest.mock("@/ui/plan-store/plan-worker", () => ({ planWorker: () => ({}) }));
jest.mock("./failures/use-study", () => ({
  useStudy: () => ({ ...mockLosses, done: 1, all: 1, fault: null }),
  isRunning: () => false,
  startStudy: () => {},
  cancelStudy: () => {},
}));
jest.mock("./runbook/use-runbook", () => ({
  useRunbook: () => ({
    plan: null,
    found: { from: "box" },
    done: 1,
    all: 2,
    ahead: null,
    runbook: null,
    fault: null,
  }),
  isLooking: () => true,
  startRunbook: () => {},
  cancelRunbook: () => {},
}));
jest.mock(
  "./tests/use-test-sheet",
  () =>
    jest.requireActual<typeof import("../../../tests/support/test-sheet")>(
      "../../../tests/support/test-sheet",
    ).testSheetModule,
);
jest.mock("./hardware/use-layout", () => ({ useLayout: () => ({ laid: null, progress: null }) }));
jest.mock("./hardware/use-template", () => ({ useTemplate: () => null }));
jest.mock("@/ui/drill-store/remote", () => ({
  drillRoom: () => ({ bestOrder: () => Promise.resolve(null) }),
  stopDrillRoom: () => {},
}));
jest.mock("next/navigation", () => ({ useRouter: () => ({ push: () => {} }), usePathname: () => "/" }));
jest.mock("next/dynamic", () => () => () => null);

const VIEWS: readonly (readonly [string, ComponentType])[] = [
  ["Survey", SurveyView],
  ["Segments", SegmentsView],
  ["Addresses", AddressesView],
  ["Hardware", HardwareView],
  ["Ports", PortsView],
  ["Wireless", WirelessView],
  ["Gateway", GatewayView],
  ["Walls", WallsView],
  ["Switch guards", GuardsView],
  ["Findings", FindingsView],
  ["Probe", ProbeView],
  ["Failures", FailuresView],
  ["Runbook", RunbookView],
  ["Tests", TestsView],
  ["Hand-over", HandOverView],
  ["Drills", DrillsView],
];
const SITES: readonly (readonly [string, Plan])[] = [
  ...[fennelStreet(), lockkeepersHouse(), bramblewick()].map((plan) => [plan.site.name, plan] as const),
  ["a site without anything", emptyPlan(aSite())],
  ["a made site of many kinds", mixedSite(dice(11))],
];

// By role would be asked of every element of a page with thousands.
const all = (selector: string) => [...document.querySelectorAll<HTMLElement>(selector)];

const sheet = (): HTMLElement => must(document.querySelector("main"), "a sheet");

/** The same plan with its rows in the order of their ids, as the server sends it. */
const shown = (plan: Plan): Plan => PlanIndex.of(plan).plan;
function show(plan: Plan): void {
  act(() => scene.show(shown(plan)));
  const { index } = scene.store.getState().held;
  const study = new FailureStudy(index);
  mockLosses.plan = index.plan;
  mockLosses.losses = ranked(
    index,
    singleFailures(index)
      .slice(0, 40)
      .map((failure) => study.fail([failure])),
  );
}

describe.each(SITES)("%s", (_, plan) => {
  test.each(VIEWS)("%s has a head, and no word of it is a value that is not there", (_title, View) => {
    show(plan);
    render(<View />);
    const main = sheet();
    expect(main.querySelector("h1")?.textContent).toMatch(/\w/);
    expect(main.textContent).not.toMatch(/undefined|\bnull\b|NaN|\[object|Infinity/);
  });

  test.each(VIEWS)("%s in its other ways", (_title, View) => {
    show(plan);
    render(<View />);
    const radios = () => all("[role=radio]");
    for (const way of radios().map(({ textContent }) => textContent)) {
      const radio = radios().find(({ textContent }) => textContent === way);
      if (radio !== undefined) fireEvent.click(radio);
      expect(sheet().textContent).not.toMatch(/undefined|\bnull\b|NaN|\[object/);
    }
  });
});

describe("a large plan is shown before it is judged anew", () => {
  /** The practice's findings beside a plan that has nothing any more. */
  const showEmptied = () => {
    show(fennelStreet());
    const before = scene.store.getState();
    show(emptyPlan(before.held.index.plan.site));
    const { held } = scene.store.getState();
    act(() => scene.store.setState({ ...before, held: { ...held, judged: before.held.judged } }));
    return before;
  };

  test("a finding is put into words, with its repairs, in the plan that it is of", () => {
    const { list, held } = showEmptied();
    for (const finding of list) {
      const { container, unmount } = render(<FindingMargin findingKey={finding.key} view="findings" />);
      expect(container.textContent).toContain(sentenceOf(finding, held.index));
      expect(container.textContent).not.toMatch(/undefined|\bnull\b|NaN|\[object/);
      unmount();
    }
  });

  test.each(VIEWS)("%s bears the findings of entities that are gone a moment later", (_title, View) => {
    const before = showEmptied();
    render(<View />);
    expect(sheet().textContent).not.toMatch(/undefined|\bnull\b|NaN|\[object/);
    if (View === FindingsView) expect(all("li").length).toBe(before.list.length);
  });
});

const TEXTS = ["", "nonsense 99999", "10.24.20.300/99", "Staff", "Ä".repeat(3000)];

describe.each(SITES)("%s: whatever is written in a cell", (_, plan) => {
  test.each(VIEWS)("of %s is refused with a sentence, or gives a plan that stands", (_title, View) => {
    show(plan);
    render(<View />);
    const cells = () => all("[role=grid] [role=gridcell]");
    const field = () => document.querySelector<HTMLInputElement>("[role=gridcell] input");
    let tried = 0;
    // Some rows of every column: all of them would say no more.
    for (let i = 0; i < Math.min(cells().length, 26); i += 1) {
      const cell = cells()[i];
      if (cell === undefined || cell.getAttribute("aria-readonly") === "true") continue;
      fireEvent.mouseDown(cell);
      fireEvent.doubleClick(cell);
      const opened = field();
      if (opened === null) continue;
      fireEvent.change(opened, { target: { value: TEXTS[i % TEXTS.length] } });
      fireEvent.keyDown(opened, { key: "Enter" });
      const refused = field();
      if (refused !== null) fireEvent.keyDown(refused, { key: "Escape" });
      tried += 1;
    }
    if (tried > 10) expect(scene.written.length).toBeGreaterThan(3);
    let now = shown(plan);
    for (const { batch, refusal } of scene.written) {
      if (batch === null) expect(refusal ?? "").toMatch(/\S/);
      const applied = batch === null ? null : applyChanges(now, batch.changes);
      if (applied !== null) expect(applied.ok).toBe(true);
      if (applied?.ok === true) now = applied.value;
    }
    expect(scene.store.getState().held.index.plan).toEqual(now);
    expect(sheet().textContent).not.toMatch(/undefined|\bnull\b|NaN|\[object/);
  });
});
