import { FABRIC } from "../fabric";
import { must } from "../kernel";
import {
  afterEdits,
  applyChanges,
  BLANK_SIGN_IN,
  BLANK_SSID,
  NO_GUARDS,
  PlanEdits,
  PlanIndex,
  type Plan,
  type Port,
} from "../plan";
import {
  aDevice,
  aDomain,
  aHost,
  aLink,
  anInterface,
  aPort,
  aSegment,
  aVlan,
  aZone,
  planWith,
  testId,
} from "../testing/build-plan";
import { v } from "../testing/written";
import { USES } from "./uses";

const LETTERS = ["A", "B", "C"];
const deviceId = (letter: string) => testId("device", letter);
const [hall, zone] = [aDomain(), aZone()];
const edge = { ...NO_GUARDS, edge: true };
const vlan10 = aVlan({ vid: v(10) });
const vlan20 = aVlan({ vid: v(20) });
const crew = aSegment({ name: "Crew", vlan: vlan10.id });
const visitors = aSegment({ name: "Visitors", vlan: vlan20.id });

const port = (end: string, more: Partial<Port>): Port =>
  aPort({ device: deviceId(end.slice(0, 1)), label: end.slice(1), ...more });
const access = (end: string, vid: number, more: Partial<Port> = {}): Port =>
  port(end, { pvid: v(vid), untagged: [v(vid)], ...more });
const hostAt = (name: string, { id }: Port, tag: number | null = null) =>
  aHost({ name, attachment: { at: "port", port: id }, tag: tag === null ? null : v(tag) });

type Parts = Parameters<typeof planWith>[0];
/** Three switches of one domain, and what is said beside them. */
const planOf = ({ device, ...parts }: Parts): Plan =>
  planWith({
    ...{ domain: [hall], zone: [zone], vlan: [vlan10, vlan20], segment: [crew, visitors] },
    device: device ?? LETTERS.map((name) => aDevice({ name, domain: hall.id })),
    ...parts,
  });
/** The users of each VLAN as "10: A B*", the gateway with a star. */
function told(index: PlanIndex): string[] {
  const { deviceNumber } = index.derived(FABRIC);
  const letterOf = (device: number) =>
    must(
      LETTERS.find((letter) => deviceNumber.get(deviceId(letter)) === device),
      "a letter",
    );
  return [...index.derived(USES)]
    .sort(([a], [b]) => a - b)
    .map(([vid, users]) =>
      [`${vid}:`, ...users.map(({ device, gateway }) => letterOf(device) + (gateway ? "*" : "")).sort()].join(
        " ",
      ),
    );
}
const users = (parts: Parts) => told(PlanIndex.of(planOf(parts)));

describe("a port uses", () => {
  test("its VLAN where something is plugged in or end devices are meant to be", () => {
    const [full, empty, meant] = [access("A1", 10), access("B1", 10), access("C1", 20, { guards: edge })];
    expect(users({ port: [full, empty, meant], host: [hostAt("Till", full)] })).toEqual(["10: A", "20: C"]);
  });

  test("its voice VLAN beside the other", () => {
    expect(users({ port: [access("A1", 10, { tagged: [v(20)], guards: edge })] })).toEqual([
      "10: A",
      "20: A",
    ]);
  });

  test("of a trunk only the tags that what is plugged in sends, and that it carries", () => {
    const trunk = access("A1", 10, { tagged: [v(20), v(30)] });
    expect(users({ port: [trunk] })).toEqual([]);
    const hosts = [hostAt("Server", trunk, 20), hostAt("Plain", trunk), hostAt("Lost", trunk, 40)];
    expect(users({ port: [trunk], host: hosts })).toEqual(["20: A"]);
    expect(users({ port: [access("A1", 10)], host: [hostAt("Server", access("A1", 10), 20)] })).toEqual([
      "10: A",
    ]);
  });

  test("none towards another switch, and none of gear that knows no VLANs", () => {
    const [a, b] = [access("A1", 10, { guards: edge }), access("B1", 10, { guards: edge })];
    expect(users({ port: [a, b] })).toEqual(["10: A B"]);
    expect(users({ port: [a, b], link: [aLink({ a: a.id, b: b.id })] })).toEqual([]);
    const device = LETTERS.map((name) =>
      aDevice({ name, domain: hall.id, bridging: name === "A" ? "plain" : "vlan" }),
    );
    expect(users({ device, port: [a, b] })).toEqual(["10: B"]);
  });

  test("none that is parked or a rescue port's, in that domain", () => {
    const yard = aDomain({ id: testId("domain", "yard"), name: "Yard" });
    const device = LETTERS.map((name) => aDevice({ name, domain: name === "C" ? yard.id : hall.id }));
    const ports = LETTERS.flatMap((letter) => [
      access(`${letter}1`, 10, { guards: edge }),
      access(`${letter}2`, 20, { guards: edge }),
    ]);
    const purposes = (ten: typeof vlan10.purpose, twenty: typeof vlan10.purpose) =>
      users({
        ...{ domain: [hall, yard], device, port: ports },
        vlan: [
          { ...vlan10, purpose: ten },
          { ...vlan20, purpose: twenty },
        ],
      });
    expect(purposes("segment", "transit")).toEqual(["10: A B C", "20: A B C"]);
    expect(purposes("parked", "segment")).toEqual(["10: C", "20: A B C"]);
    expect(purposes("segment", "wayBack")).toEqual(["10: A B C", "20: C"]);
    const parked = [{ ...vlan10, purpose: "parked" as const }, vlan20];
    expect(users({ vlan: parked, port: ports })).toEqual(["20: A B C"]);
  });
});

