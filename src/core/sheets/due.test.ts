import { z } from "zod";
import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { afterEdits, KINDS, PlanEdits, PlanIndex, SCHEMAS, type Entity, type Kind, type Plan } from "../plan";
import { dueTable, fallsDue } from "./due";

/** All fields of the plan that hold a day, by their schemas. */
const DAYS = KINDS.flatMap((kind) => {
  const { properties } = z.toJSONSchema(SCHEMAS[kind] as z.ZodType, {
    io: "input",
    unrepresentable: "any",
  }) as { properties?: Record<string, unknown> };
  return Object.entries(properties ?? {}).flatMap(([field, schema]) =>
    JSON.stringify(schema).includes('"format":"date"') ? [[kind, field] as const] : [],
  );
});

/** Some plan that has one of a kind. */
function withOne(kind: Kind): { readonly plan: Plan; readonly entity: Entity } | null {
  for (const plan of [fennelStreet(), bramblewick()]) {
    const [entity] =
      kind === "site" ? [plan.site] : [...(plan[kind] as ReadonlyMap<string, Entity>).values()];
    if (entity !== undefined) return { plan, entity };
  }
  return null;
}

test("every field of the plan that holds a day falls due", () => {
  expect(DAYS.map((day) => day.join("."))).toEqual(
    expect.arrayContaining(["device.supportUntil", "signIn.certificateUntil", "exception.lastDay"]),
  );
  for (const [kind, field] of DAYS) {
    const made = withOne(kind);
    if (made === null) continue;
    const edits = new PlanEdits(made.plan);
    edits.put(kind, {
      ...made.entity,
      ...(kind === "gear" ? { device: null } : {}),
      [field]: "2031-04-05",
    } as never);
    const index = afterEdits(PlanIndex.of(made.plan, "2026-11-30"), edits);
    const own = index === null ? [] : fallsDue(index).filter(({ day }) => day === "2031-04-05");
    expect([kind, field, own.map(({ subject }) => subject.kind)]).toEqual([kind, field, [kind]]);
    expect(own[0]?.isOver).toBe(false);
  }
});

test("the first comes first; what is over says so, and nothing does where nobody knows the day", () => {
  const plan = fennelStreet();
  const edits = new PlanEdits(plan);
  const [one, two] = [...plan.device.values()];
  if (one === undefined || two === undefined) throw new Error("two devices");
  edits.patch("device", one.id, { supportUntil: "2030-01-31", licenceUntil: null });
  edits.patch("device", two.id, { licenceUntil: "2026-11-29", supportUntil: null });
  const shown = (today: string | null) => {
    const index = afterEdits(PlanIndex.of(plan, today), edits);
    return dueTable(index === null ? [] : fallsDue(index)).filter(([, what]) =>
      [one.name, two.name].some((name) => what?.includes(`${name} ends`)),
    );
  };
  expect(shown("2026-11-30")).toEqual([
    ["2026-11-29", `The licence of ${two.name} ends`, "yes"],
    ["2030-01-31", `The maker's support for ${one.name} ends`, ""],
  ]);
  expect(shown(null).map(([, , over]) => over)).toEqual(["", ""]);
});
