import { act, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { fact, scene, toasts, write } from "../../../../tests/support/margin-scene";
import { fennelStreet } from "../../../../demo/fennel-street";
import { must } from "@/core/kernel";
import type { Room } from "@/core/plan";
import { RoomMargin } from "./RoomMargin";

const plan = fennelStreet();
const rooms = [...plan.room.values()];
const room = must(
  rooms.find(({ kind, needs }) => kind === "room" && needs !== ""),
  "a room with needs",
);
const now = (): Room => must(scene.store.getState().held.index.plan.room.get(room.id), "still there");

beforeEach(() => {
  scene.show(plan);
  scene.ui.getState().select({ what: "room", id: room.id });
  render(<RoomMargin id={room.id} />);
});

test("a need that can't be read is said at once, and leads to the kinds of device", async () => {
  await write("Needs", "3 flux engines");
  expect(now().needs).toBe("3 flux engines");
  expect(screen.getByRole("alert").textContent).toContain("flux engines");
  await userEvent.click(screen.getByRole("button", { name: "Kinds of device" }));
  expect(scene.ui.getState().selection).toEqual({ what: "kinds" });
  await write("Needs", "3 PC");
  expect(screen.queryByRole("alert")).toBeNull();
});

test("metres are kept as they are written, and nonsense is refused", async () => {
  await write("Metres to it", "18.5");
  expect(now().cableCm).toBe(1850);
  expect(fact("Sockets")).toContain("18.5 m away");
  await write("Metres to it", "far");
  expect(screen.getByRole("alert").textContent).toMatch(/\S/);
  expect(now().cableCm).toBe(1850);
});

test("outdoors and in a cabinet a caution stands where the work is", async () => {
  expect(screen.queryByText("Outside.")).toBeNull();
  await userEvent.selectOptions(screen.getByLabelText("Kind"), "outdoor");
  expect(now().kind).toBe("outdoor");
  expect(screen.getByText("Outside.")).not.toBeNull();
  await userEvent.selectOptions(screen.getByLabelText("Kind"), "cabinet");
  expect(screen.getByText("Mains in the cabinet.")).not.toBeNull();
  await write("Height U", "12");
  expect(now().heightUnits).toBe(12);
});

test("it moves up and down among the rooms, and back", async () => {
  const order = () =>
    [...scene.store.getState().held.index.plan.room.values()]
      .sort((a, b) => a.position - b.position)
      .map(({ id }) => id);
  const before = order();
  await userEvent.click(screen.getByRole("button", { name: "Down" }));
  expect(order()).not.toEqual(before);
  await userEvent.click(screen.getByRole("button", { name: "Up" }));
  expect(order()).toEqual(before);
});

test("rooms whose wireless is heard are named; one that there is not is refused", async () => {
  const other = must(
    rooms.find(({ id, kind }) => id !== room.id && kind === "room"),
    "another room",
  );
  await write("Beside", other.name);
  expect(now().beside).toEqual([other.id]);
  await write("Beside", "The moon");
  expect(screen.getByRole("alert").textContent).toContain("The moon");
  expect(now().beside).toEqual([other.id]);
});

test("it is removed and comes back with undo", async () => {
  await userEvent.click(screen.getByRole("button", { name: "Remove" }));
  const rest = () => scene.store.getState().held.index.plan.room;
  expect(toasts).toEqual([]);
  expect(rest().has(room.id)).toBe(false);
  await act(() => scene.store.getState().undo());
  expect(rest().get(room.id)).toEqual(room);
});
