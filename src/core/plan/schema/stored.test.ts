import { z } from "zod";
import { bramblewick } from "../../../../demo/bramblewick";
import { fennelStreet } from "../../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { encodePlan, openPlan } from "../../formats";
import { dice } from "../../testing/plants";
import { mixedSite } from "../../testing/mixed-site";
import { editField, FIELD_PATHS } from "../../testing/schema-edits";
import { Draft, entityOf, type Plan } from "..";
import { KINDS, SCHEMAS, type Entity, type Kind } from "./kinds";
import { decodeStored, MISFIT } from "./stored";

const PLANS: readonly Plan[] = [fennelStreet(), lockkeepersHouse(), bramblewick(), mixedSite(dice(7))];
const entitiesOf = (kind: Kind): Entity[] =>
  PLANS.flatMap((plan): Entity[] => (kind === "site" ? [plan.site] : [...plan[kind].values()]));
const textSide = (kind: Kind, entity: Entity): Record<string, unknown> =>
  JSON.parse(JSON.stringify(z.encode(SCHEMAS[kind] as z.ZodType, entity))) as Record<string, unknown>;

test.each(KINDS)(
  "%s: what is stored is read as the strict way reads it, and comes from the same text",
  (kind) => {
    for (const entity of entitiesOf(kind)) {
      const text = textSide(kind, entity);
      const read = decodeStored(kind, text);
      expect(read).toEqual(SCHEMAS[kind].parse(text));
      expect(text).toEqual(textSide(kind, entity));
    }
  },
);

test("edits of every field, as the strict way takes them, are read alike", () => {
  const roll = dice(20_261);
  let tried = 0;
  for (const path of FIELD_PATHS)
    for (const plan of PLANS) {
      const draft = new Draft(plan);
      editField(draft, path, roll);
      for (const { kind, after } of draft.changes()) {
        if (after === null) continue;
        const text = textSide(kind, after);
        const strict = SCHEMAS[kind].safeParse(text);
        if (!strict.success) continue;
        expect(decodeStored(kind, text)).toEqual(strict.data);
        tried += 1;
      }
    }
  expect(tried).toBeGreaterThan(FIELD_PATHS.length / 2);
});

describe("what does not fit", () => {
  const samples = KINDS.flatMap((kind) => {
    const [entity] = entitiesOf(kind);
    return entity === undefined ? [] : [[kind, textSide(kind, entity)] as const];
  });

  test.each(samples)("%s: a field that is missing, one too many, and one of another type", (kind, text) => {
    expect(decodeStored(kind, { ...text, more: 1 })).toBe(MISFIT);
    for (const field of Object.keys(text)) {
      const without = Object.fromEntries(Object.entries(text).filter(([name]) => name !== field));
      expect([field, decodeStored(kind, without)]).toEqual([field, MISFIT]);
      expect([field, decodeStored(kind, { ...text, [field]: () => 1 })]).toEqual([field, MISFIT]);
    }
  });

  test.each([null, 7, "text", []])("%p is no entity", (value) => {
    expect(decodeStored("host", value)).toBe(MISFIT);
  });

  test("in a plan from the server it is named, and nothing is guessed", () => {
    const file = encodePlan(fennelStreet()) as { hosts: Record<string, unknown>[] };
    const [first, ...rest] = file.hosts;
    const opened = openPlan({ ...file, hosts: [{ ...first, ipv4: "10.24.20.999" }, ...rest] });
    expect(opened.ok ? [] : opened.error).toMatchObject([
      { sentence: expect.stringContaining('"10.24.20.999" is not an IPv4 address') },
    ]);
  });
});

test("a plan from the server is the plan, entity by entity", () => {
  for (const plan of PLANS) {
    const opened = openPlan(JSON.parse(JSON.stringify(encodePlan(plan))));
    expect(opened).toEqual({ ok: true, value: plan });
    for (const host of plan.host.keys())
      expect(entityOf(opened.ok ? opened.value : plan, "host", host)).toEqual(entityOf(plan, "host", host));
  }
});
