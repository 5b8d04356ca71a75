import { aDomain, aVlan, planWith, testId } from "../testing/build-plan";
import { v } from "../testing/written";
import { PlanEdits } from "./plan-edits";

const domain = aDomain();
const ten = aVlan({ vid: v(10) });
const twenty = aVlan({ vid: v(20) });
const thirty = aVlan({ vid: v(30) });
const forty = aVlan({ vid: v(40) });
const begun = () => new PlanEdits(planWith({ domain: [domain], vlan: [ten, twenty, thirty] }));

test("what is read is what was written before, and else what the plan has", () => {
  const edits = begun();
  edits.patch("vlan", ten.id, { name: "Crew" });
  edits.patch("vlan", ten.id, { purpose: "parked" });
  edits.remove("vlan", twenty.id);
  edits.put("vlan", forty);
  expect(edits.get("vlan", ten.id)).toEqual({ ...ten, name: "Crew", purpose: "parked" });
  expect(edits.get("vlan", twenty.id)).toBeUndefined();
  expect(edits.need("vlan", thirty.id)).toBe(thirty);
  expect(edits.get("vlan", forty.id)).toBe(forty);
  expect(edits.get("vlan", testId("vlan", "none"))).toBeUndefined();
  expect(() => edits.need("vlan", twenty.id)).toThrow(/is in the plan/);
});

test("all of a kind: those that stay, as they are now, and those that have come", () => {
  const edits = begun();
  const ids = () => edits.all("vlan").map(({ vid, name }) => `${vid} ${name}`);
  const inPlan = [...edits.plan.vlan.values()].map(({ vid, name }) => `${vid} ${name}`);
  expect(ids()).toEqual(inPlan);
  edits.patch("vlan", ten.id, { name: "Crew" });
  edits.remove("vlan", twenty.id);
  edits.put("vlan", forty);
  edits.put("domain", { ...domain, name: "Yard" });
  edits.put("domain", aDomain({ id: testId("domain", "other"), name: "Other" }));
  const kept = inPlan
    .filter((text) => !text.startsWith("20"))
    .map((text) => text.replace("10 VLAN 10", "10 Crew"));
  expect(ids()).toEqual([...kept, "40 VLAN 40"]);
  expect(edits.all("domain").map(({ name }) => name)).toEqual(["Yard", "Other"]);
  // Come and gone again.
  edits.remove("vlan", forty.id);
  expect(ids()).toEqual(kept);
});

test("one change for each that is now different, however often it was written", () => {
  const edits = begun();
  expect(edits.changes()).toEqual([]);
  edits.patch("vlan", ten.id, { name: "Crew" });
  edits.patch("vlan", ten.id, { purpose: "parked" });
  edits.patch("vlan", thirty.id, { name: "Guests" });
  edits.patch("vlan", thirty.id, { name: thirty.name });
  edits.remove("vlan", twenty.id);
  edits.put("vlan", forty);
  edits.remove("vlan", testId("vlan", "none"));
  expect(edits.changes()).toEqual([
    { kind: "vlan", id: ten.id, before: ten, after: { ...ten, name: "Crew", purpose: "parked" } },
    { kind: "vlan", id: twenty.id, before: twenty, after: null },
    { kind: "vlan", id: forty.id, before: null, after: forty },
  ]);
});
