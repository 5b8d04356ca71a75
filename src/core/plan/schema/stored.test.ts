import { readFileSync } from "node:fs";
import { z } from "zod";
import { bramblewick } from "../../../../demo/bramblewick";
import { fennelStreet } from "../../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { storedSource } from "../../../../scripts/stored-source";
import { encodePlan, openPlan } from "../../formats";
import { dice } from "../../testing/plants";
import { mixedSite } from "../../testing/mixed-site";
import { editField, FIELD_PATHS } from "../../testing/schema-edits";
import { PlanEdits, entityOf, type Plan } from "..";
import { KINDS, SCHEMAS, type Entity, type Kind } from "./kinds";
import { decodeStored, encodeStored } from "./stored";
import { MISFIT } from "./stored-parts";

const PLANS: readonly Plan[] = [fennelStreet(), lockkeepersHouse(), bramblewick(), mixedSite(dice(7))];
const entitiesOf = (kind: Kind): Entity[] =>
  PLANS.flatMap((plan): Entity[] => (kind === "site" ? [plan.site] : [...plan[kind].values()]));
const textSide = (kind: Kind, entity: Entity): Record<string, unknown> =>
  JSON.parse(JSON.stringify(z.encode(SCHEMAS[kind] as z.ZodType, entity))) as Record<string, unknown>;

test.each(KINDS)(
  "%s: what is stored is read as the strict way reads it, and written as the schema writes it",
  (kind) => {
    for (const entity of entitiesOf(kind)) {
      const text = textSide(kind, entity);
      const read = decodeStored(kind, text);
      expect(read).toEqual(SCHEMAS[kind].parse(text));
      expect(text).toEqual(textSide(kind, entity));
      expect(JSON.parse(JSON.stringify(encodeStored(kind, entity as never)))).toEqual(text);
    }
  },
);

test("edits of every field, as the strict way takes them, are read alike", () => {
  const roll = dice(20_261);
  let tried = 0;
  for (const path of FIELD_PATHS)
    for (const plan of PLANS) {
      const edits = new PlanEdits(plan);
      editField(edits, path, roll);
      for (const { kind, after } of edits.changes()) {
        if (after === null) continue;
        const text = textSide(kind, after);
        const strict = SCHEMAS[kind].safeParse(text);
        if (!strict.success) continue;
        expect(decodeStored(kind, text)).toEqual(strict.data);
        expect(JSON.parse(JSON.stringify(encodeStored(kind, strict.data as never)))).toEqual(text);
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

test("stored.generated.ts is what the schemas make", () => {
  expect(readFileSync("src/core/plan/schema/stored.generated.ts", "utf8")).toBe(storedSource());
});

describe("what does not hang together is refused by its place", () => {
  type File = Record<"hosts" | "links" | "ports" | "domains", Record<string, unknown>[]>;
  const spoilt = (spoil: (file: File) => void): string => {
    const file = JSON.parse(JSON.stringify(encodePlan(fennelStreet()))) as File;
    spoil(file);
    const opened = openPlan(file);
    return opened.ok ? "opened" : (opened.error[0]?.sentence ?? "");
  };
  const at = (list: Record<string, unknown>[], i: number) => list[i] ?? {};
  const nowhere = "00000000-0000-4000-8000-00000000ffff";

  test.each<[string, (file: File) => void, RegExp]>([
    ["nothing spoilt", () => undefined, /^opened$/],
    [
      "a port's device that is missing",
      ({ ports }) => (at(ports, 2).device = nowhere),
      /points in its field "device"/,
    ],
    ["a cable's end that is missing", ({ links }) => (at(links, 0).b = nowhere), /points in its field "b"/],
    [
      "an id that stands twice",
      ({ hosts }) => (at(hosts, 1).id = at(hosts, 0).id),
      /has the same id as hosts\[0\]/,
    ],
    ["two cables at a port", ({ links }) => (at(links, 1).a = at(links, 0).a), /two links|already/],
    ["a cable to itself", ({ links }) => (at(links, 0).b = at(links, 0).a), /itself/],
    [
      "two hosts behind each other",
      ({ hosts }) => {
        at(hosts, 0).attachment = { at: "behind", host: at(hosts, 1).id };
        at(hosts, 1).attachment = { at: "behind", host: at(hosts, 0).id };
      },
      /behind itself/,
    ],
    ["a list that is none", (file) => Object.assign(file, { domains: "none" }), /domains/],
    ["another version", (file) => Object.assign(file, { version: 0 }), /version/],
  ])("%s", (_, spoil, sentence) => {
    expect(spoilt(spoil)).toMatch(sentence);
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
