import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { parsePrefix } from "../address";
import { must } from "../kernel";
import { PlanIndex, type Forward } from "../plan";
import { afterEdit, donePlan } from "../testing/after-edit";
import { asClient, probe } from "./probe";

const home = lockkeepersHouse();
const [kiln] = home.forward.values();
const forward = must(kiln, "the home's forward");

/** The forward with other fields, asked from outside on a day. */
const asked = (fields: Partial<Forward>, today: string | null = null) => {
  const plan = donePlan(afterEdit(home, ({ edits }) => edits.patch("forward", forward.id, fields)));
  const question = asClient({ at: "internet", line: forward.line }, { to: "forward", forward: forward.id });
  return probe(PlanIndex.of(plan, today), question, () => "");
};

test("a forward that lets in somebody only is asked by somebody whom it lets in", () => {
  const limited = asked({ sources: [must(parsePrefix("203.0.113.64/28"), "a prefix")] });
  expect([limited.cause, limited.steps[0]?.place]).toEqual([null, "203.0.113.64"]);
  expect(asked({ sources: [] }).steps[0]?.place).toBe("203.0.113.50");
});

test("it holds to the end of its last day, and not after it", () => {
  expect(asked({ until: "2027-04-30" }, "2027-04-30").stopsAt).toBeNull();
  expect(asked({ until: "2027-04-30" }, "2027-05-01").stopsAt).not.toBeNull();
});
