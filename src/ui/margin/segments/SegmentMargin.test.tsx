import { act, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { field, scene, toasts, write } from "../../../../tests/support/margin-scene";
import { fennelStreet } from "../../../../demo/fennel-street";
import { formatPrefix } from "@/core/address";
import { must } from "@/core/kernel";
import type { Segment } from "@/core/plan";
import { SegmentMargin } from "./SegmentMargin";

const plan = fennelStreet();
const segment = must(
  [...plan.segment.values()].find(({ name }) => name === "Guests"),
  "the guests",
);
const now = (): Segment =>
  must(scene.store.getState().held.index.plan.segment.get(segment.id), "still there");

beforeEach(() => {
  scene.show(plan);
  scene.ui.getState().select({ what: "segment", id: segment.id });
  render(<SegmentMargin id={segment.id} />);
});

test("its tape is chosen, with a tracer or without, and never traced in its own colour", async () => {
  await userEvent.click(screen.getByText("Tape").nextElementSibling?.firstElementChild ?? document.body);
  const traced = must(
    screen.getAllByRole("button", { name: /^traced / })[0]?.getAttribute("title") ?? null,
    "a colour",
  );
  await userEvent.click(screen.getByRole("button", { name: `traced ${traced}` }));
  expect(now().tape).toEqual({ ...segment.tape, tracer: traced });
  expect(screen.queryByRole("button", { name: `traced ${now().tape.base}` })).toBeNull();
  await userEvent.click(screen.getByRole("button", { name: traced }));
  expect(now().tape.base).toBe(traced);
  expect(now().tape.tracer).toBeNull();
  await act(() => scene.store.getState().undo());
  expect(now().tape).toEqual({ ...segment.tape, tracer: traced });
  await userEvent.click(screen.getByRole("button", { name: "none" }));
  expect(now().tape.tracer).toBeNull();
});

test("a wireless name is added and removed; one that is too long is refused", async () => {
  const names = () =>
    [...scene.store.getState().held.index.plan.ssid.values()]
      .filter((ssid) => ssid.segment === segment.id)
      .map(({ name }) => name);
  const before = names();
  const add = () => must(screen.getAllByLabelText<HTMLInputElement>("Add").at(-1), "the last one");
  await userEvent.type(add(), "Fennel lobby{Enter}");
  expect(names().sort()).toEqual([...before, "Fennel lobby"].sort());
  expect(add().value).toBe("");
  await userEvent.type(add(), `${"x".repeat(33)}{Enter}`);
  expect(screen.getByRole("alert").textContent).toMatch(/\S/);
  expect(add().value).toBe("x".repeat(33));
  const row = must(screen.getByText("Fennel lobby").closest("li"), "its row");
  await userEvent.click(must(row.querySelector("button"), "a button"));
  expect(names()).toEqual(before);
});

test("a subnet that is none is refused and stays written; a good one is taken, and undone", async () => {
  await write("Subnet", "10.24.300.0/25");
  expect(screen.getByRole("alert").textContent).toContain("10.24.300.0/25");
  expect(field("Subnet").value).toBe("10.24.300.0/25");
  expect(scene.written.filter(({ batch }) => batch !== null)).toEqual([]);
  await write("Subnet", "10.24.99.0/25");
  expect(now().prefixes4.map(formatPrefix)).toEqual(["10.24.99.0/25"]);
  await act(() => scene.store.getState().undo());
  expect(now().prefixes4).toEqual(segment.prefixes4);
});

test("management is ticked and told", async () => {
  await userEvent.click(screen.getByRole("checkbox", { name: /^Management/ }));
  expect(now().management).toBe(!segment.management);
});

test("without a gateway it says so, and gets one back", async () => {
  await userEvent.selectOptions(screen.getByLabelText("Gateway on"), "");
  expect(now().gatewayInterface).toBeNull();
  const router = must(
    [...screen.getByLabelText<HTMLSelectElement>("Gateway on").options].find(({ value }) => value !== ""),
    "a device that routes",
  );
  await userEvent.selectOptions(screen.getByLabelText("Gateway on"), router.value);
  const { plan: after } = scene.store.getState().held.index;
  expect(after.interface.get(now().gatewayInterface ?? "")?.device).toBe(router.value);
  expect(toasts).toEqual([]);
});

test("the pool and the lease are sized in a margin of their own", async () => {
  await userEvent.click(screen.getByRole("button", { name: "Size the pool and the lease" }));
  expect(scene.ui.getState().selection).toEqual({ what: "leases", id: segment.id });
});
