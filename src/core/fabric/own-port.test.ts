import { must } from "../kernel";
import { PlanEdits, PlanIndex, afterEdits, type Device, type Interface, type Port } from "../plan";
import { aDevice, aLink, anInterface, aPort, planWith } from "../testing/build-plan";
import { v } from "../testing/written";
import { FABRIC, gearAmong, membersAt, ownPort, type Fabric } from ".";

// By which of its ports a device takes part itself, whose legs hang on which wire, and what of it is kept.

const MILL = aDevice({ name: "Mill" });
const BARN = aDevice({ name: "Barn" });
const [BOX, CRATE] = ["Box", "Crate"].map((name) => aDevice({ name, bridging: "plain" })) as [Device, Device];
const port = (device: Device, label: string, fields: Partial<Port> = {}) =>
  aPort({ device: device.id, label, position: Number(label), ...fields });
const [m1, m2, m3] = ["1", "2", "3"].map((label) =>
  port(MILL, label, { untagged: [v(10)], pvid: v(10) }),
) as [Port, Port, Port];
const [b1, b2] = ["1", "2"].map((label) => port(BARN, label, { tagged: [v(10)] })) as [Port, Port];
const [c1, c2] = ["1", "2"].map((label) => port(CRATE, label)) as [Port, Port];
const [x1, x2, x3] = ["1", "2", "3"].map((label) => port(BOX, label)) as [Port, Port, Port];

const indexOf = (
  ports: readonly Port[],
  links: readonly (readonly [Port, Port])[] = [],
  legs: readonly Interface[] = [],
): PlanIndex =>
  PlanIndex.of(
    planWith({
      device: [MILL, BARN, BOX, CRATE],
      port: ports,
      link: links.map(([a, b]) => aLink({ a: a.id, b: b.id })),
      interface: legs,
    }),
  );

describe("the port by which a device takes part", () => {
  test("is the first on the case with a cable", () => {
    const index = indexOf(
      [m1, m2, m3, b1, b2],
      [
        [b1, m3],
        [b2, m2],
      ],
    );
    expect(ownPort(index, MILL)).toBe(m2.id);
  });
  test("is none of a device that knows VLANs where no cable is, and any of one that knows none", () => {
    const index = indexOf([m1, m2, x1, x2]);
    expect(ownPort(index, MILL)).toBeNull();
    expect(ownPort(index, BOX)).toBe(x1.id);
    expect(ownPort(indexOf([m1]), BOX)).toBeNull();
  });
  test("is no port that is off, and none that has a leg of its own", () => {
    const off = { ...x1, enabled: false };
    const line = anInterface({ device: BOX.id, name: "line", port: x2.id });
    expect(ownPort(indexOf([off, x2, x3, m1], [[off, m1]]), BOX)).toBe(x2.id);
    expect(ownPort(indexOf([off, x2, x3, m1], [[x2, m1]], [line]), BOX)).toBe(x3.id);
    expect(ownPort(indexOf([off, x2], [], [line]), BOX)).toBeNull();
  });
});

describe("wires through gear without VLANs", () => {
  const wiresOf = (...parts: Parameters<typeof indexOf>) => {
    const { wireOf, portNumber } = indexOf(...parts).derived(FABRIC);
    return (asked: Port) => wireOf[must(portNumber.get(asked.id), "a number")];
  };

  test("each device's ports are one wire of its own", () => {
    const wire = wiresOf([x1, c1, x2, c2]);
    expect([wire(x1), wire(c1)]).toEqual([wire(x2), wire(c2)]);
    expect(wire(x1)).not.toBe(wire(c1));
  });
  test("a cable between two makes one of both, and a switch that knows VLANs parts them", () => {
    const joined = wiresOf([x1, c1, x2, c2], [[x2, c2]]);
    expect(joined(x1)).toBe(joined(c1));
    const links = [
      [x1, m1],
      [c1, m2],
    ] as const;
    const parted = wiresOf([x1, c1, x2, c2, m1, m2], links);
    expect([parted(x2), parted(c2)]).toEqual([parted(m1), parted(m2)]);
    expect(parted(x2)).not.toBe(parted(c2));
  });
});

