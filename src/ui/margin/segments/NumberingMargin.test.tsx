import { act, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { scene, toasts } from "../../../../tests/support/margin-scene";
import { fennelStreet } from "../../../../demo/fennel-street";
import { formatPrefix } from "@/core/address";
import { renameZone } from "@/core/commands";
import { must } from "@/core/kernel";
import { PlanIndex } from "@/core/plan";
import { NumberingMargin } from "./NumberingMargin";

const plan = fennelStreet();
const nets = () =>
  [...scene.store.getState().held.index.plan.segment.values()].map(({ prefixes4 }) =>
    prefixes4.map(formatPrefix).join(" "),
  );
const before = [...PlanIndex.of(plan).plan.segment.values()].map(({ prefixes4 }) =>
  prefixes4.map(formatPrefix).join(" "),
);
const choose = (tool: string) => userEvent.click(screen.getByRole("radio", { name: tool }));
const preview = () =>
  userEvent.click(must(screen.getAllByRole("button", { name: "Preview" })[0], "a button"));

beforeEach(() => {
  scene.show(plan);
  render(<NumberingMargin />);
});

test("a block moves elsewhere: previewed first, then done, then undone", async () => {
  await choose("Move a block elsewhere");
  await userEvent.clear(screen.getByLabelText("Everything in"));
  await userEvent.type(screen.getByLabelText("Everything in"), "10.24.0.0/16");
  await userEvent.type(screen.getByLabelText("goes to"), "10.36.0.0/16");
  await preview();
  expect(nets()).toEqual(before);
  expect(screen.getByRole("button", { name: /^Save old and new of \d+ as CSV$/ })).not.toBeNull();
  await userEvent.click(screen.getByRole("button", { name: "Apply" }));
  expect(nets()).toEqual(before.map((net) => net.replaceAll("10.24.", "10.36.")));
  expect(toasts.at(-1)).toMatch(/^Done: .*Undo takes it back\.$/);
  await act(() => scene.store.getState().undo());
  expect(nets()).toEqual(before);
});

test("by the keyboard: Enter previews, and a block with host bits is refused by its name", async () => {
  await choose("Move a block elsewhere");
  await userEvent.type(screen.getByLabelText("goes to"), "10.36.0.7/16{Enter}");
  expect(screen.getByRole("alert").textContent).toBe(
    '"10.36.0.7/16" is not a block such as 10.36.0.0/16; the host part must be zero.',
  );
  expect(scene.written).toEqual([]);
  await userEvent.clear(screen.getByLabelText("Everything in"));
  await userEvent.type(screen.getByLabelText("Everything in"), "all of it{Enter}");
  expect(screen.getByRole("alert").textContent).toContain('"all of it" is not a block');
});

test("a preview that is cancelled leaves nothing behind", async () => {
  await choose("Move a block elsewhere");
  await userEvent.type(screen.getByLabelText("goes to"), "10.36.0.0/16{Enter}");
  await userEvent.click(screen.getByRole("button", { name: "Cancel" }));
  expect(screen.queryByRole("button", { name: "Apply" })).toBeNull();
  expect(nets()).toEqual(before);
});

test("a preview goes when the plan has become another", async () => {
  await choose("Move a block elsewhere");
  await userEvent.type(screen.getByLabelText("goes to"), "10.36.0.0/16{Enter}");
  expect(screen.getByRole("button", { name: "Apply" })).not.toBeNull();
  const zone = must([...plan.zone.keys()][0], "a zone");
  act(() => {
    scene.store.getState().edit(renameZone({ zone, name: "Elsewhere" }));
  });
  expect(screen.queryByRole("button", { name: "Apply" })).toBeNull();
});

test("a segment is split in two, and the halves are offered to be merged again", async () => {
  await choose("Split a segment in two");
  await userEvent.type(screen.getByLabelText("New one"), "Annex");
  await preview();
  await userEvent.click(screen.getByRole("button", { name: "Apply" }));
  const names = () => [...scene.store.getState().held.index.plan.segment.values()].map(({ name }) => name);
  expect(names()).toContain("Annex");
  await choose("Merge two halves");
  expect(screen.getByText(/ takes Annex$/)).not.toBeNull();
  await preview();
  await userEvent.click(screen.getByRole("button", { name: "Apply" }));
  expect(names()).not.toContain("Annex");
  expect(nets()).toEqual(before);
});

test("subnets are laid out anew in another block; one that is none is refused", async () => {
  await userEvent.type(screen.getByLabelText("From"), "10.99.0.0/33");
  await preview();
  expect(screen.getByRole("alert").textContent).toContain('"10.99.0.0/33" is not a block');
  await userEvent.clear(screen.getByLabelText("From"));
  await userEvent.type(screen.getByLabelText("From"), "10.99.0.0/16");
  await preview();
  await userEvent.click(screen.getByRole("button", { name: "Apply" }));
  expect(nets().every((net) => net === "" || net.startsWith("10.99."))).toBe(true);
});
