import { FABRIC } from "../fabric";
import { must } from "../kernel";
import { NO_GUARDS, PlanEdits, afterEdits, PlanIndex, type Plan, type Port } from "../plan";
import { aHost, anInterface } from "../testing/build-plan";
import { cabledGear, endId, letterId, type CabledGear } from "../testing/cabled-gear";
import { v } from "../testing/written";
import { flood, legsHearing, wayTo, type Flood, type Source } from "./flood";

const NONE = { tree: { kind: "none" } } as const;
const GEAR = { A: NONE, B: NONE, C: NONE };
const CHAIN = ["A1-B1", "B2-C1"];
const RING = [...CHAIN, "C2-A2"];
const access = (vid: number, more: Partial<Port> = {}): Partial<Port> => ({
  ...{ pvid: v(vid), untagged: [v(vid)], tagged: [] },
  ...more,
});
const ISOLATED = { guards: { ...NO_GUARDS, isolated: true } };

/** The plan of some gear with a host at each of the ends, called by it. */
function withHosts(gear: CabledGear, ends: readonly string[]): Plan {
  const edits = new PlanEdits(cabledGear(gear));
  for (const end of ends)
    edits.put("host", aHost({ name: end, attachment: { at: "port", port: endId(end) } }));
  return must(afterEdits(PlanIndex.of(edits.plan), edits), "a plan").plan;
}

/** What a flood comes to, in letters and ends: frames as "A1 10", one without a tag as "A9 -". */
function told(index: PlanIndex, result: Flood) {
  const { ports, devices } = index.derived(FABRIC);
  const letter = (device: number) => must(devices[device], "gear").name;
  const end = (port: number) => {
    const found = ports[port];
    return found === undefined
      ? ""
      : `${must(index.plan.device.get(found.device), "gear").name}${found.label}`;
  };
  const tag = (of: number | null) => String(of ?? "-");
  return {
    frames: result.emissions.map((frame) => `${end(frame.port)} ${tag(frame.tag)}`),
    arrivals: result.arrivals.map(({ device, port, vid }) => `${end(port) || letter(device)} ${vid}`),
    drops: result.drops.map(
      (drop) => `${end(drop.port)} ${tag(drop.tag)}${drop.standsBy ? " stands by" : ""}`,
    ),
    heard: result.heard.map(({ host, tag: of }) => `${host.name} ${tag(of)}`),
    routed: result.routed.map((at) => `${end(at.port)} ${tag(at.tag)}`),
  };
}
const NOTHING = { frames: [], arrivals: [], drops: [], heard: [], routed: [] };
const spread = (plan: Plan, source: Source) => {
  const index = PlanIndex.of(plan);
  return told(index, flood(index, source));
};
/** From an end, as whoever is plugged in there sends it. */
const from = (end: string, tag: number | null = null): Source => ({
  ...{ at: "port", port: endId(end), tag },
  host: aHost({ name: end }).id,
});

