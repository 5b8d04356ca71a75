import { readFileSync } from "node:fs";
import fc from "fast-check";
import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { BROKEN_FILES, corrupt, goodFile, PLACES } from "../../../tests/generators/broken-plan-files";
import { must } from "../kernel";
import { decodeChanges, encodeChanges } from "./change-codec";
import { encodePlan, readPlanFile, writePlanFile } from "./plan-file";
import { planFileJsonSchema } from "./json-schema";
import { diff, emptyPlan } from "../plan";

test.each([
  ["office", fennelStreet()],
  ["home", lockkeepersHouse()],
  ["industrial", bramblewick()],
])("the %s demo comes back from its file unchanged", (_, plan) => {
  const read = readPlanFile(writePlanFile(plan));
  expect(read.ok && diff(read.value, plan)).toEqual([]);
});

test("changes come back from the log unchanged", () => {
  const plan = fennelStreet();
  const changes = diff(emptyPlan(plan.site), plan);
  expect(changes.length).toBeGreaterThan(200);
  expect(decodeChanges(JSON.parse(JSON.stringify(encodeChanges(changes))))).toEqual(changes);
});

test.each(BROKEN_FILES)("refuses %s and names the place", (_, spoil, sentence) => {
  const spoilt = spoil(goodFile());
  const read = readPlanFile(typeof spoilt === "string" ? spoilt : JSON.stringify(spoilt));
  expect(read.ok ? "accepted" : read.error.map((fault) => fault.sentence).join("\n")).toMatch(sentence);
});

test("200 random corruptions are refused, each with a sentence that names the place", () => {
  let refused = 0;
  fc.assert(
    fc.property(fc.nat(PLACES.length - 1), fc.integer({ min: 0, max: 3 }), (n, how) => {
      const path = must(PLACES[n], "a place");
      const read = readPlanFile(JSON.stringify(corrupt(path, how)));
      if (read.ok) throw new Error(`accepted a corruption at ${path.join(".")}`);
      const place = read.error.map((fault) => fault.place).join(" ");
      expect(place).toContain(String(path[0]));
      expect(
        read.error.every(
          (fault) => fault.sentence.length > 15 && !/undefined|\[object|Invalid input/.test(fault.sentence),
        ),
      ).toBe(true);
      refused += 1;
    }),
    { numRuns: 200, seed: 21 },
  );
  expect(refused).toBe(200);
});

test("the JSON Schema knows every list and leaves no room for more", () => {
  const schema = planFileJsonSchema() as {
    properties: Record<string, unknown>;
    required: string[];
    additionalProperties: boolean;
  };
  expect(schema.required.sort()).toEqual(Object.keys(encodePlan(fennelStreet()) as object).sort());
  expect(schema.additionalProperties).toBe(false);
});

test("docs/plan.schema.json is the schema that checks", () => {
  expect(JSON.parse(readFileSync("docs/plan.schema.json", "utf8"))).toEqual(
    JSON.parse(JSON.stringify(planFileJsonSchema())),
  );
});

test.each([
  ["fennel-street", fennelStreet()],
  ["lockkeepers-house", lockkeepersHouse()],
  ["bramblewick", bramblewick()],
])("demo/%s.json is what its description makes", (file, plan) => {
  expect(readFileSync(`demo/${file}.json`, "utf8")).toBe(writePlanFile(plan));
});
