import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { must } from "../kernel";
import { asPrefix4, parseIpv4, parsePrefix } from "../address";
import { PlanIndex, USUAL_ABILITIES, type Plan } from "../plan";
import { asClient, probe } from "../probe";
import { carryExactly } from "../planners";
import { afterEdit, donePlan } from "../testing/after-edit";
import { broken } from "../testing/broken";
import {
  aDevice,
  aHost,
  aLink,
  anInterface,
  aPort,
  aSegment,
  aZone,
  planWith,
  testId,
} from "../testing/build-plan";
import { failureName, singleFailures, type Failure } from "./kinds";
import { FailureStudy, lostCount } from "./study";
import { lossWords, ranked, singlePoints } from "./summary";

const sites = { "the cider works": bramblewick, "the practice": fennelStreet, "the house": lockkeepersHouse };
const ids = () => "00000000-0000-7000-8000-000000000001";

test.each(Object.entries(sites))(
  "%s: who loses the gateway is what probes find on the plan with that thing switched off",
  (_, make) => {
    const plan = make();
    const index = PlanIndex.of(plan);
    const study = new FailureStudy(index);
    const asks = (on: PlanIndex, host: string) =>
      probe(on, asClient({ at: "host", host }, { to: "gateway", service: null }), ids).cause === null;
    const before = [...plan.host.keys()].filter((host) => asks(index, host));
    expect(before.length).toBeGreaterThan(5);
    for (const failure of singleFailures(index).filter((failure) => failure.what !== "line")) {
      const after = PlanIndex.of(broken(plan, failure));
      const lost = before.filter((host) => !asks(after, host)).sort();
      const { cutOff, noGateway } = study.fail([failure]);
      const name = failureName(index, failure);
      // A device that leases its address needs the server as well; both are counted here, since a probe asks
      // for one first.
      const found = [...cutOff, ...noGateway].filter((host) => before.includes(host)).sort();
      expect([name, found]).toEqual([name, lost]);
    }
  },
);

test("any one cable of the ring may fail; with the spare way's gap the bottling hall is cut off", () => {
  const plan = bramblewick();
  const cable = (label: string): Failure => ({
    what: "cable",
    id: must(
      [...plan.link.values()].find((link) => link.label === label),
      label,
    ).id,
  });
  const study = new FailureStudy(PlanIndex.of(plan));
  const gap = study.fail([cable("R5")]);
  expect(
    new Set(gap.noGateway.map((id) => plan.segment.get(plan.host.get(id)?.segment ?? "")?.name)),
  ).toEqual(new Set(["Bottling hall"]));
  expect(gap.takeOver.length).toBe(1);
  const whole = donePlan(afterEdit(plan, ({ edits, index }) => carryExactly(edits, index)));
  const sound = new FailureStudy(PlanIndex.of(whole));
  for (const label of ["R1", "R2", "R3", "R4", "R5"])
    expect([label, lostCount(sound.fail([cable(label)]))]).toEqual([label, 0]);
  // Two at once part the ring.
  expect(lostCount(sound.fail([cable("R1"), cable("R5")]))).toBeGreaterThan(0);
  expect(lossWords(sound.fail([cable("R1")]))).toBe(
    "Nobody loses anything. 1 port that stood by takes over.",
  );
});

test("the gateway comes first; a second line keeps the internet up; what has no second way is named", () => {
  const index = PlanIndex.of(lockkeepersHouse());
  const study = new FailureStudy(index);
  const losses = ranked(
    index,
    singleFailures(index).map((failure) => study.fail([failure])),
  );
  expect(losses[0]?.name).toMatch(/Gateway|Hall switch/);
  const lines = losses.filter((loss) => loss.failures[0]?.what === "line");
  expect(lines.map((loss) => loss.noInternet.length)).toEqual(lines.map(() => 0));
  expect(lines.length).toBe(2);
  const both = study.fail(lines.flatMap((loss) => loss.failures));
  expect(both.noInternet.length).toBeGreaterThan(0);
  const points = singlePoints(index, losses);
  expect(
    points.some(
      (point) => point.service === "gateway" && point.by.some((name) => name.includes("Hall switch")),
    ),
  ).toBe(true);
  expect(
    points.some((point) => point.service === "internet" && point.by.some((name) => name.includes("line"))),
  ).toBe(false);
});

