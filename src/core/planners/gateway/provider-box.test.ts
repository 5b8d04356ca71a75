import { fennelStreet } from "../../../../demo/fennel-street";
import { asPrefix4, parsePrefix } from "../../address";
import { must } from "../../kernel";
import { applyChanges, PlanEdits, PlanIndex, type Line, type Plan } from "../../plan";
import { asClient, probe } from "../../probe";
import { arrangeBox, type Arrangement } from "..";

let made = 0;
const ids = () => {
  made += 1;
  return `019e0000-0000-7000-8000-${String(made).padStart(12, "0")}`;
};
const edited = (plan: Plan, edit: (edits: PlanEdits) => void): Plan => {
  const edits = new PlanEdits(plan);
  edit(edits);
  const applied = applyChanges(plan, edits.changes());
  return must(applied.ok ? applied.value : null, "it applies");
};
const FIBRE = must([...fennelStreet().line.keys()][0], "the line");
/** The practice before its box was kept behind the gateway. */
const OFFICE = edited(fennelStreet(), (edits) => {
  edits.patch("line", FIBRE, { pins: [], locked: "", providerBox: "bridges" });
  for (const { id, name } of edits.all("host")) if (name === "fibre-line-box") edits.remove("host", id);
});
const withLine = (fields: Partial<Line>): Plan =>
  edited(OFFICE, (edits) => edits.patch("line", FIBRE, fields));
function arranged(plan: Plan, arrangement: Arrangement): Plan | string {
  const edits = new PlanEdits(plan);
  const refusal = arrangeBox({ edits, ids }, { line: FIBRE, arrangement });
  const applied = applyChanges(plan, edits.changes());
  return refusal ?? must(applied.ok ? applied.value : null, "it applies");
}
const done = (plan: Plan, arrangement: Arrangement): Plan => {
  const result = arranged(plan, arrangement);
  return must(typeof result === "string" ? null : result, String(result));
};
const lineOf = (plan: Plan): Line => must(plan.line.get(FIBRE), "the line");
/** Whether somebody outside comes as far as the gateway by the line. */
const comesIn = (plan: Plan): boolean =>
  !/provider's box/.test(
    probe(
      PlanIndex.of(plan),
      asClient({ at: "internet", line: FIBRE }, { to: "gateway", service: null }),
      ids,
    ).cause?.sentence ?? "",
  );
const ROUTES = withLine({ providerBox: "routes" });

test("a box that routes keeps what comes in; bridged, bypassed or sending on it does not", () => {
  expect(comesIn(ROUTES)).toBe(false);
  for (const arrangement of ["bridged", "bypassed", "inFront"] as const)
    expect(comesIn(done(ROUTES, arrangement))).toBe(true);
  expect(lineOf(done(ROUTES, "inFront"))).toMatchObject({ providerBox: "routes", boxForwards: true });
  expect(lineOf(done(ROUTES, "bridged"))).toMatchObject({ providerBox: "bridges", boxForwards: false });
});

test("a box that can't bridge says so, and stands in front as one that can't", () => {
  const plan = withLine({ providerBox: "cannotBridge" });
  expect(arranged(plan, "bridged")).toBe(
    "The box of Fibre line can't bridge; let it stand in front, or keep it behind.",
  );
  expect(lineOf(done(plan, "inFront")).providerBox).toBe("cannotBridge");
});

test("kept behind, it gets a fixed address among the phones and a pin to its line; once only", () => {
  const plan = done(withLine({ providerBox: "cannotBridge", locked: "phone service" }), "behind");
  const box = must(
    [...plan.host.values()].find(({ name }) => name === "fibre-line-box"),
    "the box",
  );
  const segment = must(plan.segment.get(box.segment ?? ""), "its segment");
  expect([segment.purpose, box.manner, box.ipv4 !== null]).toEqual(["voice", "typed", true]);
  expect(box.notes).toContain("phone service");
  expect(lineOf(plan).pins).toEqual([{ what: "host", host: box.id, orElse: "stays" }]);
  const again = done(plan, "behind");
  expect([again.host.size, lineOf(again).pins.length]).toEqual([plan.host.size, 1]);
});

test("a range inside the box that meets the segment's is said, and what to do about it", () => {
  const phones = must(
    [...OFFICE.segment.values()].find(({ purpose }) => purpose === "voice"),
    "the phones",
  );
  const own = must(phones.prefixes4[0], "a subnet");
  const plan = withLine({ providerBox: "routes", boxPrefix: own });
  expect(arranged(plan, "behind")).toMatch(
    /^The range inside the box meets that of Phones: give Phones another/,
  );
  const apart = must(asPrefix4(parsePrefix("192.168.177.0/24")), "a prefix");
  expect(arranged(withLine({ providerBox: "routes", boxPrefix: apart }), "behind")).not.toEqual(
    expect.any(String),
  );
});
