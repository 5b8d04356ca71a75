import { render, screen } from "@testing-library/react";
import { fennelStreet } from "../../../../demo/fennel-street";
import { scene } from "../../../../tests/support/plan-scene";
import { PlanIndex } from "@/core/plan";
import type { Recorded, Tick } from "@/core/records";
import { Visits } from "./Visits";

type Support = typeof import("../../../../tests/support/plan-scene");
jest.mock(
  "@/ui/record-store/use-record",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.recordModule,
);

const plan = fennelStreet();
const id = (n: number) => `019a0000-0000-7000-8000-${String(n).padStart(12, "0")}`;
const at = (hour: number) => `2026-11-2${hour > 12 ? 9 : 8}T${String(hour).padStart(2, "0")}:00:00.000Z`;
const start = (n: number, from: "box" | "last", hour: number) =>
  ({ id: id(n), at: at(hour), do: "start", from, name: "", changes: [] }) as const;
const tick = (n: number, came: Tick["came"], title: string, note = "") =>
  ({
    id: id(n),
    at: at(10),
    do: "tick",
    after: null,
    step: { kind: "save", device: null, page: null, title, values: [] },
    came,
    read: "",
    note,
    photos: [],
    changes: [],
  }) as const;
const record: Recorded[] = [
  { by: "Ruth", entry: start(1, "box", 9) },
  { by: "Ruth", entry: tick(2, "done", "Unpack") },
  { by: "Marek", entry: tick(3, "cannot", "Power", "no socket") },
  { by: "Ruth", entry: tick(4, "done", "By mistake") },
  { by: "Ruth", entry: { id: id(5), at: at(11), do: "takeBack", tick: id(4) } },
  { by: "Ruth", entry: { id: id(6), at: at(12), do: "end", note: "" } },
  { by: "Marek", entry: start(7, "last", 14) },
];

test("every visit is listed, the last first, with what came of its steps; what was taken back is not", () => {
  scene.record.store.setState({ record, isReady: true });
  render(<Visits index={PlanIndex.of(plan)} />);
  expect([...document.querySelectorAll("summary")].map(({ textContent }) => textContent)).toEqual([
    "29 Nov 14:00, Marek: from what the last visit left, 0 steps ticked; goes on",
    "28 Nov 09:00, Ruth: from gear out of its box, 2 steps ticked, 1 can't be done; ended 28 Nov 12:00",
  ]);
  expect(
    screen
      .getAllByRole("listitem")
      .flatMap(({ className, textContent }) => (className.includes("py-[2px]") ? [textContent] : [])),
  ).toEqual(["Unpack: done Ruth, 28 Nov 10:00", "Power: can't be done, no socket Marek, 28 Nov 10:00"]);
});

test("a site that nobody has been to says nothing of visits", () => {
  scene.record.store.setState({ record: [], isReady: true });
  const { container } = render(<Visits index={PlanIndex.of(plan)} />);
  expect(container.textContent).toBe("");
});
