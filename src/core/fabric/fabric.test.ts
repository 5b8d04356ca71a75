import { must } from "../kernel";
import {
  applyChanges,
  PlanEdits,
  PlanIndex,
  USUAL_ABILITIES,
  type Change,
  type Device,
  type Host,
  type Interface,
  type Plan,
  type Port,
} from "../plan";
import { aDevice, aHost, aLink, anInterface, aPort, planWith } from "../testing/build-plan";
import { v } from "../testing/written";
import { FABRIC, gearAmong, hearersOn, membersAt, sharedWires, type Fabric } from ".";

const MILL = aDevice({ name: "Mill" });
const BARN = aDevice({ name: "Barn" });
const BOX = aDevice({ name: "Box", bridging: "plain" });
const POINT = aDevice({ name: "Point", bridging: "none", kind: "gateway" });
const port = (device: Device, label: string, fields: Partial<Port> = {}) =>
  aPort({ device: device.id, label, ...fields });

interface Parts {
  readonly ports: readonly Port[];
  readonly links?: readonly (readonly [Port, Port])[];
  readonly hosts?: readonly Host[];
  readonly legs?: readonly Interface[];
  readonly lags?: Plan["lag"] extends ReadonlyMap<string, infer L> ? readonly L[] : never;
  readonly devices?: readonly Device[];
}
const planOf = ({ ports, links = [], hosts = [], legs = [], lags = [], devices }: Parts): Plan =>
  planWith({
    device: devices ?? [MILL, BARN, BOX, POINT],
    port: ports,
    link: links.map(([a, b]) => aLink({ a: a.id, b: b.id })),
    host: hosts,
    interface: legs,
    lag: lags,
  });

/** The wires that something is on, in words: bridge ports, routed ports in brackets, hosts behind a dash. */
const wiresOf = (fabric: Fabric): string[] => {
  const name = (n: number) => {
    const at = must(fabric.ports[n], "a port");
    return `${must(fabric.devices[fabric.deviceOf[n] ?? -1], "a device").name} ${at.label}`;
  };
  return fabric.wires
    .map(({ bridgePorts, routedPorts, hosts }) =>
      [
        ...bridgePorts.map(name).sort(),
        ...routedPorts.map((n) => `[${name(n)}]`).sort(),
        ...(hosts.length === 0 ? [] : [`- ${hosts.length}`]),
      ].join(", "),
    )
    .sort();
};
const fabricOf = (parts: Parts): Fabric => PlanIndex.of(planOf(parts)).derived(FABRIC);

const [m1, m2, m3] = [port(MILL, "1"), port(MILL, "2"), port(MILL, "3")];
const [b1, b2, b3] = [port(BARN, "1"), port(BARN, "2"), port(BARN, "3")];