test("a supply takes everything on it along; a second feed keeps a device up", () => {
  const plan = bramblewick();
  const named = (name: string) =>
    must(
      [...plan.device.values()].find((device) => device.name === name),
      name,
    );
  const fed = donePlan(
    afterEdit(plan, ({ edits }) => {
      for (const name of ["Tank farm switch", "Bottling hall switch"])
        edits.patch("device", named(name).id, { feed: "circuit 7" });
    }),
  );
  const failure: Failure = { what: "feed", feed: "circuit 7" };
  expect(new FailureStudy(PlanIndex.of(fed)).fail([failure]).cutOff.length).toBe(10);
  const doubled = donePlan(
    afterEdit(fed, ({ edits }) =>
      edits.patch("device", named("Tank farm switch").id, { backupFeed: "circuit 9" }),
    ),
  );
  expect(new FailureStudy(PlanIndex.of(doubled)).fail([failure]).cutOff.length).toBe(6);
  expect(singleFailures(PlanIndex.of(doubled)).filter((failure) => failure.what === "feed").length).toBe(2);
});

/** The practice with its addresses given by a host on Switch B, which the gateway relays to. */
function relayed(): Plan {
  const carried = donePlan(afterEdit(fennelStreet(), ({ edits, index }) => carryExactly(edits, index)));
  return donePlan(
    afterEdit(carried, ({ edits, index }) => {
      const server = must(
        edits
          .all("host")
          .find(
            ({ manner, ipv4, attachment }) =>
              manner !== "dynamic" &&
              ipv4 !== null &&
              attachment.at === "port" &&
              index.plan.device.get(index.plan.port.get(attachment.port)?.device ?? "")?.name === "Switch B",
          ),
        "a host on Switch B",
      );
      edits.patch("host", server.id, { manner: "typed" });
      // A server's answer to a relay is a new flow to the gateway's address: the wall there has to let it
      // through.
      const like = must(edits.all("wall")[0], "a wall");
      const zone = edits.need("segment", must(server.segment, "its segment")).zone;
      const own = edits
        .all("wall")
        .find((wall) => wall.from.at === "zone" && wall.from.zone === zone && wall.to.at === "gateway");
      edits.put("wall", {
        ...like,
        id: own?.id ?? testId("wall", "answers"),
        from: { at: "zone", zone },
        to: { at: "gateway" },
        door: "open",
        services: [],
      });
      for (const scope of edits.all("scope").filter(({ family }) => family === 4)) {
        edits.patch("scope", scope.id, { serverDevice: null, serverHost: server.id });
        const leg = index.gatewayOf(edits.need("segment", scope.segment));
        if (leg !== undefined && scope.segment !== server.segment)
          edits.patch("interface", leg.id, { relayTo: server.ipv4 });
      }
    }),
  );
}

test("a relay is not the server: when the server's cable dies, who leases finds none, as probes say", () => {
  const plan = relayed();
  const index = PlanIndex.of(plan);
  const study = new FailureStudy(index);
  const asks = (on: PlanIndex, host: string) =>
    probe(on, asClient({ at: "host", host }, { to: "gateway", service: null }), ids).cause === null;
  const before = [...plan.host.keys()].filter((host) => asks(index, host));
  expect(before.length).toBeGreaterThan(20);
  let waiting = 0;
  for (const failure of singleFailures(index).filter((failure) => failure.what !== "line")) {
    const after = PlanIndex.of(broken(plan, failure));
    const { cutOff, noGateway, noAddress } = study.fail([failure]);
    waiting += noAddress.filter((id) => !noGateway.includes(id)).length;
    const found = [...new Set([...cutOff, ...noGateway, ...noAddress])]
      .filter((host) => before.includes(host))
      .sort();
    expect([failureName(index, failure), found]).toEqual([
      failureName(index, failure),
      before.filter((host) => !asks(after, host)).sort(),
    ]);
  }
  expect(waiting).toBeGreaterThan(0);
});

test("a line that alone leads to the internet harms whoever goes there when it fails", () => {
  const index = PlanIndex.of(fennelStreet());
  const [line] = [...index.plan.line.values()];
  const [loss] = ranked(index, [
    new FailureStudy(index).fail([{ what: "line", id: must(line, "the line").id }]),
  ]);
  expect([loss?.lost, loss?.harmed, loss?.noInternet.length]).toEqual([
    0,
    loss?.noInternet.length,
    loss?.harmed,
  ]);
  expect(loss?.harmed).toBeGreaterThan(0);
});

