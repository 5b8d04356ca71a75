import { fireEvent, render, screen } from "@testing-library/react";
import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { listFindings, runChecks } from "@/core/checks";
import { runOrder, type Order } from "@/core/commands";
import { applyChanges, PlanIndex, type ChangeBatch, type Plan } from "@/core/plan";
import { testId } from "@/core/testing/build-plan";
import { createUiStore, type Selection } from "../frame/ui-state";
import type { ViewKey } from "../frame/views";
import { Margin } from "./Margin";

// Every margin is drawn for what the demo sites have of its kind, and every field in it is written in: what
// can't be meant is refused with a sentence, or gives a plan that stands.

let mockIndex = PlanIndex.of(fennelStreet());
let mockFindings = runChecks(mockIndex);
let mockList = listFindings(mockFindings);
const mockUi = createUiStore();
const mockWritten: { batch: ChangeBatch | null; refusal: string | null }[] = [];
let made = 0;

const mockState = () => ({
  site: mockIndex.plan.site.id,
  person: "Ruth",
  held: {
    base: mockIndex.plan,
    revision: 7,
    pending: [],
    stuck: [],
    index: mockIndex,
    judged: { index: mockIndex, findings: mockFindings },
  },
  list: mockList,
  accepted: [],
  acceptedGone: [],
  steps: { undo: null, redo: null, undoIsImport: false },
  edit: (order: Order) => {
    const { batch, refusal } = runOrder(mockIndex, () => testId("margin", `${(made += 1)}`), order);
    mockWritten.push({ batch, refusal });
    return refusal;
  },
  commit: (batch: ChangeBatch) => {
    mockWritten.push({ batch, refusal: null });
    return null;
  },
});
jest.mock("../plan-store/use-plan", () => ({
  useIndex: () => mockIndex,
  useHeld: () => mockState().held,
  useFoundIn: () => mockIndex,
  useHasFindings: () => true,
  usePlan: (select: (state: unknown) => unknown) => select(mockState()),
  usePlanStore: () => ({ getState: mockState }),
}));
jest.mock("../frame/use-ui", () => ({
  useUi: (select: (state: unknown) => unknown) => select(mockUi.getState()),
  useUiStore: () => mockUi,
}));
jest.mock("../frame/go-to", () => ({
  ...jest.requireActual<object>("../frame/go-to"),
  useGoTo: () => ({ view: () => {}, subject: () => {}, device: () => {} }),
}));
jest.mock("../plan-store/api", () => ({
  call: () => Promise.resolve({ ok: false, status: 0, refused: { code: "no-answer", sentence: "Away." } }),
}));
jest.mock("../record-store/use-record", () => ({
  useRecord: () => ({ record: [], sync: () => Promise.resolve() }),
}));
jest.mock("./HistorySection", () => ({ HistorySection: () => <p className="late" /> }));
jest.mock("next/navigation", () => ({ useRouter: () => ({ push: () => {} }), usePathname: () => "/" }));
jest.mock("next/dynamic", () => () => () => null);

const MOST_OF_A_KIND = 3;

/** A planned host and a stranger at the first ports that ask for a sign-in. */
const entriesOf = (plan: Plan): [string, ViewKey, Selection][] =>
  [...plan.port.values()]
    .filter(({ guards }) => guards.signIn)
    .slice(0, MOST_OF_A_KIND)
    .flatMap(({ id }) =>
      [null, PlanIndex.of(plan).hostsAt(id)[0]?.id ?? null].map((host): [string, ViewKey, Selection] => [
        `entry ${id} ${host ?? "nobody"}`,
        "guards",
        { what: "entry", port: id, host, situation: "allDown" },
      ]),
    );