describe("what is one wire", () => {
  test("a cable between two switches; a port without one is a wire of its own", () => {
    expect(wiresOf(fabricOf({ ports: [m1, m2, b1], links: [[m1, b1]] }))).toEqual([
      "Barn 1, Mill 1",
      "Mill 2",
    ]);
  });

  test("nothing at a port that is off, and its far end hears nobody", () => {
    const off = { ...m1, enabled: false };
    const fabric = fabricOf({ ports: [off, b1], links: [[off, b1]] });
    expect(wiresOf(fabric)).toEqual(["Barn 1"]);
    expect(fabric.wireOf[must(fabric.portNumber.get(m1.id), "a number")]).toBe(-1);
    expect(fabric.bridgePortsOf[must(fabric.deviceNumber.get(MILL.id), "a number")]).toEqual([]);
    const farOff = { ...b1, enabled: false };
    expect(wiresOf(fabricOf({ ports: [m1, farOff], links: [[m1, farOff]] }))).toEqual(["Mill 1"]);
  });

  test("gear that knows no VLANs joins its working ports and is no bridge port itself", () => {
    const [x, y, z] = [port(BOX, "1"), port(BOX, "2"), port(BOX, "3", { enabled: false })];
    const links = [
      [m1, x],
      [b1, y],
      [m2, z],
    ] as const;
    expect(wiresOf(fabricOf({ ports: [m1, m2, b1, x, y, z], links }))).toEqual(["Barn 1, Mill 1", "Mill 2"]);
  });

  test("gear that bridges nothing joins nothing", () => {
    const [x, y] = [port(POINT, "1"), port(POINT, "2")];
    const links = [
      [m1, x],
      [b1, y],
    ] as const;
    expect(wiresOf(fabricOf({ ports: [m1, b1, x, y], links }))).toEqual(["Barn 1", "Mill 1"]);
  });

  test("the working members of a LAG are one bridge port: the first on the case", () => {
    const lag = {
      id: "00000000-0000-4000-8000-000000000001",
      device: MILL.id,
      name: "Up",
      mode: "active" as const,
    };
    const far = { ...lag, id: "00000000-0000-4000-8000-000000000002", device: BARN.id };
    const near = [m1, m2, m3].map((port, i) => ({ ...port, lag: lag.id, position: 9 - i, enabled: i < 2 }));
    const [n1, n2, n3] = [must(near[0], "it"), must(near[1], "it"), must(near[2], "it")];
    const [f1, f2] = [b1, b2].map((port) => ({ ...port, lag: far.id }));
    const links = [
      [n1, must(f1, "it")],
      [n2, must(f2, "it")],
      [n3, b3],
    ] as const;
    const fabric = fabricOf({
      ports: [n1, n2, n3, must(f1, "it"), must(f2, "it"), b3],
      links,
      lags: [lag, far],
    });
    // Port 3 is the first of all on the case, and off.
    expect(wiresOf(fabric)).toEqual(["Barn 1, Mill 2", "Barn 3"]);
  });

  test("among members at one place on the case the lower id stands for the LAG", () => {
    const lag = {
      id: "00000000-0000-4000-8000-000000000001",
      device: MILL.id,
      name: "Up",
      mode: "active" as const,
    };
    const members = [m1, m2].map((port) => ({ ...port, lag: lag.id, position: 4 }));
    const [first] = [...members].sort((a, b) => (a.id < b.id ? -1 : 1));
    for (const ports of [members, [...members].reverse()])
      expect(wiresOf(fabricOf({ ports, lags: [lag] }))).toEqual([`Mill ${must(first, "one").label}`]);
  });

  test("a port with a leg of its own is routed, whatever its device does", () => {
    const leg = anInterface({ device: MILL.id, name: "leg", port: m1.id });
    const fabric = fabricOf({ ports: [m1, b1], links: [[m1, b1]], legs: [leg] });
    expect(wiresOf(fabric)).toEqual(["Barn 1, [Mill 1]"]);
    expect(fabric.bridgePortsOf[must(fabric.deviceNumber.get(MILL.id), "a number")]).toEqual([]);
  });

  test("hosts in a port, and those behind them", () => {
    const phone = aHost({ name: "Phone", attachment: { at: "port", port: m1.id } });
    const pc = aHost({ name: "PC", attachment: { at: "behind", host: phone.id } });
    const alone = aHost({ name: "Alone" });
    const fabric = fabricOf({ ports: [m1, m2], hosts: [phone, pc, alone] });
    expect(wiresOf(fabric)).toEqual(["Mill 1, - 2", "Mill 2"]);
    expect(new Set(fabric.wires.flatMap(({ hosts }) => hosts))).toEqual(new Set([phone.id, pc.id]));
  });
});

test("numbers lead from ids to things and back", () => {
  const fabric = fabricOf({ ports: [m1, b1, m2] });
  for (const { id, device } of [m1, b1, m2]) {
    const n = must(fabric.portNumber.get(id), "a number");
    expect(fabric.ports[n]?.id).toBe(id);
    expect(fabric.devices[fabric.deviceOf[n] ?? -1]?.id).toBe(device);
  }
  expect([...fabric.deviceNumber].map(([id, n]) => fabric.devices[n]?.id === id)).toEqual([
    true,
    true,
    true,
    true,
  ]);
});

