import { act, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { field, scene, toasts, went, write } from "../../../../tests/support/margin-scene";
import { fennelStreet } from "../../../../demo/fennel-street";
import { formatAddress, parseIpv4 } from "@/core/address";
import { must } from "@/core/kernel";
import { nextFreeFor } from "@/core/planners";
import { PlanIndex, type Host } from "@/core/plan";
import { HostMargin } from "./HostMargin";

const plan = fennelStreet();
const asking = must(
  [...plan.host.values()].find(
    ({ manner, mac, segment }) => manner === "dynamic" && mac !== null && segment !== null,
  ),
  "a host that asks for its address",
);
const now = (): Host => must(scene.store.getState().held.index.plan.host.get(asking.id), "still there");

beforeEach(() => {
  scene.show(plan);
  scene.ui.getState().select({ what: "host", id: asking.id });
  render(<HostMargin id={asking.id} />);
});

test("the next free address is given with one click, reserved or static, and undone", async () => {
  const { index } = scene.store.getState().held;
  const segment = must(index.plan.segment.get(asking.segment ?? ""), "its segment");
  for (const [button, manner] of [
    [/^reserved/, "reserved"],
    [/^static/, "typed"],
  ] as const) {
    const free = must(nextFreeFor(index, segment, manner), "a free address");
    await userEvent.click(screen.getByRole("button", { name: button }));
    expect(now()).toMatchObject({ manner, ipv4: free });
    expect(field("Address").value).toBe(formatAddress(free));
    expect(scene.written.at(-1)?.batch?.summary).toContain(asking.name);
    await act(() => scene.store.getState().undo());
    expect(now()).toEqual(asking);
  }
  expect(toasts).toEqual([]);
});

test("what can't be meant stands below its field with a sentence, and what was typed stays", async () => {
  await write("MAC", "00:11:22");
  expect(within(must(field("MAC").parentElement, "its row")).getByRole("alert").textContent).toMatch(/MAC/);
  expect(field("MAC").value).toBe("00:11:22");
  expect(field("MAC").getAttribute("aria-invalid")).toBe("true");
  expect(now()).toEqual(asking);
  await userEvent.type(field("MAC"), "{Escape}");
  expect(within(must(field("MAC").parentElement, "its row")).queryByRole("alert")).toBeNull();
  expect(field("MAC").value).not.toBe("00:11:22");
});

test("a name is written by Enter, taken back by Escape, and written by leaving the field", async () => {
  await write("Name", "Reception desk");
  expect(now().name).toBe("Reception desk");
  await userEvent.type(field("Name"), " 2{Escape}");
  expect(field("Name").value).toBe("Reception desk");
  await userEvent.type(field("Name"), " 3");
  await userEvent.tab();
  expect(now().name).toBe("Reception desk 3");
  expect(scene.written).toHaveLength(2);
});

test("the kind, the segment and the manner are offered by name", () => {
  const offered = (label: string) => {
    const list = document.getElementById(field(label).getAttribute("list") ?? "");
    return [...(list?.querySelectorAll("option") ?? [])].map(({ value }) => value);
  };
  expect(offered("Segment")).toEqual([...PlanIndex.of(plan).plan.segment.values()].map(({ name }) => name));
  expect(offered("How")).toEqual(expect.arrayContaining(["static", "reserved"]));
  expect(offered("Kind").length).toBeGreaterThan(10);
  expect(field("Name").getAttribute("list")).toBeNull();
});

test("that it changes its MAC address is ticked and told", async () => {
  const box = screen.getByRole<HTMLInputElement>("checkbox", { name: "changes its MAC address by itself" });
  await userEvent.click(box);
  expect(now().changesMac).toBe(!asking.changesMac);
  expect(box.checked).toBe(!asking.changesMac);
});

test("a static one has fields for what is entered on it; one that asks has none", async () => {
  expect(screen.queryByText("Entered on it, where it differs")).toBeNull();
  await write("How", "static");
  expect(now().manner).toBe("typed");
  await write("Own gateway", "10.24.20.254");
  expect(now().gateway4).toBe(parseIpv4("10.24.20.254"));
  await write("Own gateway", "10.24.20");
  expect(screen.getByRole("alert").textContent).toContain("10.24.20");
  expect(now().gateway4).toBe(parseIpv4("10.24.20.254"));
});

test("a question from here goes to Probe; removing it leaves nothing selected", async () => {
  await userEvent.click(screen.getByRole("button", { name: "Probe from here" }));
  expect(scene.ui.getState().probe).toMatchObject({ from: { at: "host", host: asking.id } });
  expect(went).toEqual(["probe"]);
  await userEvent.click(screen.getByRole("button", { name: "Remove" }));
  expect(scene.store.getState().held.index.plan.host.has(asking.id)).toBe(false);
  expect(scene.ui.getState().selection).toBeNull();
  expect(screen.queryByText("Selected device")).toBeNull();
});
