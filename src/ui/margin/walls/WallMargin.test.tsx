import { act, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { fact, scene } from "../../../../tests/support/margin-scene";
import { bramblewick } from "../../../../demo/bramblewick";
import { fennelStreet } from "../../../../demo/fennel-street";
import { must } from "@/core/kernel";
import type { Plan, Wall, WallEnd } from "@/core/plan";
import { wallBetween } from "@/core/policy";
import { WallMargin } from "./WallMargin";

const plan = fennelStreet();
const zones = [...plan.zone.values()];
const ends = zones.flatMap((a) => zones.flatMap((b) => (a === b ? [] : [[a.id, b.id] as const])));
const isShut = ([a, b]: readonly [string, string]) =>
  ![...plan.wall.values()].some(
    ({ from, to }) => from.at === "zone" && to.at === "zone" && from.zone === a && to.zone === b,
  );
const [fromZone, toZone] = must(ends.find(isShut), "two zones with no door between them");
const [from, to]: readonly WallEnd[] = [
  { at: "zone", zone: fromZone },
  { at: "zone", zone: toZone },
];
const wall = (): Wall | null =>
  wallBetween(scene.store.getState().held.index, must(from, "an end"), must(to, "an end"));
const open = (site: Plan, a: WallEnd, b: WallEnd) => {
  scene.show(site);
  render(<WallMargin from={a} to={b} />);
};
const choose = (name: string) => userEvent.click(screen.getByRole("radio", { name }));

test("a wall is opened, shut again, and each is undone", async () => {
  open(plan, must(from, "an end"), must(to, "an end"));
  expect(fact("Lets through")).toBe("nothing");
  await choose("Open to everything");
  expect(wall()?.door).toBe("open");
  expect(fact("Lets through")).toBe("everything");
  await choose("Closed");
  expect(wall()?.door ?? "closed").toBe("closed");
  await act(() => scene.store.getState().undo());
  expect(wall()?.door).toBe("open");
});

test("a door takes services of the catalogue and others, and is shut when the last is taken away", async () => {
  open(plan, must(from, "an end"), must(to, "an end"));
  await choose("Door for these services");
  // Nothing is written before a service is named.
  expect(scene.written).toEqual([]);
  await userEvent.click(screen.getByRole("checkbox", { name: "https" }));
  expect(wall()).toMatchObject({ door: "services", services: [{ name: "https" }] });
  await userEvent.type(screen.getByLabelText("Another"), "backup tcp 8007{Enter}");
  expect(wall()?.services.map(({ name, ports }) => [name, ports])).toEqual([
    ["https", expect.any(Array)],
    ["backup", [[8007, 8007]]],
  ]);
  await userEvent.click(screen.getByRole("checkbox", { name: "backup" }));
  await userEvent.click(screen.getByRole("checkbox", { name: "https" }));
  expect(wall()?.door ?? "closed").toBe("closed");
  expect(screen.getByRole<HTMLInputElement>("checkbox", { name: "https" }).checked).toBe(false);
});

test("a service that can't be read is refused with what was typed, and changes nothing", async () => {
  open(plan, must(from, "an end"), must(to, "an end"));
  await choose("Door for these services");
  await userEvent.type(screen.getByLabelText("Another"), "backup tcp 99999{Enter}");
  expect(screen.getByRole("alert").textContent).toMatch(/\S/);
  expect(screen.getByLabelText<HTMLInputElement>("Another").value).toBe("backup tcp 99999");
  expect(scene.written).toEqual([]);
});

test("a reason stands with the wall; one that is too long is refused", async () => {
  open(plan, must(from, "an end"), must(to, "an end"));
  expect(screen.queryByLabelText("Reason")).toBeNull();
  await choose("Open to everything");
  await userEvent.type(screen.getByLabelText("Reason"), " for the printer {Enter}");
  expect(wall()?.reason).toBe("for the printer");
  await userEvent.type(screen.getByLabelText("Reason"), `${"x".repeat(120)}{Enter}`);
  expect(screen.getByRole("alert").textContent).toBe("A reason has at most 120 characters.");
  expect(wall()?.reason).toBe("for the printer");
});

test("a zone to itself is renamed and opened inside; no name is no name", async () => {
  const zone = must(zones[0], "a zone");
  const end: WallEnd = { at: "zone", zone: zone.id };
  open(plan, end, end);
  const now = () => scene.store.getState().held.index.plan.zone.get(zone.id);
  await userEvent.click(screen.getByRole("checkbox", { name: "Its own segments may talk to one another" }));
  expect(now()?.insideOpen).toBe(!zone.insideOpen);
  await userEvent.clear(screen.getByLabelText("Name"));
  await userEvent.type(screen.getByLabelText("Name"), "  {Enter}");
  expect(screen.getByRole("alert").textContent).toBe("A zone's name has 1 to 80 characters.");
  await userEvent.clear(screen.getByLabelText("Name"));
  await userEvent.type(screen.getByLabelText("Name"), "Desks{Enter}");
  expect(now()?.name).toBe("Desks");
  expect(screen.queryByLabelText("Level of control")).toBeNull();
});

test("an industrial site has levels, conduits, and the caution where a machine could move", async () => {
  const industrial = bramblewick();
  const door = must(
    [...industrial.wall.values()].find(({ door: door }) => door === "services"),
    "a door",
  );
  open(industrial, door.from, door.to);
  expect(screen.getByText("Moving machine.")).not.toBeNull();
  await userEvent.clear(screen.getByLabelText("Conduit"));
  await userEvent.type(screen.getByLabelText("Conduit"), "Recipes{Enter}");
  const { plan: after } = scene.store.getState().held.index;
  expect(after.conduit.get(after.wall.get(door.id)?.conduit ?? "")?.name).toBe("Recipes");
});

test("how near to the machine a zone is, and how well it shall be kept", async () => {
  const industrial = bramblewick();
  const zone = must([...industrial.zone.values()][0], "a zone");
  const end: WallEnd = { at: "zone", zone: zone.id };
  open(industrial, end, end);
  await userEvent.selectOptions(screen.getByLabelText("Level of control"), "supervision");
  await userEvent.selectOptions(screen.getByLabelText("Target level"), "3");
  expect(scene.store.getState().held.index.plan.zone.get(zone.id)).toMatchObject({
    level: "supervision",
    securityLevel: 3,
  });
});
