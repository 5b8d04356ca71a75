import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { fact, scene, toasts } from "../../../../tests/support/margin-scene";
import { fennelStreet } from "../../../../demo/fennel-street";
import { must } from "@/core/kernel";
import { hasRadios, type Ssid } from "@/core/plan";
import { SECURITIES } from "@/core/plan";
import { SECURITY_FACTS } from "@/core/wireless";
import { SsidMargin } from "./SsidMargin";

const plan = fennelStreet();
const ssid = must([...plan.ssid.values()][0], "a wireless name");
const points = [...plan.device.values()].filter(hasRadios);
const now = (): Ssid => must(scene.store.getState().held.index.plan.ssid.get(ssid.id), "still there");
const tick = (name: string) => userEvent.click(screen.getByRole("checkbox", { name }));

beforeEach(() => {
  scene.show(plan);
  render(<SsidMargin id={ssid.id} />);
});

test("it is hidden with a word of what that is worth, and shown again", async () => {
  const warning = /Hiding keeps nobody out/;
  expect(screen.queryByText(warning)).toBeNull();
  await tick("hidden");
  expect(now().hidden).toBe(true);
  expect(screen.getByText(warning)).not.toBeNull();
  await tick("hidden");
  expect(now().hidden).toBe(false);
  expect(screen.queryByText(warning)).toBeNull();
});

test("its stations are kept apart by one tick", async () => {
  await tick("its stations can’t reach one another");
  expect(now().isolation).toBe(!ssid.isolation);
});

test("offered at all access points or at some, and never at none", async () => {
  await tick("every access point of its domain");
  expect(now().at).toHaveLength(points.length);
  for (const { name } of points.slice(1)) await tick(name);
  expect(now().at).toEqual([must(points[0], "an access point").id]);
  const before = scene.written.length;
  await tick(must(points[0], "an access point").name);
  expect(toasts).toEqual([
    `${ssid.name} would be offered nowhere; remove the name instead, or choose another access point first.`,
  ]);
  expect(scene.written).toHaveLength(before);
  await tick("every access point of its domain");
  expect(now().at).toEqual([]);
});

test("a name for which there is no segment is refused; another segment is taken", async () => {
  const into = screen.getByLabelText<HTMLInputElement>("Leads into");
  await userEvent.clear(into);
  await userEvent.type(into, "Nowhere{Enter}");
  expect(screen.getByRole("alert").textContent).toContain("Nowhere");
  expect(now().segment).toBe(ssid.segment);
  const other = must(
    [...plan.segment.values()].find(({ id, vlan }) => id !== ssid.segment && vlan !== null),
    "another segment",
  );
  await userEvent.clear(into);
  await userEvent.type(into, `${other.name}{Enter}`);
  expect(now().segment).toBe(other.id);
});

test("the security says what is kept elsewhere, and asks for a profile where one signs in", async () => {
  for (const security of SECURITIES) {
    await userEvent.selectOptions(screen.getByLabelText("Security"), security);
    expect(now().security).toBe(security);
    const { words, secret, signsIn } = SECURITY_FACTS[security];
    expect(fact("Secured")).toBe(secret ? `${words}; the word itself is kept elsewhere` : words);
    expect(screen.queryByLabelText("Asks") !== null).toBe(signsIn);
  }
  expect(scene.written.length).toBeGreaterThan(2);
});

test("it is removed, and nothing is selected then", async () => {
  await userEvent.click(screen.getByRole("button", { name: "Remove the name" }));
  const { plan: after } = scene.store.getState().held.index;
  expect(after.ssid.has(ssid.id)).toBe(false);
  expect(scene.ui.getState().selection).toBeNull();
});
