import { readFileSync } from "node:fs";
import fc from "fast-check";
import { z } from "zod";
import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { BROKEN_FILES, corrupt, goodFile, PLACES } from "../../../tests/generators/broken-plan-files";
import { must } from "../kernel";
import { changeSchema, decodeChanges, encodeChanges } from "./change-codec";
import { encodePlan, planPieces, readPlanFile, writePlanFile } from "./plan-file";
import { planFileJsonSchema } from "./json-schema";
import { diff, emptyPlan, type Plan } from "../plan";
import { aHost, planWith } from "../testing/build-plan";

test.each([
  ["office", fennelStreet()],
  ["home", lockkeepersHouse()],
  ["industrial", bramblewick()],
])("the %s demo comes back from its file unchanged", (_, plan) => {
  const read = readPlanFile(writePlanFile(plan));
  expect(read.ok && diff(read.value, plan)).toEqual([]);
});

/** The file that its pieces make, read as JSON: fields of entities put together by hand have another order. */
async function inPieces(plan: Plan): Promise<{ pieces: string[]; file: unknown }> {
  const pieces: string[] = [];
  for await (const piece of planPieces(plan, () => null)) pieces.push(piece);
  return { pieces, file: JSON.parse(pieces.join("")) };
}
const asJson = (plan: Plan): unknown => JSON.parse(JSON.stringify(encodePlan(plan)));

test.each([0, 1, 499, 500, 501, 1000, 1001])(
  "piece by piece it is the same file, with %i hosts",
  async (n) => {
    const plan = planWith({ host: Array.from({ length: n }, (_, i) => aHost({ name: `Host ${i}` })) });
    const { pieces, file } = await inPieces(plan);
    expect(file).toEqual(asJson(plan));
    // What goes with a plan is put before it.
    expect(pieces.at(-1)).toBe("}");
    for (const piece of pieces) expect(piece.split('"attachment"').length - 1).toBeLessThanOrEqual(500);
  },
);

test.each([
  ["office", fennelStreet()],
  ["home", lockkeepersHouse()],
  ["industrial", bramblewick()],
])("piece by piece the %s demo is the same file", async (_, plan) => {
  expect((await inPieces(plan)).file).toEqual(asJson(plan));
});

test("changes come back from the log unchanged", () => {
  const plan = fennelStreet();
  const changes = diff(emptyPlan(plan.site), plan);
  expect(changes.length).toBeGreaterThan(200);
  expect(decodeChanges(JSON.parse(JSON.stringify(encodeChanges(changes))))).toEqual(changes);
});

test("changes are written as their schema writes them: what comes, what changes, what goes", () => {
  for (const [was, is] of [
    [emptyPlan(fennelStreet().site), fennelStreet()],
    [bramblewick(), emptyPlan(bramblewick().site)],
    [fennelStreet(), { ...lockkeepersHouse(), site: { ...fennelStreet().site, name: "Another" } }],
  ] as const) {
    const changes = diff(was, is);
    const written = z.encode(z.array(changeSchema), changes as unknown as z.output<typeof changeSchema>[]);
    expect(JSON.parse(JSON.stringify(encodeChanges(changes)))).toEqual(JSON.parse(JSON.stringify(written)));
  }
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