test("the users of a VLAN stand in the order of their devices, ports' and legs' alike", () => {
  for (const [atPort, byLeg] of [
    ["A", "B"],
    ["B", "A"],
  ] as const) {
    const leg = anInterface({ device: deviceId(byLeg), name: "leg", segment: crew.id });
    const port = access(`${atPort}1`, 10, { guards: edge });
    const index = PlanIndex.of(planOf({ port: [port], interface: [leg] }));
    const devices = (index.derived(USES).get(10) ?? []).map(({ device }) => device);
    expect(devices).toHaveLength(2);
    expect(devices).toEqual([...devices].sort((a, b) => a - b));
  }
});

describe("gear uses", () => {
  const leg = (letter: string, more: Parameters<typeof anInterface>[0] | object = {}) =>
    anInterface({ device: deviceId(letter), name: "leg", segment: crew.id, ...more });

  test("the VLANs of its legs; the one that clients are given is the gateway", () => {
    const legs = [leg("A"), leg("B")];
    expect(users({ interface: legs })).toEqual(["10: A B"]);
    const segment = [{ ...crew, gatewayInterface: must(legs[1], "B's").id }, visitors];
    expect(users({ interface: legs, segment })).toEqual(["10: A B*"]);
    // A second leg in the VLAN, which is no gateway, takes nothing from the first, whichever is asked first.
    const more = leg("B", { id: testId("interface", "more"), name: "more" });
    for (const { id } of [must(legs[1], "B's"), more])
      expect(
        users({ interface: [...legs, more], segment: [{ ...crew, gatewayInterface: id }, visitors] }),
      ).toEqual(["10: A B*"]);
    expect(users({ interface: legs, segment, port: [access("B1", 10, { guards: edge })] })).toEqual([
      "10: A B*",
    ]);
  });

  test("none for a leg without a segment or a VLAN, at a port of its own, or of gear without VLANs", () => {
    const own = port("A1", {});
    const bare = aSegment({ name: "Bare", vlan: null, mark: "BR" });
    expect(users({ interface: [leg("A", { segment: null })] })).toEqual([]);
    expect(users({ segment: [bare], interface: [leg("A", { segment: bare.id })] })).toEqual([]);
    expect(users({ port: [own], interface: [leg("A", { port: own.id })] })).toEqual([]);
    const device = [aDevice({ name: "A", domain: hall.id, bridging: "none" })];
    expect(users({ device, interface: [leg("A")] })).toEqual([]);
  });

  test("where a port asks for a sign-in, every VLAN that the answer may be", () => {
    const profile = {
      ...BLANK_SIGN_IN,
      id: testId("signIn", "one"),
      name: "One",
      failed: v(20),
      visitors: v(30),
    };
    const asks = { ...NO_GUARDS, signIn: true };
    const asking = port("A1", { guards: asks });
    expect(users({ signIn: [profile], port: [asking] })).toEqual(["20: A", "30: A"]);
    expect(users({ signIn: [profile], port: [port("A1", {})] })).toEqual([]);
    expect(users({ port: [asking] })).toEqual([]);
    const device = [aDevice({ name: "A", domain: hall.id, bridging: "plain" })];
    expect(users({ device, signIn: [profile], port: [asking] })).toEqual([]);
  });

  test("those of the wireless names that it offers, where it knows VLANs", () => {
    const name = { ...BLANK_SSID, id: testId("ssid", "s"), name: "Ward", segment: crew.id };
    const device = LETTERS.map((letter) =>
      aDevice({
        ...{ name: letter, domain: hall.id, kind: letter === "C" ? "switch" : "accessPoint" },
        bridging: letter === "B" ? "plain" : "vlan",
      }),
    );
    expect(users({ device, ssid: [name] })).toEqual(["10: A"]);
    expect(users({ device, ssid: [{ ...name, moreSegments: [visitors.id] }] })).toEqual(["10: A", "20: A"]);
    expect(users({ device, ssid: [{ ...name, at: [deviceId("B")] }] })).toEqual([]);
  });
});