describe("a broadcast", () => {
  const ports = { A9: access(10), C9: access(10), C8: access(20) };
  const chain = withHosts({ gear: GEAR, cables: CHAIN, ports, tagged: [10, 20] }, ["A9", "C9", "C8"]);

  test("comes to all in its VLAN, and not back to who sent it", () => {
    expect(spread(chain, from("A9"))).toEqual({
      ...{ frames: [" -", "A1 10", "B2 10", "C9 -"], arrivals: ["A9 10", "B1 10", "C1 10"], drops: [] },
      ...{ heard: ["C9 -"], routed: [] },
    });
    expect(spread(chain, from("C8")).heard).toEqual([]);
  });

  test("of nobody who is known is heard by all at the port it comes in at, too", () => {
    const heard = spread(chain, { at: "port", port: endId("A9"), tag: null, host: null });
    expect(heard.heard).toEqual(["A9 -", "C9 -"]);
  });

  test("that is dropped where it comes in goes no further", () => {
    expect(spread(chain, from("A9", 30))).toEqual({
      ...NOTHING,
      ...{ frames: [" 30"], drops: ["A9 30"] },
    });
  });

  test("from inside a device goes out at all its ports, but at the one it came in by", () => {
    const inside = { at: "device", device: letterId("B"), vid: 10 } as const;
    expect(spread(chain, inside)).toMatchObject({
      ...{ frames: ["B1 10", "B2 10", "A9 -", "C9 -"], arrivals: ["B 10", "A1 10", "C1 10"] },
      heard: ["A9 -", "C9 -"],
    });
    expect(spread(chain, { ...inside, port: endId("B1") })).toMatchObject({
      ...{ frames: ["B2 10", "C9 -"], arrivals: ["B1 10", "C1 10"] },
    });
    expect(spread(chain, { ...inside, vid: 30 })).toEqual({ ...NOTHING, arrivals: ["B 30"] });
  });

  test("from a device or a port that is not there, or a port that is off, is nowhere", () => {
    expect(spread(chain, { at: "device", device: letterId("Z"), vid: 10 })).toEqual(NOTHING);
    expect(spread(chain, from("Z9"))).toEqual(NOTHING);
    const off = withHosts({ gear: GEAR, cables: CHAIN, ports: { A9: access(10, { enabled: false }) } }, [
      "A9",
    ]);
    expect(spread(off, from("A9"))).toEqual(NOTHING);
  });

  test("is dropped by an end that does not carry the VLAN, and by one that stands by", () => {
    const lacking = { A9: access(10), B1: { tagged: [v(20)] } };
    expect(spread(cabledGear({ gear: GEAR, cables: CHAIN, ports: lacking }), from("A9"))).toMatchObject({
      ...{ arrivals: ["A9 10"], drops: ["B1 10"] },
    });
    const ordered = { A: { tree: { priority: 0 } }, B: { tree: { priority: 4096 } }, C: {} };
    expect(spread(cabledGear({ gear: ordered, cables: RING, ports }), from("A9"))).toMatchObject({
      frames: [" -", "A1 10", "A2 10", "B2 10", "C9 -"],
      arrivals: ["A9 10", "B1 10", "C2 10"],
      drops: ["C1 10 stands by"],
    });
  });

  test("put on a cable between two switches comes in at both, and goes on from both", () => {
    const { frames, arrivals, heard } = spread(chain, from("A1", 10));
    expect([...frames].sort()).toEqual([" 10", "A9 -", "B2 10", "C9 -"]);
    expect([...arrivals].sort()).toEqual(["A1 10", "B1 10", "C1 10"]);
    expect([...heard].sort()).toEqual(["A9 -", "C9 -"]);
  });

  test("that leaks into another VLAN goes on in both over one cable", () => {
    const leaking = { A1: access(10), B1: access(20), A2: access(10), B3: access(10), ...ports };
    const cables = ["A1-B1", "A2-B3", "B2-C1"];
    const gear = { gear: GEAR, cables, ports: leaking, tagged: [10, 20] };
    const plan = withHosts(gear, ["A9", "C9", "C8"]);
    const { frames, heard } = spread(plan, from("A9"));
    expect(frames.filter((frame) => frame.startsWith("B2"))).toEqual(["B2 20", "B2 10"]);
    expect([...heard].sort()).toEqual(["C8 -", "C9 -"]);
  });

  test("goes once round a loop without a tree", () => {
    const { frames, arrivals } = spread(cabledGear({ gear: GEAR, cables: RING, ports }), from("A9"));
    expect(new Set(frames).size).toBe(frames.length);
    expect([...frames].sort()).toEqual([
      " -",
      "A1 10",
      "A2 10",
      "A9 -",
      "B1 10",
      "B2 10",
      "C1 10",
      "C2 10",
      "C9 -",
    ]);
    expect([...arrivals].sort()).toEqual(["A1 10", "A2 10", "A9 10", "B1 10", "B2 10", "C1 10", "C2 10"]);
  });

  test("passes between isolated ports of one device in neither direction, and between others and them", () => {
    const apart = { A7: access(10), A8: access(10, ISOLATED), A9: access(10, ISOLATED) };
    const plan = withHosts({ gear: { A: NONE }, cables: [], ports: apart }, ["A7", "A8", "A9"]);
    const heard = ["A7", "A8", "A9"].map((end) => [...spread(plan, from(end)).heard].sort());
    expect(heard).toEqual([["A8 -", "A9 -"], ["A7 -"], ["A7 -"]]);
    // An isolated one first or last asked of the same plan: as if alone.
    const index = PlanIndex.of(plan);
    const inTurn = ["A9", "A7", "A8"].map((end) => [...told(index, flood(index, from(end))).heard].sort());
    expect(inTurn).toEqual([["A7 -"], ["A8 -", "A9 -"], ["A7 -"]]);
  });

  test("is told of at a routed port, and goes no further there", () => {
    const routed = cabledGear({
      ...{ gear: GEAR, cables: CHAIN, ports: { ...ports, B1: {} } },
      interface: [anInterface({ device: letterId("B"), name: "leg", port: endId("B1") })],
    });
    expect(spread(routed, from("A9"))).toMatchObject({
      ...{ arrivals: ["A9 10"], routed: ["B1 10"], frames: [" -", "A1 10"] },
    });
  });
});

