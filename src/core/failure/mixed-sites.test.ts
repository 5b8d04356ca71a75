import { listFindings, runChecks } from "../checks";
import { must } from "../kernel";
import { applyChanges, PlanEdits, PlanIndex, type Plan, type ProbeGoal } from "../plan";
import { SERVICES } from "../policy";
import { asClient, probe } from "../probe";
import { reachAt, reachMatrix } from "../reach";
import { broken } from "../testing/broken";
import { dice } from "../testing/plants";
import { mixedSite } from "../testing/mixed-site";
import { failureName, singleFailures } from "./kinds";
import { FailureStudy } from "./study";

// Probe, reachability and the failure study answer one question alike, on sites of every kind: flat, with
// VLANs, with routers behind routers.

const HTTPS = must(
  SERVICES.find(({ name }) => name === "https"),
  "https",
);
const ids = () => "00000000-0000-7000-8000-000000000001";
const SITES = Array.from({ length: 40 }, (_, seed) => [seed, mixedSite(dice(seed + 1))] as const);
const passes = (index: PlanIndex, host: string, goal: ProbeGoal): boolean =>
  probe(index, asClient({ at: "host", host }, goal), ids).cause === null;

test("the sites to ask have routed ports, VLANs, wireless without one, NAT and routes by hand", () => {
  const plans = SITES.map(([, plan]) => plan);
  const count = (test: (plan: Plan) => boolean) => plans.filter(test).length;
  expect(
    count(
      (plan) =>
        [...plan.segment.values()].some((segment) => segment.vlan === null) &&
        [...plan.segment.values()].some((segment) => segment.vlan !== null),
    ),
  ).toBeGreaterThan(10);
  expect(
    count((plan) => [...plan.ssid.values()].some((ssid) => plan.segment.get(ssid.segment)?.vlan === null)),
  ).toBeGreaterThan(10);
  expect(
    count((plan) => [...plan.device.values()].some((device) => device.routes.length > 0)),
  ).toBeGreaterThan(10);
  expect(
    count((plan) => [...plan.interface.values()].filter((leg) => leg.translates === "yes").length > 1),
  ).toBeGreaterThan(5);
  for (const plan of plans)
    for (const host of plan.host.values())
      expect([
        host.name,
        probe(PlanIndex.of(plan), asClient({ at: "host", host: host.id }, { to: "address" }), ids).cause
          ?.sentence,
      ]).toEqual([host.name, undefined]);
});

// eslint-disable-next-line complexity -- what a cell expects, by each kind of column
test.each(SITES)("site %i: every cell of the matrix is what probes between hosts find", (_, plan) => {
  const index = PlanIndex.of(plan);
  const matrix = reachMatrix(index);
  for (const [i, row] of matrix.rows.entries())
    for (const [j, column] of matrix.columns.entries()) {
      const [from] = index.hostsIn(row.id);
      const to = typeof column === "string" ? undefined : index.hostsIn(column.id)[0];
      const nobody = from === undefined || (typeof column !== "string" && to === undefined);
      if (nobody || i === j || column === "gateway") continue;
      const outcome = probe(
        index,
        asClient(
          { at: "host", host: from.id },
          column === "internet"
            ? { to: "internet", service: HTTPS }
            : { to: "host", host: to?.id ?? "", service: HTTPS },
        ),
        ids,
      );
      const reach = reachAt(matrix, i, j);
      const passes = ["open", "services", "past the walls"].includes(reach);
      expect([row.name, to?.name ?? column, reach, outcome.cause?.sentence]).toEqual([
        row.name,
        to?.name ?? column,
        reach,
        passes ? undefined : expect.any(String),
      ]);
    }
});

test.each(SITES)(
  "site %i: who loses the gateway, an address or the internet by a failure is whom probes find cut off",
  (_, plan) => {
    const index = PlanIndex.of(plan);
    const study = new FailureStudy(index);
    const hosts = [...plan.host.keys()];
    const goals = [
      { to: "gateway", service: null },
      { to: "internet", service: HTTPS },
    ] as const;
    const before = goals.map((goal) => hosts.filter((host) => passes(index, host, goal)));
    for (const failure of singleFailures(index)) {
      const after = PlanIndex.of(broken(plan, failure));
      const { cutOff, noGateway, noAddress, noInternet } = study.fail([failure]);
      const named = (list: Iterable<string>) =>
        [...new Set(list)].map((id) => plan.host.get(id)?.name).sort();
      const [gateway, internet] = goals.map(
        (goal, i) => before[i]?.filter((host) => !passes(after, host, goal)) ?? [],
      );
      const found = [...cutOff, ...noGateway, ...noAddress];
      expect([failureName(index, failure), named(found.filter((id) => before[0]?.includes(id)))]).toEqual([
        failureName(index, failure),
        named(gateway ?? []),
      ]);
      expect([
        failureName(index, failure),
        named([...found, ...noInternet].filter((id) => before[1]?.includes(id))),
      ]).toEqual([failureName(index, failure), named(internet ?? [])]);
    }
  },
);

test.each(SITES.slice(0, 20))(
  "site %i: whoever is plugged into another network than planned is found, and nobody who is not",
  (_, plan) => {
    const wrong = (of: Plan) =>
      listFindings(runChecks(PlanIndex.of(of)))
        .filter(({ code }) => code === "host-in-other-network" || code === "host-in-wrong-vlan")
        .map(({ subjects }) => subjects.find(({ kind }) => kind === "host")?.id);
    expect(wrong(plan)).toEqual([]);
    const wired = [...plan.host.values()].filter(({ attachment }) => attachment.at === "port");
    for (const host of wired) {
      const other = wired.find(({ segment }) => segment !== host.segment);
      if (other === undefined) continue;
      const edits = new PlanEdits(plan);
      edits.patch("host", other.id, { attachment: { at: "unplaced" } });
      edits.patch("host", host.id, { attachment: other.attachment });
      const moved = applyChanges(plan, edits.changes());
      expect([host.name, other.name, wrong(must(moved.ok ? moved.value : null, "it moves"))]).toEqual([
        host.name,
        other.name,
        [host.id],
      ]);
    }
  },
);
