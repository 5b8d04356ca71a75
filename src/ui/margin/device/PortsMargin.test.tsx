import { act, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { field, scene, toasts, went, write } from "../../../../tests/support/margin-scene";
import { fennelStreet } from "../../../../demo/fennel-street";
import { must } from "@/core/kernel";
import { PlanIndex, type Port } from "@/core/plan";
import { Lags } from "./Lags";
import { PortsMargin } from "./PortsMargin";

const plan = fennelStreet();
const index = PlanIndex.of(plan);
const device = must(
  [...plan.device.values()].find(({ name }) => name === "Upper switch"),
  "the switch",
);
const free = index
  .portsOf(device.id)
  .filter(({ id, lag }) => lag === null && index.linkAt(id) === undefined && index.hostsAt(id).length === 0)
  .slice(0, 2);
const ids = free.map(({ id }) => id);
const now = (): Port[] =>
  ids.map((id) => must(scene.store.getState().held.index.plan.port.get(id), "still there"));
const open = (chosen: readonly string[]) => {
  scene.show(plan);
  render(<PortsMargin device={device.id} ids={chosen} />);
};
const box = (name: RegExp) => screen.getByRole<HTMLInputElement>("checkbox", { name });

test("a guard is set on all chosen ports at once; where they differ the box is neither", async () => {
  open(ids);
  const first = must(free[0], "a port");
  act(() => {
    scene.store.getState().commit({
      ...{ id: "one of them", planner: "test", summary: "One of them", args: {} },
      changes: [
        {
          ...{ kind: "port" as const, id: first.id, before: first },
          after: { ...first, guards: { ...first.guards, isolated: !first.guards.isolated } },
        },
      ],
    });
  });
  expect(box(/^isolated/).indeterminate).toBe(true);
  expect(screen.getByText("they differ")).not.toBeNull();
  await userEvent.click(box(/^isolated/));
  expect(now().map(({ guards }) => guards.isolated)).toEqual([true, true]);
  expect(box(/^isolated/).indeterminate).toBe(false);
  await userEvent.click(box(/^isolated/));
  expect(now().map(({ guards }) => guards.isolated)).toEqual([false, false]);
});

test("limits are numbers within their bounds; anything else is refused and changes nothing", async () => {
  open(ids);
  await write("MAC limit", "3");
  await write("Storm limit %", "20");
  await write("Tells phones", "30 priority 5 DSCP 46");
  const was = now();
  expect(was.map(({ guards }) => [guards.macLimit, guards.stormPercent])).toEqual([
    [3, 20],
    [3, 20],
  ]);
  expect(was.map(({ voicePolicy }) => voicePolicy?.vid)).toEqual([30, 30]);
  for (const [label, text] of [
    ["MAC limit", "many"],
    ["Storm limit %", "101"],
    ["Tells phones", "channel nine"],
  ] as const) {
    await write(label, text);
    expect(screen.getByRole("alert").textContent).toMatch(/\S/);
    expect(field(label).value).toBe(text);
    await userEvent.type(field(label), "{Escape}");
  }
  expect(now()).toEqual(was);
});

test("several ports become one LAG, its kind is chosen at the device, and it is taken apart", async () => {
  open(ids);
  await userEvent.click(screen.getByRole("button", { name: "Make a LAG of these 2 ports" }));
  expect(toasts).toEqual([expect.stringMatching(/are one LAG; its kind is in the device's margin\.$/)]);
  const [lag] = new Set(now().map((port) => port.lag));
  const made = () => scene.store.getState().held.index.plan.lag.get(lag ?? "");
  expect(made()).toBeDefined();
  render(<Lags device={device} />);
  await userEvent.selectOptions(screen.getByLabelText(`Kind of ${made()?.name ?? ""}`), "static");
  expect(made()?.mode).toBe("static");
  await userEvent.click(screen.getAllByRole("button", { name: "Take apart" }).at(-1) as HTMLElement);
  expect(made()).toBeUndefined();
  expect(now().map((port) => port.lag)).toEqual([null, null]);
});

test("one port says what it is, can be renamed, and asks from there", async () => {
  open(ids.slice(0, 1));
  await write("In software", "ge99");
  expect(now()[0]?.softwareName).toBe("ge99");
  await write("Mbit/s", "fast");
  expect(screen.getByRole("alert").textContent).toMatch(/\S/);
  await userEvent.type(field("Mbit/s"), "{Escape}");
  await write("Note", "keep free");
  expect(now()[0]?.note).toBe("keep free");
  await userEvent.click(screen.getByRole("button", { name: "Probe from this port" }));
  expect(scene.ui.getState().probe).toMatchObject({ from: { at: "port", port: ids[0] } });
  expect(went).toEqual(["probe"]);
});

test("a note for several ports stands at each, and the caution of a live network is there", async () => {
  open(ids);
  expect(screen.getByText("On a live network")).not.toBeNull();
  expect(screen.queryByRole("button", { name: "Probe from this port" })).toBeNull();
  await write("Note", "spare pair");
  expect(now().map(({ note }) => note)).toEqual(["spare pair", "spare pair"]);
  expect(scene.written).toHaveLength(1);
});