describe("after an edit", () => {
  const ports = [
    access("A1", 10, { guards: edge }),
    access("A2", 10, { guards: edge }),
    access("B1", 10, { guards: edge }),
    access("B2", 20, { guards: edge }),
  ];
  const trunk = port("C1", { tagged: [v(10), v(20)] });
  const server = hostAt("Server", trunk, 20);
  const begun = () => {
    const index = PlanIndex.of(planOf({ port: [...ports, trunk], host: [server] }));
    expect(told(index)).toEqual(["10: A B", "20: B C"]);
    return index;
  };
  const after = (index: PlanIndex, edit: (edits: PlanEdits) => void): PlanIndex => {
    const edits = new PlanEdits(index.plan);
    edit(edits);
    const next = must(afterEdits(index, edits), "an edit");
    expect(told(next)).toEqual(told(PlanIndex.of(next.plan)));
    return next;
  };
  const moved = (at: number, vid: number) => (edits: PlanEdits) =>
    edits.patch("port", must(ports[at], "a port").id, { pvid: v(vid), untagged: [v(vid)] });

  test("of a port its device goes on using the VLAN for as long as another port does", () => {
    const once = after(begun(), moved(0, 20));
    expect(told(once)).toEqual(["10: A B", "20: A B C"]);
    const twice = after(once, moved(1, 20));
    expect(told(twice)).toEqual(["10: B", "20: A B C"]);
    expect(told(after(twice, moved(2, 30)))).toEqual(["20: A B C", "30: B"]);
  });

  test("of a host's tag or place it is asked anew; of another field of it nothing changes", () => {
    const index = begun();
    expect(told(after(index, (edits) => edits.patch("host", server.id, { tag: v(10) })))).toEqual([
      "10: A B C",
      "20: B",
    ]);
    const attachment = { at: "port" as const, port: must(ports[0], "A1").id };
    expect(told(after(index, (edits) => edits.patch("host", server.id, { attachment })))).toEqual([
      "10: A B",
      "20: B",
    ]);
    expect(told(after(index, (edits) => edits.remove("host", server.id)))).toEqual(["10: A B", "20: B"]);
    const named = after(index, (edits) => edits.patch("host", server.id, { name: "Store" }));
    expect(named.derived(USES).get(20)).toBe(index.derived(USES).get(20));
  });

  test("of a cable, a port that comes or one that goes it is asked anew", () => {
    const index = begun();
    const [a, , b] = ports;
    const cable = aLink({ a: must(a, "A1").id, b: must(b, "B1").id });
    expect(told(after(index, (edits) => edits.put("link", cable)))).toEqual(["10: A", "20: B C"]);
    const fresh = access("C2", 10, { guards: edge });
    const more = after(index, (edits) => edits.put("port", fresh));
    expect(told(more)).toEqual(["10: A B C", "20: B C"]);
    expect(told(after(more, (edits) => edits.remove("port", fresh.id)))).toEqual(["10: A B", "20: B C"]);
  });

  test("of a host that is plugged in nowhere nothing changes, whether it comes or goes", () => {
    const loose = aHost({ name: "Loose", tag: v(10) });
    const more = after(begun(), (edits) => edits.put("host", loose));
    expect(told(more)).toEqual(["10: A B", "20: B C"]);
    expect(told(after(more, (edits) => edits.remove("host", loose.id)))).toEqual(["10: A B", "20: B C"]);
  });

  test("of a port, or of a host's other fields, what the edit does not name is not asked again", () => {
    const index = begun();
    const following = (edit: (edits: PlanEdits) => void): string[] => {
      const named = new PlanEdits(index.plan);
      edit(named);
      const all = new PlanEdits(index.plan);
      edit(all);
      // Nobody says that this has changed, too: who asks everything anew finds it.
      all.patch("host", server.id, { tag: v(10) });
      const both = applyChanges(index.plan, all.changes());
      return told(index.derive(must(both.ok ? both.value : null, "applies"), named.changes()));
    };
    expect(following(moved(0, 30))).toEqual(["10: A B", "20: B C", "30: A"]);
    expect(following((edits) => edits.patch("host", server.id, { name: "Store" }))).toEqual([
      "10: A B",
      "20: B C",
    ]);
    expect(following((edits) => edits.patch("device", deviceId("A"), { place: "Loft" }))).toEqual([
      "10: A B",
      "20: B C",
    ]);
  });

  test("a VLAN whose users stay the same keeps its list", () => {
    const index = begun();
    const next = after(index, moved(0, 20));
    expect(next.derived(USES).get(10)).toBe(index.derived(USES).get(10));
    expect(next.derived(USES).get(20)).not.toBe(index.derived(USES).get(20));
    const leg = anInterface({ device: deviceId("A"), name: "leg", segment: crew.id });
    const gateway = after(index, (edits) => {
      edits.put("interface", leg);
      edits.patch("segment", crew.id, { gatewayInterface: leg.id });
    });
    expect(told(gateway)).toEqual(["10: A* B", "20: B C"]);
    expect(gateway.derived(USES).get(20)).toBe(index.derived(USES).get(20));
    // As many users, others: in one edit, and in two.
    const swapped = after(index, (edits) => {
      moved(3, 10)(edits);
      moved(0, 20)(edits);
    });
    expect(told(swapped)).toEqual(["10: A B", "20: A C"]);
    const other = after(after(index, moved(3, 10)), (edits) =>
      edits.patch("port", must(ports[1], "A2").id, { pvid: v(20), untagged: [v(20)] }),
    );
    expect(told(other)).toEqual(["10: A B", "20: A C"]);
  });
});
