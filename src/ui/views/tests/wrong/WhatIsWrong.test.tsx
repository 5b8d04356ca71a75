import { act, cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { lockkeepersHouse } from "../../../../../demo/lockkeepers-house";
import { scene } from "../../../../../tests/support/plan-scene";
import { askKey } from "@/core/diagnosis";
import { must } from "@/core/kernel";
import type { FaultNamed, TestTaken } from "@/core/records";
import { aTestTaken } from "@/core/testing/a-tick";
import { withIpv6 } from "@/core/testing/with-ipv6";
import { useIndex } from "@/ui/plan-store/use-plan";
import { WhatIsWrong } from "./WhatIsWrong";

type Support = typeof import("../../../../../tests/support/plan-scene");
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
jest.mock(
  "./use-diagnosis",
  () =>
    jest.requireActual<typeof import("../../../../../tests/support/diagnosis")>(
      "../../../../../tests/support/diagnosis",
    ).diagnosisModule,
);

function Shown() {
  return <WhatIsWrong index={useIndex()} sheet={null} />;
}

const entries = () => scene.record.store.getState().record.map(({ entry }) => entry);
const taken = () => entries().filter((entry): entry is TestTaken => entry.do === "test");
const named = () => entries().filter((entry): entry is FaultNamed => entry.do === "fault");
const button = (name: string | RegExp) => screen.getByRole("button", { name });
const region = (name: string) => screen.getByRole("region", { name });

async function choose(label: RegExp, text: string) {
  await userEvent.click(button(label));
  await userEvent.type(screen.getByPlaceholderText("Type part of the name"), `${text}{Enter}`);
}
/** Says that the television gets no address. */
async function complain() {
  await choose(/^Who or where/, "television");
  await userEvent.type(within(region("Another reading")).getByRole("textbox"), "no address");
  await userEvent.click(within(region("Another reading")).getByRole("button", { name: "Otherwise" }));
}

beforeAll(() => {
  Element.prototype.scrollIntoView = () => undefined;
  globalThis.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
});
beforeEach(() => {
  scene.show(lockkeepersHouse());
  render(<Shown />);
});

test("a complaint is laid beside every single fault, with the reading that tells most next", async () => {
  expect(screen.getByRole("status").textContent).toMatch(/Nothing was read yet/);
  await complain();
  expect(taken()[0]).toMatchObject({ came: "otherwise", read: "no address", test: { at: "television" } });
  expect(region("What was read").textContent).toMatch(/1 reading, 1 of them not as planned/);
  expect(region("What would explain it").textContent).toMatch(
    /\d+ single faults tried; \d+ explain the reading/,
  );
  const next = region("Best next reading");
  expect(next.textContent).toMatch(/Best next reading/);
  expect(within(next).getAllByRole("listitem").length).toBeGreaterThan(1);
});

test("a tap on an outcome writes the reading down, until one fault is left and is named", async () => {
  await complain();
  for (let taps = 0; taps < 8; taps += 1) {
    const next = screen.queryByRole("region", { name: "Best next reading" });
    if (next === null) break;
    // As planned everywhere: what is left is what nothing shows.
    const outcome = within(next)
      .getAllByRole("listitem")
      .map((item) => within(item).getByRole("button"))
      .sort(
        (a, b) => Number(/^As planned/.test(b.textContent)) - Number(/^As planned/.test(a.textContent)),
      )[0];
    await userEvent.click(must(outcome, "an outcome"));
  }
  expect(taken().length).toBeGreaterThan(2);
  await userEvent.click(button("It was this"));
  await act(async () => Promise.resolve());
  const [fault] = named();
  expect(fault?.fault.words).not.toBe("");
  const otherwise = taken().filter(({ came }) => came === "otherwise");
  expect(fault?.fault.explains).toEqual(otherwise.map(({ id }) => id));
  const found = region("Fault found");
  expect(found.textContent).toContain(fault?.fault.words);
  expect(found.textContent).toMatch(/Once it is mended, read again:\s*television/);
  // What was otherwise before does not count any more.
  expect(screen.queryByRole("region", { name: "What would explain it" })).toBeNull();
  await userEvent.click(button("It was not this"));
  expect(screen.queryByRole("region", { name: "Fault found" })).toBeNull();
});

test("what is typed is judged by the plan, and what is right is not otherwise", async () => {
  await choose(/^Who or where/, "television");
  const form = region("Another reading");
  await userEvent.type(within(form).getByRole("textbox"), "10.1.2.3");
  expect(within(form).getByRole("status").textContent).toMatch(/in no subnet of this site/);
  expect(within(form).getByRole<HTMLButtonElement>("button", { name: /^As planned/ }).disabled).toBe(true);
  await userEvent.clear(within(form).getByRole("textbox"));
  expect(within(form).getByRole<HTMLButtonElement>("button", { name: "Otherwise" }).disabled).toBe(true);
});

test("the four questions are answered, and two faults at once are tried when asked for", async () => {
  await complain();
  const questions = screen.getByText("Why does it fail?").parentElement;
  expect(questions?.querySelectorAll("li")).toHaveLength(4);
  await userEvent.click(button("Two at once"));
  expect(region("What would explain it").textContent).toMatch(/pairs? of faults/);
});

test("what no setting makes so says what to do about it", async () => {
  const port = must([...lockkeepersHouse().port.keys()][0], "a port");
  const says = "Frames go round: there is a loop. Take out one cable after the other until it stops.";
  const entry = aTestTaken({ came: "otherwise", read: "", says });
  const heard = { ...entry, test: { ...entry.test, id: askKey({ what: "listen", port }) } };
  await act(async () => {
    scene.record.store.setState({ record: [{ by: "Ruth", entry: heard }] });
    await Promise.resolve();
  });
  expect(region("No fault of the plan").textContent).toContain(says);
  expect(screen.queryByRole("button", { name: "It was this" })).toBeNull();
});

test("a site with IPv6 is asked for either family, and what is read is judged by it", async () => {
  expect(screen.queryByRole("combobox", { name: "Address family" })).toBeNull();
  cleanup();
  scene.show(withIpv6(lockkeepersHouse()).plan);
  render(<Shown />);
  await userEvent.selectOptions(screen.getByRole("combobox", { name: "Address family" }), "IPv6");
  await choose(/^Who or where/, "television");
  const form = region("Another reading");
  expect(within(form).getByText("television: See which IPv6 address it gets.")).not.toBeNull();
  await userEvent.type(within(form).getByRole("textbox"), "fe80::7");
  expect(within(form).getByRole("status").textContent).toMatch(/no router advertises; it has to be one of/);
  await userEvent.click(within(form).getByRole("button", { name: "Otherwise" }));
  await userEvent.click(within(region("What would explain it")).getByRole("button", { name: /^The first/ }));
  expect(region("What would explain it").textContent).toMatch(/Gateway advertises no IPv6 in /);
});
