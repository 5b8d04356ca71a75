import { fennelStreet } from "../../../demo/fennel-street";
import { must } from "../kernel";
import { PlanIndex, type Device, type Plan, type Service } from "../plan";
import { differenceAt, reachAt, reachMatrix } from "../reach";
import { afterEdit, donePlan } from "../testing/after-edit";
import { testId } from "../testing/build-plan";
import { probe } from ".";
import { tryRepairs } from "./tried";

const gatewayOf = (plan: Plan) =>
  must(
    [...plan.device.values()].find(({ kind }) => kind === "gateway"),
    "the gateway",
  );
/** The practice, with its gateway filtering by the list that stands on it. */
const byItsList = (filter: Partial<Device["filter"]> = {}): PlanIndex => {
  const plan = fennelStreet();
  const gateway = gatewayOf(plan);
  return PlanIndex.of(
    donePlan(
      afterEdit(plan, ({ edits }) =>
        edits.patch("device", gateway.id, { filter: { ...gateway.filter, list: "found", ...filter } }),
      ),
    ),
  );
};
const ids = () => testId("probe", "one");
const hostIn = (index: PlanIndex, segment: string): string =>
  must(
    [...index.plan.host.values()].find(
      (host) =>
        host.manner !== "dynamic" &&
        host.attachment.at !== "unplaced" &&
        index.plan.segment.get(host.segment ?? "")?.name === segment,
    ),
    `a host in ${segment}`,
  ).id;
const tcp = (port: number): Service => ({ name: `tcp ${port}`, protocol: "tcp", ports: [[port, port]] });
const ask = (index: PlanIndex, from: string, goal: Parameters<typeof probe>[1]["goal"]) =>
  probe(
    index,
    { from: { at: "host", host: hostIn(index, from) }, as: { as: "client" }, mac: null, family: 4, goal },
    ids,
  );

test("what the list drops is stopped by the number of its rule; the repair that says so lets it pass", () => {
  const index = byItsList();
  const outcome = ask(index, "Servers", { to: "internet", service: tcp(443) });
  expect(outcome.cause?.sentence).toMatch(
    new RegExp(
      "^Rule 21 of Gateway \\(the rest\\) drops it\\. " +
        "The walls mean it to pass: The wall Servers to Internet has a door",
    ),
  );
  expect(outcome.cause?.subjects[0]).toEqual({
    kind: "rule",
    id: index.rulesOf(gatewayOf(index.plan).id)[20]?.id,
  });
  expect(tryRepairs(index, outcome, ids).map(({ repair, result }) => [repair.label, result])).toEqual([
    ["Let Gateway filter by the rules that its walls need", "passes"],
  ]);
  const planned = PlanIndex.of(fennelStreet());
  expect(ask(planned, "Servers", { to: "internet", service: tcp(443) }).stopsAt).toBeNull();
});

test("what the list lets through passes, though the walls do not mean it, and the step names the rule", () => {
  const index = byItsList();
  const goal = { to: "host" as const, host: hostIn(index, "Cameras"), service: tcp(23) };
  const outcome = ask(index, "Servers", goal);
  expect(outcome.cause?.sentence).toMatch(
    /^Rule 21 of Gateway .* drops it\. That is what the walls mean, too\.$/,
  );
  expect(outcome.cause?.repairs).toEqual([]);
  const desk = ask(index, "Staff", goal);
  expect(desk.stopsAt).toBeNull();
  expect(desk.steps.map(({ why }) => why)).toContain(
    "Rule 16 of Gateway (reception could not see the door) lets it through.",
  );
});

test("a list without a rule for it decides by the rest; without state answers are asked, too", () => {
  const bare = (filter: Partial<Device["filter"]>): PlanIndex => {
    const plan = byItsList(filter).plan;
    return PlanIndex.of(
      donePlan(
        afterEdit(plan, ({ edits }) => {
          for (const { id, action } of edits.all("rule")) if (action === "drop") edits.remove("rule", id);
        }),
      ),
    );
  };
  const goal = { to: "internet" as const, service: tcp(443) };
  expect(ask(bare({}), "Servers", goal).cause?.sentence).toMatch(
    /^No rule of the list that stands on Gateway takes it; what none takes is dropped\./,
  );
  expect(ask(bare({ forwardDefault: "accept" }), "Servers", goal).stopsAt).toBeNull();
  expect(ask(bare({ forwardDefault: "reject" }), "Servers", goal).cause?.sentence).toMatch(/is rejected\./);
  const files = { to: "host" as const, host: hostIn(byItsList(), "Servers"), service: tcp(445) };
  // Who signs in needs the servers' answers before anything else.
  const open = (index: PlanIndex): PlanIndex =>
    PlanIndex.of(
      donePlan(
        afterEdit(index.plan, ({ edits }) => {
          for (const { id, guards } of edits.all("port"))
            edits.patch("port", id, { guards: { ...guards, signIn: false } });
        }),
      ),
    );
  expect(ask(open(bare({})), "Staff", files).stopsAt).toBeNull();
  const without = ask(open(bare({ established: false })), "Staff", files);
  expect([without.delivered, without.stopsAt === null]).toEqual([true, false]);
});

test("reachability goes by the list, and says where it is more or less than the walls intend", () => {
  const index = byItsList();
  const matrix = reachMatrix(index);
  const at = (name: string) =>
    matrix.columns.findIndex(
      (reachColumn) => (typeof reachColumn === "string" ? reachColumn : reachColumn.name) === name,
    );
  const cell = (from: string, to: string) => [
    reachAt(matrix, at(from), at(to)),
    differenceAt(matrix, at(from), at(to)),
  ];
  expect(cell("Staff", "Cameras")).toEqual(["open", "more"]);
  expect(cell("Servers", "internet")).toEqual(["closed", "less"]);
  expect(cell("Staff", "Servers")).toEqual(["services", null]);
  expect(cell("Kit", "gateway")).toEqual(["open", null]);
});
