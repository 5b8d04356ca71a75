import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { must } from "../kernel";
import { PlanIndex } from "../plan";
import { readRuleTable, replaceRules } from "../planners";
import { afterEdit, donePlan } from "../testing/after-edit";
import { filteringDevices, PLANNED_LISTS, STANDING_LISTS, STANDING_PROOFS } from "../walls";
import { ruleRows, ruleStateWords, ruleTable } from "./rule-rows";

const office = PlanIndex.of(fennelStreet());
const [gateway] = filteringDevices(office);
const device = must(gateway, "the gateway").id;

test("the rules that walls need: answers first, each with ends and reason, the wall last", () => {
  const rows = ruleRows(office, must(office.derived(PLANNED_LISTS).get(device), "its list"));
  const told = rows.map(({ number, from, to, lets, reason }) => {
    const ends = (all: typeof from) =>
      all.map(({ segment, only }) => only ?? segment?.mark).join(" ") || "any";
    return `${number} ${ends(from)} > ${ends(to)}: ${lets} (${reason})`;
  });
  expect([told[0], told.at(-1)]).toEqual([
    "1 any > any: answers (to what was let through)",
    `${rows.length} any > any: closed (the wall itself)`,
  ]);
  expect(told).toContainEqual(
    expect.stringMatching(/^\d+ ST PH > SV: https, dns, files \(records and names\)$/),
  );
  expect(told).toContainEqual(
    expect.stringMatching(/^\d+ KT > Gateway: open \(.*the gateway's pages, from Kit only\)$/),
  );
  expect(rows.filter(({ walls }) => walls.length > 0).length).toBeGreaterThan(5);
});

test("what a standing rule comes to, in a few words", () => {
  const standing = must(office.derived(STANDING_LISTS).get(device), "its list");
  const rules = office.rulesOf(device);
  const words = rules.map((rule) => ruleStateWords(standing, rule));
  expect([words[8], words[12], words[20], words[0]]).toEqual([
    "never reached",
    "never reached",
    "can go",
    "",
  ]);
  expect(ruleStateWords(standing, { ...must(rules[0], "a rule"), enabled: false })).toBe("off");
  expect(ruleStateWords(null, must(rules[0], "a rule"))).toBe("");
});

test.each([fennelStreet(), lockkeepersHouse(), bramblewick()])(
  "$site.name: the table of needed rules, read again as what stands on the device, is proven",
  (plan) => {
    const index = PlanIndex.of(plan);
    const [first] = filteringDevices(index);
    const { id, name } = must(first, "the gateway");
    const [heads = [], ...rows] = ruleTable(index);
    const needed = rows.filter(([on, list]) => on === name && list === "needed");
    expect(needed.length).toBeGreaterThan(4);
    const read = readRuleTable(index, [heads, ...needed]);
    const rules = typeof read === "string" ? [] : read.rules;
    expect(typeof read === "string" ? read : read.faults).toEqual([]);
    const entered = PlanIndex.of(
      donePlan(afterEdit(plan, (context) => replaceRules(context, { device: id, rules }))),
    );
    const proof = must(entered.derived(STANDING_PROOFS).get(id), "its proof");
    expect(proof.pairs.filter(({ difference }) => difference !== null)).toEqual([]);
  },
);

test("the table has what stands on a device as it can be read again, note for note", () => {
  const [heads = [], ...rows] = ruleTable(office);
  const standing = rows.filter(([, list]) => list === "stands on it");
  expect(standing).toHaveLength(21);
  const read = readRuleTable(office, [heads, ...standing]);
  expect(typeof read === "string" ? read : read.rules).toEqual(
    office.rulesOf(device).map(({ id: _id, device: _device, place: _place, ...fields }) => fields),
  );
});
