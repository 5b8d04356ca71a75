import { LOCKKEEPERS_HOUSE } from "../../../../demo/surveys";
import { listFindings, runChecks } from "../../checks";
import { diff, PlanIndex, type Host, type Plan } from "../../plan";
import { decide, SERVICES } from "../../policy";
import { must } from "../../kernel";
import { asClient, probe } from "../../probe";
import { surveyPlan } from "../../testing/survey-plan";
import { afterEdit, donePlan } from "../../testing/after-edit";
import { draftPlan, USUAL_PARTS } from "..";

const ids = () => "00000000-0000-7000-8000-000000000001";
const PLAIN = { name: "Hall plain switch", kind: "switch" as const, fate: "keep" as const, room: "Hall", model: "switch-5-plain" };
const room = (name: string, needs: string, group?: string) => ({ name, needs, ...(name === "Hall" ? { kind: "cabinet" as const } : { cabinet: "Hall" }), ...(group === undefined ? {} : { group }) });
function drafted(rooms: ReturnType<typeof room>[]): { plan: Plan; notes: readonly string[] } {
  let notes: readonly string[] = [];
  const plan = donePlan(afterEdit(surveyPlan({ ...LOCKKEEPERS_HOUSE, rooms, gear: [PLAIN] }, { separation: "routers" }), (bench) => { notes = draftPlan(bench, USUAL_PARTS).notes; }));
  return { plan, notes };
}
const SITES = {
  "few": [room("Hall", "1 PC, 1 printer"), room("Flat", "1 PC", "Lodger")],
  "an untrusted network with more than its router's ports": [room("Hall", "3 PC, 1 printer, 2 television"), room("Den", "3 game console")],
  "three networks": [room("Hall", "4 PC, 2 television"), room("Flat", "6 PC, 1 printer", "Lodger"), room("Attic", "5 game console, 2 PC")],
};
const HTTPS = must(SERVICES.find(({ name }) => name === "https"), "https");

/** The device that serves the addresses of a segment. */
const serverOf = (index: PlanIndex, segment: string) => index.plan.device.get(index.gatewayOf(must(index.plan.segment.get(segment), "a segment"))?.device ?? "")?.name;

test.each(Object.entries(SITES))("%s: every host is plugged in, is served by its own network's router, and reaches exactly what its walls say", (_, rooms) => {
  const { plan } = drafted(rooms);
  const index = PlanIndex.of(plan);
  expect(listFindings(runChecks(index)).filter(({ severity }) => severity === "stop")).toEqual([]);
  const hosts = [...plan.host.values()];
  const segmentOf = (host: Host) => must(plan.segment.get(host.segment ?? ""), host.name);
  for (const host of hosts) {
    const { lease, cause } = probe(index, asClient({ at: "host", host: host.id }, { to: "internet", service: null }), ids);
    expect([host.name, host.attachment.at, host.manner === "typed" ? null : lease?.server, cause?.sentence ?? "passes"]).toEqual([host.name, "port", host.manner === "typed" ? null : serverOf(index, host.segment ?? ""), decide(index, segmentOf(host), "internet", HTTPS).passes ? "passes" : expect.stringContaining("wall")]);
  }
  for (const from of hosts) for (const to of hosts) {
    if (from === to || from.segment === to.segment) continue;
    const reached = probe(index, asClient({ at: "host", host: from.id }, { to: "host", host: to.id, service: HTTPS }), ids).cause === null;
    expect([from.name, to.name, reached]).toEqual([from.name, to.name, decide(index, segmentOf(from), segmentOf(to), HTTPS).passes]);
  }
});

test("what the purposes would want and a router does not let in is said, and no door is drawn for it", () => {
  const { plan, notes } = drafted(SITES["an untrusted network with more than its router's ports"]);
  expect(notes).toContainEqual(expect.stringMatching(/^Household can open nothing in Gadgets: the router there lets in only answers/));
  expect([...plan.wall.values()].filter(({ from, to }) => from.at === "zone" && to.at === "zone")).toEqual([]);
});

test("drafted again, nothing is added or changed", () => {
  for (const rooms of Object.values(SITES)) {
    const { plan } = drafted(rooms);
    expect(diff(plan, donePlan(afterEdit(plan, (bench) => { draftPlan(bench, USUAL_PARTS); })))).toEqual([]);
  }
});