/** What can be selected on a site, a few of each kind. */
function selectionsOf(plan: Plan): [string, ViewKey, Selection | null][] {
  const of = (what: string, view: ViewKey, ids: Iterable<string>): [string, ViewKey, Selection][] =>
    [...ids].slice(0, MOST_OF_A_KIND).map((id) => [`${what} ${id}`, view, { what, id } as Selection]);
  const ports = [...PlanIndex.of(plan).plan.port.values()];
  const [port] = ports;
  const [wall] = [...plan.wall.values()];
  return [
    ...of("segment", "segments", plan.segment.keys()),
    ...of("host", "addresses", plan.host.keys()),
    ...of("interface", "addresses", plan.interface.keys()),
    ...of("device", "hardware", plan.device.keys()),
    ...of("link", "hardware", plan.link.keys()),
    ...of("ssid", "wireless", plan.ssid.keys()),
    ...of("room", "survey", plan.room.keys()),
    ...of("line", "survey", plan.line.keys()),
    ...of("gear", "survey", plan.gear.keys()),
    ...of("rule", "walls", plan.rule.keys()),
    ...of("forward", "gateway", plan.forward.keys()),
    ...of("wish", "gateway", plan.wish.keys()),
    ...of("exception", "walls", plan.exception.keys()),
    ...of("service", "walls", plan.service.keys()),
    ...of("conduit", "walls", plan.conduit.keys()),
    ...of("signIn", "guards", plan.signIn.keys()),
    ...of("window", "runbook", plan.window.keys()),
    ...entriesOf(plan),
    ...(port === undefined
      ? []
      : ([
          ["one port", "ports", { what: "ports", device: port.device, ids: [port.id] }],
          [
            "all ports of a device",
            "ports",
            {
              what: "ports",
              device: port.device,
              ids: ports.filter(({ device }) => device === port.device).map(({ id }) => id),
            },
          ],
        ] as [string, ViewKey, Selection][])),
    ...(wall === undefined
      ? []
      : ([["a wall", "walls", { what: "wall", from: wall.from, to: wall.to }]] as [
          string,
          ViewKey,
          Selection,
        ][])),
    ...listFindings(runChecks(PlanIndex.of(plan)))
      .slice(0, MOST_OF_A_KIND)
      .map(({ key }): [string, ViewKey, Selection] => [
        `finding ${key}`,
        "findings",
        { what: "finding", key },
      ]),
    ["the conventions", "survey", { what: "conventions" }],
    ["the kinds", "survey", { what: "kinds" }],
    ["the draft", "survey", { what: "draft" }],
    ["numbering", "segments", { what: "numbering" }],
    ["what has gone since", "addresses", { what: "host", id: testId("host", "gone") }],
    ...(
      [
        "survey",
        "segments",
        "addresses",
        "hardware",
        "ports",
        "wireless",
        "gateway",
        "walls",
        "guards",
        "findings",
      ] as const
    ).map((view): [string, ViewKey, null] => [`nothing on ${view}`, view, null]),
  ];
}

function draw(view: ViewKey, selection: Selection | null): HTMLElement {
  mockUi.setState({ selection });
  render(<Margin view={view} />);
  return screen.getByRole("complementary", { name: "Margin" });
}

const TEXTS = ["", "  ", "no such thing 99999999999", "10.24.20.300/99", "Ä".repeat(3000)];
const SITES = [fennelStreet, lockkeepersHouse, bramblewick].map((site) => site());

describe.each(SITES.map((plan) => [plan.site.name, plan] as const))("%s", (_, plan) => {
  beforeAll(() => {
    mockIndex = PlanIndex.of(plan);
    mockFindings = runChecks(mockIndex);
    mockList = listFindings(mockFindings);
  });
  beforeEach(() => {
    mockWritten.length = 0;
  });

  test.each(selectionsOf(plan))(
    "%s has a head, no word is a value that is not there, and what comes late stands below all controls",
    (_name, view, selection) => {
      const margin = draw(view, selection);
      expect(margin.querySelector("h2, h3, .kick")?.textContent ?? margin.textContent).not.toBe("");
      expect(margin.textContent).not.toMatch(/undefined|\bnull\b|NaN|\[object/);
      const inOrder = margin.querySelectorAll(".late, button, input, select, textarea, a");
      const late = [...inOrder].findIndex((element) => element.className === "late");
      const below = late === -1 ? [] : [...inOrder].slice(late + 1);
      // Remarks are below everything, and come later themselves.
      expect(below.filter((element) => element.closest('[aria-label="Remarks"]') === null)).toEqual([]);
    },
  );

  test.each(selectionsOf(plan))(
    "%s: whatever is written in a field is refused, or gives a plan that stands",
    (_name, view, selection) => {
      const fields = draw(view, selection).querySelectorAll<HTMLInputElement>("input, textarea");
      for (const [i, field] of [...fields].entries()) {
        if (["checkbox", "radio", "file"].includes(field.type)) continue;
        fireEvent.focus(field);
        fireEvent.change(field, { target: { value: TEXTS[i % TEXTS.length] } });
        fireEvent.keyDown(field, { key: "Enter" });
        fireEvent.blur(field);
      }
      for (const { batch, refusal } of mockWritten) {
        if (batch === null) expect(refusal ?? "").toMatch(/\S/);
        else expect(applyChanges(plan, batch.changes).ok).toBe(true);
      }
    },
  );
});
