import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { must } from "../kernel";
import { Draft, applyChanges, PlanIndex, type Plan } from "../plan";
import { asClient, probe } from "../probe";
import { carryExactly } from "../planners";
import { afterEdit, donePlan } from "../testing/after-edit";
import { failureName, FailureStudy, lossWords, lostCount, ranked, singleFailures, singlePoints, type Failure } from ".";

const sites = { "the cider works": bramblewick, "the practice": fennelStreet, "the house": lockkeepersHouse };
const ids = () => "00000000-0000-7000-8000-000000000001";

/** The plan with everything of a failure switched off, for asking it with probes. */
function broken(plan: Plan, failure: Failure): Plan {
  const draft = new Draft(plan);
  const dark = (id: string) => { for (const port of plan.port.values()) if (port.device === id) draft.patch("port", port.id, { enabled: false }); for (const ssid of plan.ssid.values()) { const at = [...plan.device.values()].filter((one) => one.kind === "accessPoint" && one.id !== id && (ssid.at.length === 0 || ssid.at.includes(one.id)) && one.domain === plan.device.get(id)?.domain).map((one) => one.id); if (plan.device.get(id)?.kind === "accessPoint" && at.length > 0) draft.patch("ssid", ssid.id, { at }); } };
  if (failure.what === "cable") draft.remove("link", failure.id);
  if (failure.what === "device") dark(failure.id);
  if (failure.what === "feed") for (const device of plan.device.values()) if (device.feed === failure.feed && device.backupFeed === "") dark(device.id);
  const applied = applyChanges(plan, draft.changes());
  return must(applied.ok ? applied.value : null, "applies");
}

test.each(Object.entries(sites))("%s: who loses the gateway is what probes find on the plan with that thing switched off", (_, make) => {
  const plan = make();
  const index = PlanIndex.of(plan);
  const study = new FailureStudy(index);
  const asks = (on: PlanIndex, host: string) => probe(on, asClient({ at: "host", host }, { to: "gateway", service: null }), ids).cause === null;
  const before = [...plan.host.keys()].filter((host) => asks(index, host));
  expect(before.length).toBeGreaterThan(5);
  for (const failure of singleFailures(index).filter((one) => one.what !== "line")) {
    const after = PlanIndex.of(broken(plan, failure));
    const lost = before.filter((host) => !asks(after, host)).sort();
    const { cutOff, noGateway } = study.fail([failure]);
    const name = failureName(index, failure);
    // A device that leases its address needs the server as well; both are counted here, since a probe asks for one first.
    const found = [...cutOff, ...noGateway].filter((host) => before.includes(host)).sort();
    expect([name, found]).toEqual([name, lost]);
  }
});

test("the ring: any one cable may fail and the one that stood by takes over; with the spare way's gap the bottling hall is cut off", () => {
  const plan = bramblewick();
  const cable = (label: string): Failure => ({ what: "cable", id: must([...plan.link.values()].find((link) => link.label === label), label).id });
  const study = new FailureStudy(PlanIndex.of(plan));
  const gap = study.fail([cable("R5")]);
  expect(new Set(gap.noGateway.map((id) => plan.segment.get(plan.host.get(id)?.segment ?? "")?.name))).toEqual(new Set(["Bottling hall"]));
  expect(gap.takeOver.length).toBe(1);
  const whole = donePlan(afterEdit(plan, ({ draft, index }) => carryExactly(draft, index)));
  const sound = new FailureStudy(PlanIndex.of(whole));
  for (const label of ["R1", "R2", "R3", "R4", "R5"]) expect([label, lostCount(sound.fail([cable(label)]))]).toEqual([label, 0]);
  // Two at once part the ring.
  expect(lostCount(sound.fail([cable("R1"), cable("R5")]))).toBeGreaterThan(0);
  expect(lossWords(sound.fail([cable("R1")]))).toBe("Nobody loses anything. 1 port that stood by takes over.");
});

test("ranked, the gateway comes first; a second line keeps the internet up, and what has no second way is named", () => {
  const index = PlanIndex.of(lockkeepersHouse());
  const study = new FailureStudy(index);
  const losses = ranked(index, singleFailures(index).map((failure) => study.fail([failure])));
  expect(losses[0]?.name).toMatch(/Gateway|Hall switch/);
  const lines = losses.filter((loss) => loss.failures[0]?.what === "line");
  expect(lines.map((loss) => loss.noInternet.length)).toEqual(lines.map(() => 0));
  expect(lines.length).toBe(2);
  const both = study.fail(lines.flatMap((loss) => loss.failures));
  expect(both.noInternet.length).toBeGreaterThan(0);
  const points = singlePoints(index, losses);
  expect(points.some((point) => point.service === "gateway" && point.by.some((name) => name.includes("Hall switch")))).toBe(true);
  expect(points.some((point) => point.service === "internet" && point.by.some((name) => name.includes("line")))).toBe(false);
});

test("a supply takes everything on it along; a second feed keeps a device up", () => {
  const plan = bramblewick();
  const named = (name: string) => must([...plan.device.values()].find((device) => device.name === name), name);
  const fed = donePlan(afterEdit(plan, ({ draft }) => { for (const name of ["Tank farm switch", "Bottling hall switch"]) draft.patch("device", named(name).id, { feed: "circuit 7" }); }));
  const failure: Failure = { what: "feed", feed: "circuit 7" };
  expect(new FailureStudy(PlanIndex.of(fed)).fail([failure]).cutOff.length).toBe(8);
  const doubled = donePlan(afterEdit(fed, ({ draft }) => draft.patch("device", named("Tank farm switch").id, { backupFeed: "circuit 9" })));
  expect(new FailureStudy(PlanIndex.of(doubled)).fail([failure]).cutOff.length).toBe(4);
  expect(singleFailures(PlanIndex.of(doubled)).filter((one) => one.what === "feed").length).toBe(2);
});