describe("asked singly", () => {
  const ports = { A9: access(10), C9: access(10), C8: access(20) };
  const index = PlanIndex.of(cabledGear({ gear: GEAR, cables: CHAIN, ports, tagged: [10, 20] }));
  const { wireOf, portNumber } = index.derived(FABRIC);
  const wireAt = (end: string) => wireOf[must(portNumber.get(endId(end)), end)] ?? -1;

  test("the first frame with a tag on a wire; none where there is none", () => {
    const result = flood(index, from("A9"));
    const first = (end: string, tag: number | null) => result.emission(result.firstOn(wireAt(end), tag));
    expect(first("A9", null)).toEqual({ port: -1, wire: wireAt("A9"), tag: null, after: -1 });
    expect(first("A1", 10)).toMatchObject({ port: portNumber.get(endId("A1")), tag: 10, after: 0 });
    expect(first("C9", null)).toMatchObject({ port: portNumber.get(endId("C9")), tag: null, after: 2 });
    for (const none of [first("A1", 20), first("A1", null), first("C9", 10), first("C8", null)])
      expect(none).toBeUndefined();
    // Whichever end of a cable sends it.
    const fromC = flood(index, from("C9"));
    expect(fromC.emission(fromC.firstOn(wireAt("A1"), 10))?.port).toBe(portNumber.get(endId("B1")));
    expect(fromC.emission(fromC.firstOn(wireAt("C1"), 10))?.port).toBe(portNumber.get(endId("C1")));
    expect(result.firstOn(99, null)).toBe(-1);
    expect(result.emission(99)).toBeUndefined();
  });

  test("the way to an arrival, from where it came in", () => {
    const result = flood(index, from("A9"));
    const way = (arrival: number) => wayTo(result, arrival).map(({ port }) => port);
    const numbers = ["A9", "B1", "C1"].map((end) => portNumber.get(endId(end)));
    expect([0, 1, 2, 3].map(way)).toEqual([numbers.slice(0, 1), numbers.slice(0, 2), numbers, []]);
    const inside = flood(index, { at: "device", device: letterId("B"), vid: 10 });
    expect(wayTo(inside, 2).map(({ port }) => port)).toEqual([-1, portNumber.get(endId("C1"))]);
  });

  test("what comes in at one port after another has its own first frame and way", () => {
    const two = { ...ports, A8: access(10) };
    const plan = PlanIndex.of(cabledGear({ gear: GEAR, cables: CHAIN, ports: two, tagged: [10, 20] }));
    const [first, second] = ["A9", "A8"].map((end) => flood(plan, from(end)));
    const fresh = flood(PlanIndex.of(plan.plan), from("A8"));
    expect(told(plan, must(second, "A8's"))).toEqual(told(plan, fresh));
    expect(told(plan, must(first, "A9's")).arrivals[0]).toBe("A9 10");
    expect(told(plan, fresh).arrivals[0]).toBe("A8 10");
  });
});

test("what comes in at ports of one device in one VLAN is spread once, and anew for all else", () => {
  const ports = { A6: access(20), A7: access(10, ISOLATED), A8: access(10), A9: access(10), B9: access(10) };
  const gear = { gear: { A: NONE, B: NONE }, cables: ["A1-B1"], ports, tagged: [10, 20] };
  const index = PlanIndex.of(cabledGear(gear));
  const { drops } = flood(index, from("A9"));
  const dropsFrom = (end: string, tag: number | null = null) => flood(index, from(end, tag)).drops;
  expect(dropsFrom("A9")).toBe(drops);
  expect(dropsFrom("A8")).toBe(drops);
  expect(dropsFrom("A8", 10)).toBe(drops);
  // Kept apart from others, in another VLAN, on another device, heard by gear as well, dropped at once.
  for (const other of [
    dropsFrom("A7"),
    dropsFrom("A6"),
    dropsFrom("B9"),
    dropsFrom("A1", 10),
    dropsFrom("A9", 30),
  ])
    expect(other).not.toBe(drops);
  expect(flood(PlanIndex.of(index.plan), from("A9")).drops).not.toBe(drops);
});

describe("legs of gear without VLANs hear", () => {
  const leg = anInterface({ device: letterId("B"), name: "leg" });
  const heard = (ports: CabledGear["ports"], end = "A9", cables = ["A1-B1"]) => {
    const gear = { A: NONE, B: { ...NONE, bridging: "plain" as const }, C: NONE };
    const index = PlanIndex.of(cabledGear({ gear, cables, ports: ports ?? {}, interface: [leg] }));
    const result = flood(index, from(end));
    return legsHearing(index.derived(FABRIC), result).map(({ leg: id, emission }) => [
      id,
      result.emission(emission)?.tag,
    ]);
  };

  test("what comes untagged, once, and nothing with a tag", () => {
    expect(heard({ A9: access(10), A1: access(10) })).toEqual([[leg.id, null]]);
    expect(heard({ A9: access(10), A1: { tagged: [v(10)] } })).toEqual([]);
    expect(heard({ A9: access(10), A1: access(20) })).toEqual([]);
    // C gets it by another cable, too, and sends it onto the same wire.
    const both = heard({ A9: access(10), A1: access(10), C1: access(10) }, "A9", [...CHAIN, "C2-A2"]);
    expect(both).toEqual([[leg.id, null]]);
  });

  test("what they hear of somebody on their own wire", () => {
    expect(heard({ A1: access(10) }, "A1")).toEqual([[leg.id, null]]);
  });
});