test("ports of gear that drops its own tag are met so, and only they", () => {
  const drops = { ...MILL, abilities: { ...USUAL_ABILITIES, ownTag: "drop" as const } };
  const fabric = fabricOf({ ports: [m1, b1], devices: [drops, BARN] });
  expect(fabric.ports.map(({ id, dropsOwnTag }) => [id, dropsOwnTag]).sort()).toEqual(
    [
      [m1.id, true],
      [b1.id, undefined],
    ].sort(),
  );
});

test("wires that gear shares are those with two bridge ports or more, asked once", () => {
  const fabric = fabricOf({ ports: [m1, m2, b1], links: [[m1, b1]] });
  const shared = sharedWires(fabric);
  expect(shared.map((n) => fabric.wires[n]?.bridgePorts.length)).toEqual([2]);
  expect(sharedWires({ wires: fabric.wires })).toBe(shared);
});

test("a frame goes on where a wire has another bridge port or a routed one", () => {
  const fabric = fabricOf({ ports: [m1, m2, b1], links: [[m1, b1]] });
  const hearers = hearersOn(fabric);
  const isShared = fabric.wires.map(({ bridgePorts }) => (bridgePorts.length === 2 ? 1 : 0));
  expect([...hearers.onward]).toEqual(isShared);
  expect(isShared).toContain(0);
  expect(hearersOn({ wires: fabric.wires })).toBe(hearers);
  const wire = { bridgePorts: [0], routedPorts: [], hosts: [], legs: [] };
  const wires = [wire, { ...wire, routedPorts: [1] }, { ...wire, legs: ["leg"] }];
  const { onward, legs } = hearersOn({ wires });
  expect([[...onward], [...legs]]).toEqual([
    [0, 1, 0],
    [0, 0, 1],
  ]);
});

test("those of some members that lead to gear, asked once", () => {
  const fabric = fabricOf({ ports: [m1, m2, b1], links: [[m1, b1]] });
  const members = [0, 1].map((port) => ({ port, tag: null }));
  const found = gearAmong(fabric, members);
  expect(found.map(({ port }) => fabric.ports[port]?.id)).toEqual([m1.id]);
  expect(gearAmong(fabric, members)).toBe(found);
});

test("members of a VLAN at a device: what is in both lists leaves untagged, and once", () => {
  const both = { ...m1, untagged: [v(10)], tagged: [v(10), v(20)] };
  const twice = { ...m2, tagged: [v(20), v(20)] };
  const off = { ...m3, tagged: [v(20)], enabled: false };
  const fabric = fabricOf({ ports: [both, twice, off] });
  const at = (n: number) =>
    membersAt(fabric, must(fabric.deviceNumber.get(MILL.id), "a number"), n)
      .map(({ port: p, tag }) => `${fabric.ports[p]?.label} ${tag}`)
      .sort();
  expect(at(10)).toEqual(["1 null"]);
  expect(at(20)).toEqual(["1 20", "2 20"]);
  expect(at(30)).toEqual([]);
});

