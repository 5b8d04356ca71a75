import { act, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { fact, scene, toasts, went, write } from "../../../../tests/support/margin-scene";
import { fennelStreet } from "../../../../demo/fennel-street";
import { must } from "@/core/kernel";
import type { Link } from "@/core/plan";
import { LinkMargin } from "./LinkMargin";

const plan = fennelStreet();
const link = must(
  [...plan.link.values()].find(({ medium }) => medium === "copper"),
  "a copper cable",
);
const now = (): Link => must(scene.store.getState().held.index.plan.link.get(link.id), "still there");

beforeEach(() => {
  scene.show(plan);
  scene.ui.getState().select({ what: "link", id: link.id });
  render(<LinkMargin id={link.id} />);
});

test("its length is written in metres, and what can't be a length is refused", async () => {
  await write("Length m", "12.5");
  expect(now().lengthCm).toBe(1250);
  await write("Length m", "long");
  expect(screen.getByRole("alert").textContent).toMatch(/\S/);
  expect(now().lengthCm).toBe(1250);
  await write("Length m", "");
});

test("label, panel and socket stand on it", async () => {
  await write("Label", "U-07");
  await write("Patch panel", "PP-A 07");
  await write("Socket", "2.07");
  expect(now()).toMatchObject({ label: "U-07", panel: "PP-A 07", socket: "2.07" });
  expect(screen.getByRole("heading", { name: /U-07/ })).not.toBeNull();
});

test("with fibre come fibre's kinds of cable and its caution; copper's go", async () => {
  const kinds = () =>
    [...screen.getByLabelText<HTMLSelectElement>("Cable").options].map(({ value }) => value);
  const before = kinds();
  expect(screen.queryByText("Fibre.")).toBeNull();
  await userEvent.selectOptions(screen.getByLabelText("Medium"), "fibre");
  expect(now().medium).toBe("fibre");
  expect(screen.getByText("Never look into a fibre or an optic.", { exact: false })).not.toBeNull();
  expect(kinds()).not.toEqual(before);
  expect(kinds()).toContain(now().cable);
  await act(() => scene.store.getState().undo());
  expect(now()).toEqual(link);
});

test("each kind of cable says how far it reaches at the speed that the ends agree on", async () => {
  const reach = () => fact("Reaches");
  const said = new Map<string, string>();
  for (const { value } of [...screen.getByLabelText<HTMLSelectElement>("Cable").options]) {
    await userEvent.selectOptions(screen.getByLabelText("Cable"), value);
    if (now().cable === value) said.set(value, reach());
  }
  expect(said.size).toBeGreaterThan(2);
  for (const words of said.values())
    expect(words).toMatch(/^(\d+ m at that speed|not at that speed|not known until the cable is)$/);
});

test("both its ends lead to their ports", async () => {
  const [a, b] = [link.a, link.b];
  const ends = screen.getAllByRole("button").filter(({ textContent }) => / port /.test(textContent ?? ""));
  for (const end of ends.slice(0, 2)) await userEvent.click(end);
  expect(went).toEqual([a, b]);
});

test("it is labelled by the site's pattern, and taken out", async () => {
  await userEvent.click(screen.getByRole("button", { name: "Label by the pattern" }));
  expect(toasts).toEqual([]);
  expect(now().label).not.toBe(link.label);
  await userEvent.click(screen.getByRole("button", { name: "Take the cable out" }));
  expect(scene.store.getState().held.index.plan.link.has(link.id)).toBe(false);
  expect(scene.ui.getState().selection).toBeNull();
  await act(() => scene.store.getState().undo());
  expect(now().id).toBe(link.id);
});