describe("legs of gear without VLANs", () => {
  const own = anInterface({ device: BOX.id, name: "own" });
  const more = anInterface({ device: BOX.id, name: "more" });
  const line = anInterface({ device: BOX.id, name: "line", port: x3.id });
  const legsAt = (fabric: Fabric, id: string): readonly string[] =>
    fabric.wires[fabric.wireOf[fabric.portNumber.get(id) ?? -1] ?? -1]?.legs ?? [];

  test("hang on the wire of its ports, all of them, and not where a port has its own", () => {
    const fabric = indexOf([m1, x1, x2, x3], [[m1, x1]], [own, more, line]).derived(FABRIC);
    expect([...legsAt(fabric, m1.id)].sort()).toEqual([own.id, more.id].sort());
    expect(legsAt(fabric, x2.id)).toBe(legsAt(fabric, m1.id));
    expect(legsAt(fabric, x3.id)).toEqual([]);
  });
  test("hang nowhere where it has no working port, or knows VLANs", () => {
    const inside = anInterface({ device: MILL.id, name: "management" });
    const fabric = indexOf([m1, { ...x1, enabled: false }], [], [own, inside]).derived(FABRIC);
    expect(fabric.wires.flatMap(({ legs }) => legs)).toEqual([]);
  });
  test("are somebody who hears: a port that leads to nothing else leads to gear", () => {
    const fabric = indexOf([m1, m2, x1], [[m1, x1]], [own]).derived(FABRIC);
    const mill = must(fabric.deviceNumber.get(MILL.id), "a number");
    const to = gearAmong(fabric, membersAt(fabric, mill, 10));
    expect(to.map((member) => fabric.ports[member.port]?.id)).toEqual([m1.id]);
  });
});

describe("what was found of members", () => {
  const base = indexOf([m1, m2, b1, b2, x1], [[m1, b1]]);
  const [mill, barn] = [MILL, BARN].map(({ id }) =>
    must(base.derived(FABRIC).deviceNumber.get(id), "a number"),
  ) as [number, number];
  const after = (edit: (edits: PlanEdits) => void): Fabric => {
    for (const device of [mill, barn]) membersAt(base.derived(FABRIC), device, 10);
    const edits = new PlanEdits(base.plan);
    edit(edits);
    return must(afterEdits(base, edits), "a plan").derived(FABRIC);
  };
  const kept = (fabric: Fabric) =>
    [mill, barn].map((device) => {
      const found = base.derived(FABRIC).members.get(device);
      return found !== undefined && fabric.members.get(device) === found;
    });

  test.each<[string, readonly boolean[], (edits: PlanEdits) => void]>([
    [
      "a cable pulled",
      [true, true],
      (edits) => edits.remove("link", must([...base.plan.link.keys()][0], "it")),
    ],
    ["a port switched off", [false, true], (edits) => edits.patch("port", m2.id, { enabled: false })],
    [
      "a port that is routed now",
      [true, false],
      (edits) => edits.put("interface", anInterface({ device: BARN.id, name: "out", port: b2.id })),
    ],
    [
      "a cable pulled and a VLAN more",
      [true, false],
      (edits) => {
        edits.remove("link", must([...base.plan.link.keys()][0], "it"));
        edits.patch("port", b1.id, { tagged: [v(10), v(20)] });
      },
    ],
    [
      "a device that knows no VLANs now",
      [false, true],
      (edits) => edits.patch("device", MILL.id, { bridging: "plain" }),
    ],
  ])("%s: kept at the two devices: %j", (_, expected, edit) => {
    const fabric = after(edit);
    expect(kept(fabric)).toEqual(expected);
    for (const device of [mill, barn]) {
      const found = membersAt(fabric, device, 10).map((member) => fabric.ports[member.port]?.id);
      const working = fabric.bridgePortsOf[device] ?? [];
      expect(found.sort()).toEqual(
        working
          .map((at) => must(fabric.ports[at], "a port"))
          .filter(({ untagged, tagged }) => [...untagged, ...tagged].includes(v(10)))
          .map(({ id }) => id)
          .sort(),
      );
    }
  });

  test("a device and a port that are edited while a cable is pulled are the new ones", () => {
    const fabric = after((edits) => {
      edits.remove("link", must([...base.plan.link.keys()][0], "it"));
      edits.patch("device", MILL.id, { place: "Hall" });
      edits.patch("port", m1.id, { note: "spare" });
      edits.patch("port", x1.id, { note: "desk" });
    });
    expect(fabric.devices[mill]?.place).toBe("Hall");
    const noteOf = ({ id }: Port) => fabric.ports[must(fabric.portNumber.get(id), "a number")]?.note;
    expect([m1, x1, m2].map(noteOf)).toEqual(["spare", "desk", m2.note]);
    expect(fabric.devices[barn]).toBe(base.plan.device.get(BARN.id));
  });
});