test("behind a router's port, over plain gear, hosts lose what they have when it or its cable dies", () => {
  const [router, hub] = [
    aDevice({
      name: "Router",
      kind: "gateway",
      bridging: "none",
      abilities: { ...USUAL_ABILITIES, routes: true },
    }),
    aDevice({ name: "Plain switch", bridging: "plain" }),
  ];
  const port = (device: string, label: string) => aPort({ device, label, enabled: true });
  const [inside, up, a, b] = [port(router.id, "1"), port(hub.id, "1"), port(hub.id, "2"), port(hub.id, "3")];
  const home = aSegment({
    name: "Home",
    prefixes4: [must(asPrefix4(parsePrefix("10.9.0.0/24")), "a prefix")],
    planned: 2,
  });
  const leg = anInterface({
    device: router.id,
    name: "Home",
    port: inside.id,
    segment: home.id,
    addresses4: [must(parseIpv4("10.9.0.1"), "an address")],
  });
  const host = (name: string, at: string, last: number) =>
    aHost({
      name,
      segment: home.id,
      manner: "typed",
      ipv4: must(parseIpv4(`10.9.0.${last}`), "an address"),
      attachment: { at: "port", port: at },
    });
  const [one, two] = [host("pc-1", a.id, 10), host("pc-2", b.id, 11)];
  const cable = aLink({ a: inside.id, b: up.id });
  const plan = planWith({
    zone: [aZone()],
    device: [router, hub],
    port: [inside, up, a, b],
    segment: [{ ...home, gatewayInterface: leg.id }],
    interface: [leg],
    link: [cable],
    host: [one, two],
  });
  const index = PlanIndex.of(plan);
  expect(
    probe(index, asClient({ at: "host", host: one.id }, { to: "gateway", service: null }), ids).cause,
  ).toBeNull();
  const study = new FailureStudy(index);
  const lost = (failure: Failure) => {
    const { cutOff, noGateway } = study.fail([failure]);
    return [...cutOff, ...noGateway].sort();
  };
  const both = [one.id, two.id].sort();
  expect([
    lost({ what: "device", id: router.id }),
    lost({ what: "device", id: hub.id }),
    lost({ what: "cable", id: cable.id }),
  ]).toEqual([both, both, both]);
});

test("one dead strand in the ring: frames go round without a loop guard, and none do with one", () => {
  const plan = bramblewick();
  const index = PlanIndex.of(plan);
  const ring = [...plan.link.values()].filter(
    ({ medium, a, b }) =>
      medium === "fibre" &&
      [a, b].every((id) => plan.device.get(plan.port.get(id)?.device ?? "")?.tree.kind !== "none"),
  );
  expect(ring.length).toBeGreaterThan(1);
  // The works' uplinks have a loop guard: a strand is no worse than its cable there.
  expect(singleFailures(index).filter(({ what }) => what === "strand")).toEqual([]);
  const bare = donePlan(
    afterEdit(plan, ({ edits }) => {
      for (const port of edits.all("port"))
        if (port.guards.loopGuard)
          edits.patch("port", port.id, { guards: { ...port.guards, loopGuard: false } });
      return null;
    }),
  );
  const study = new FailureStudy(PlanIndex.of(bare));
  const strands = singleFailures(PlanIndex.of(bare)).filter(({ what }) => what === "strand");
  expect(strands).toHaveLength(2 * ring.length);
  const losses = strands.map((failure) => study.fail([failure]));
  const stormy = losses.filter(({ storms }) => storms.length > 0);
  expect(stormy.length).toBeGreaterThan(1);
  for (const loss of losses) {
    const [failure] = loss.failures;
    const link = failure?.what === "strand" ? PlanIndex.of(bare).linkAt(failure.id) : undefined;
    const asCable = study.fail([{ what: "cable", id: link?.id ?? "" }]);
    // Without a way round it is as if the whole cable were gone; with one it is worse than that.
    if (loss.storms.length === 0) expect({ ...loss, failures: [] }).toEqual({ ...asCable, failures: [] });
    else expect(lostCount(loss)).toBeGreaterThan(lostCount(asCable));
  }
  expect(lossWords(must(stormy[0], "a storm"))).toMatch(/^Frames go round in VLANs? \d+.* cut off/);
});