describe("after an edit", () => {
  const phone = aHost({ name: "Phone", attachment: { at: "port", port: m2.id } });
  const base = planOf({
    ports: [m1, m2, b1, b2],
    links: [[m1, b1]],
    hosts: [phone],
    devices: [{ ...MILL, abilities: { ...USUAL_ABILITIES, ownTag: "drop" } }, BARN, BOX, POINT],
  });
  const edited = (edit: (edits: PlanEdits) => void): { before: Fabric; after: Fabric; anew: Fabric } => {
    const index = PlanIndex.of(base);
    const before = index.derived(FABRIC);
    membersAt(before, 0, 10);
    membersAt(before, 1, 10);
    const edits = new PlanEdits(index.plan);
    edit(edits);
    const changes: Change[] = edits.changes();
    const applied = applyChanges(index.plan, changes);
    const plan = must(applied.ok ? applied.value : null, "applies");
    const after = index.derive(plan, changes).derived(FABRIC);
    return { before, after, anew: PlanIndex.of(plan).derived(FABRIC) };
  };
  const bare = ({ members: _members, ...fabric }: Fabric) => fabric;

  test.each<[string, boolean, (edits: PlanEdits) => void]>([
    ["a port's VLANs", true, (edits) => edits.patch("port", m1.id, { tagged: [v(20)] })],
    ["a port's words", true, (edits) => edits.patch("port", b1.id, { note: "to the mill" })],
    ["a host's name", true, (edits) => edits.patch("host", phone.id, { name: "Desk phone" })],
    [
      "a host plugged elsewhere",
      false,
      (edits) => edits.patch("host", phone.id, { attachment: { at: "unplaced" } }),
    ],
    [
      "an address inside gear that knows VLANs",
      true,
      (edits) => edits.put("interface", anInterface({ device: MILL.id, name: "More" })),
    ],
    [
      "an address at a port",
      false,
      (edits) => edits.put("interface", anInterface({ device: MILL.id, name: "Out", port: m2.id })),
    ],
    [
      "an address of gear without VLANs",
      false,
      (edits) => edits.put("interface", anInterface({ device: BOX.id, name: "More" })),
    ],
    ["a port switched off", false, (edits) => edits.patch("port", m1.id, { enabled: false })],
    ["a port moved to another device", false, (edits) => edits.patch("port", b2.id, { device: MILL.id })],
    ["a device's place", true, (edits) => edits.patch("device", MILL.id, { place: "Hall" })],
    ["a device without VLANs now", false, (edits) => edits.patch("device", MILL.id, { bridging: "plain" })],
    [
      "a device that takes what has the tag of the port's own VLAN",
      false,
      (edits) => edits.patch("device", MILL.id, { abilities: { ...USUAL_ABILITIES, ownTag: "accept" } }),
    ],
    ["a cable pulled", false, (edits) => edits.remove("link", must([...base.link.keys()][0], "a link"))],
    ["a port more", false, (edits) => edits.put("port", port(BARN, "9"))],
    ["a host more", false, (edits) => edits.put("host", aHost({ name: "New" }))],
  ])("%s: the wires stay %p, and all is as if compiled anew", (_, stays, edit) => {
    const { before, after, anew } = edited(edit);
    expect(bare(after)).toEqual(bare(anew));
    expect(after.wires === before.wires).toBe(stays);
  });

  test("numbers stay those of their ports and devices, in whatever order the edited plan has them", () => {
    const index = PlanIndex.of(base);
    const before = index.derived(FABRIC);
    const edits = new PlanEdits(index.plan);
    edits.patch("device", MILL.id, { place: "Hall" });
    const applied = applyChanges(base, edits.changes());
    const plan = must(applied.ok ? applied.value : null, "applies");
    const turned = {
      ...plan,
      port: new Map([...plan.port].reverse()),
      device: new Map([...plan.device].reverse()),
    };
    const after = index.derive(turned, edits.changes()).derived(FABRIC);
    for (const [id, number] of after.portNumber) expect(after.ports[number]?.id).toBe(id);
    for (const [id, number] of after.deviceNumber) expect(after.devices[number]?.id).toBe(id);
    expect([after.portNumber, after.wireOf, after.deviceOf]).toEqual([
      before.portNumber,
      before.wireOf,
      before.deviceOf,
    ]);
    expect(after.devices.find(({ id }) => id === MILL.id)?.place).toBe("Hall");
  });

  test("the members of the device whose port was edited are found anew, those of another are kept", () => {
    const { before, after, anew } = edited((edits) => edits.patch("port", m1.id, { tagged: [v(10)] }));
    const [mill, barn] = [MILL, BARN].map(({ id }) => must(after.deviceNumber.get(id), "a number"));
    expect(membersAt(after, mill ?? -1, 10)).toEqual(membersAt(anew, mill ?? -1, 10));
    expect(membersAt(after, mill ?? -1, 10)).toHaveLength(1);
    expect(after.members.get(barn ?? -1)).toBe(before.members.get(barn ?? -1));
  });
});
