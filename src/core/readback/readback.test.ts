import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { deviceData, yangText } from "../device-sheet";
import { formatAddress } from "../address";
import { must } from "../kernel";
import { PlanIndex, type Device, type Plan } from "../plan";
import { foundState, operationsBetween } from "../runbook";
import { setUpDevices } from "../runbook/found";
import { dice } from "../testing/plants";
import { testId } from "../testing/build-plan";
import { smallSite } from "../testing/small-sites";
import { driftBetween, driftTable, takenOf } from "./drift";
import { knowledgeOf } from "./knowledge";
import { layReading } from "./lay";
import { readDevice } from "./read-device";
import { seenIn, type Reading } from "./reading";

const ALL = knowledgeOf([], true);
const PRACTICE = PlanIndex.of(fennelStreet());
const SITES = [
  ["the practice", PRACTICE],
  ["the house", PlanIndex.of(lockkeepersHouse())],
  ["the works", PlanIndex.of(bramblewick())],
] as const;

const named = (index: PlanIndex, name: string): Device =>
  must(
    [...index.plan.device.values()].find((device) => device.name === name),
    name,
  );
const box = (index: PlanIndex): PlanIndex => must(foundState(index, null), "out of the box");

function read(index: PlanIndex, device: Device, text: string): Reading {
  const reading = readDevice(index, device, text);
  if (!reading.ok) throw new Error(reading.error);
  return reading.value;
}

function ids(): () => string {
  let n = 0;
  return () => testId("read", String((n += 1)));
}

function laid(index: PlanIndex, asIs: PlanIndex, device: Device, reading: Reading) {
  return must(layReading({ index, asIs, device, ids: ids() }, reading), "a state");
}

/** A port by its label, as a few words. */
function portWords(index: PlanIndex, device: Device, label: string): string {
  const port = must(
    index.portsOf(device.id).find((port) => port.label === label),
    label,
  );
  const { enabled, pvid, untagged, tagged, admit } = port;
  return [enabled ? "on" : "off", pvid, `u ${untagged.join(" ")}`, `t ${tagged.join(" ")}`, admit].join("; ");
}

const legWords = (index: PlanIndex, device: Device): string[] =>
  index
    .interfacesOf(device.id)
    .filter(({ line }) => line === null)
    .map(({ segment, port, addresses4 }) => JSON.stringify([segment, port, addresses4.map(formatAddress)]))
    .sort();

/** What the data of these standards can say of a device. */
const sayable = (index: PlanIndex, device: Device) => ({
  ports: index
    .portsOf(device.id)
    .map(({ label, ...port }) =>
      port.pvid === null && port.untagged.length > 0 ? label : portWords(index, device, label),
    ),
  legs: legWords(index, device),
});

describe("YANG data", () => {
  test.each(SITES)(
    "%s: what a device's sheet writes is read as the same, over gear out of the box",
    (_, index) => {
      let asIs = box(index);
      for (const device of setUpDevices(index)) {
        const reading = read(index, device, yangText(deviceData(index, device)));
        expect(reading.missed).toEqual([]);
        const now = laid(index, asIs, device, reading);
        expect(now.missed).toEqual([]);
        expect(sayable(now.asIs, device)).toEqual(sayable(index, device));
        ({ asIs } = now);
      }
      // What such data says nothing of is still to be done, and nothing else.
      const pages = new Set(operationsBetween(asIs, index).map(({ page }) => page));
      for (const page of ["power", "vlans"] as const) expect([...pages]).not.toContain(page);
      for (const row of driftBetween(asIs, index, ALL))
        if (row.said.kind === "port")
          for (const { field } of row.said.fields)
            expect(["PVID", "untagged", "tagged", "switched on", "admits"]).not.toContain(field);
    },
  );

  test("30 small sites: what is on a device before is read as that", () => {
    const roll = dice(77);
    for (let n = 0; n < 30; n += 1) {
      const { before, plan } = smallSite(roll);
      const [was, index] = [PlanIndex.of(before), PlanIndex.of(plan)];
      for (const device of plan.device.values()) {
        const own = must(before.device.get(device.id), "it was there");
        const reading = read(index, device, yangText(deviceData(was, own)));
        expect(sayable(laid(index, box(index), device, reading).asIs, device)).toEqual(sayable(was, own));
      }
    }
  });

  test("a device of another make: names of its own, a datastore around it, no bridge", () => {
    const device = named(PRACTICE, "Lower switch");
    const [first] = PRACTICE.portsOf(device.id);
    const text = JSON.stringify({
      "ietf-restconf:data": {
        "ietf-interfaces:interfaces": {
          interface: [
            { name: "E0", type: "iana-if-type:ethernetCsmacd", enabled: false, "x:more": 1 },
            { name: "eth1", type: "iana-if-type:ethernetCsmacd" },
            { name: "eth99", type: "iana-if-type:ethernetCsmacd" },
            { name: "lo0", type: "iana-if-type:softwareLoopback" },
          ],
        },
      },
    });
    const reading = read(PRACTICE, device, text);
    expect([...reading.ports]).toEqual([[first?.id, { enabled: false }]]);
    expect(reading.missed).toEqual([
      "eth1: no port of Lower switch is surely meant; they are 1 to 26, in its software e0 to f1.",
      "eth99: no port of Lower switch is surely meant; they are 1 to 26, in its software e0 to f1.",
    ]);
    expect(reading.vlans).toBeNull();
  });

  test.each([
    ["{", /no JSON: it is cut off/],
    ["{}", /holds no "ietf-interfaces:interfaces"/],
    [
      '{"ietf-interfaces:interfaces": {"interface": [{"name": 5}]}}',
      /at ietf-interfaces:interfaces\.interface\.0\.name/,
    ],
  ])("%s is refused in a sentence", (text, sentence) => {
    const reading = readDevice(PRACTICE, named(PRACTICE, "Lower switch"), text);
    expect(reading.ok ? "" : reading.error).toMatch(sentence);
  });
});

describe("tables", () => {
  const device = named(PRACTICE, "Lower switch");
  const found = box(PRACTICE);
  const words = (text: string, ...labels: readonly string[]) => {
    const { asIs } = laid(PRACTICE, found, device, read(PRACTICE, device, text));
    return labels.map((label) => portWords(asIs, device, label));
  };

  test.each([
    [
      "with tabs, columns in another order",
      "PVID\tTagged\tUntagged\tPort\tAdmin\n20\t30\t20\t7\tenabled\n" +
        "none\t10,20-30\t\t1\tenabled\n60\t\t60\t3\tdisabled",
    ],
    [
      "lined up with blanks, under a prompt",
      "switch> ports\nPort   Admin      PVID   Untagged   Tagged\n" +
        "----   -----      ----   --------   ------\n" +
        "1      enabled    -      -          10,20-30\n3      disabled   60     60         -\n" +
        "7      enabled    20     20         30",
    ],
    [
      "in bars, by the software's names",
      "| Interface | Native VLAN | Untagged VLANs | Tagged VLANs | Enabled |\n|---|---|---|---|---|\n" +
        "| e0 | none | | 10 20-30 | yes |\n| e2 | 60 | 60 | | no |\n| e6 | 20 | 20 | 30 | yes |",
    ],
    [
      "with commas and quotation marks",
      'port,pvid,"vlan membership",enabled\n' +
        '1,-,"10t, 20T, 21t,22t,23t,24t,25t,26t,27t,28t,29t,30t",on\n3,60,60u,off\n7,20,"20(U),30(T)",on',
    ],
  ])("of ports, %s", (_, text) => {
    expect(words(text, "1", "3", "7")).toEqual([
      "on; ; u ; t 10 20 21 22 23 24 25 26 27 28 29 30; all",
      "off; 60; u 60; t ; all",
      "on; 20; u 20; t 30; all",
    ]);
    // What nothing is said of is as it was, and powered.
    expect(words(text, "8")).toEqual(["on; 1; u 1; t ; all"]);
  });

  test("an access port has one VLAN; a link that is down says nothing of what is set", () => {
    const text =
      "Port  Mode    VLAN   Status\n7     access  20     down\n" +
      "8     trunk   trunk  up\n9     access  50     disabled";
    expect(words(text, "7", "8", "9")).toEqual([
      "on; 20; u 20; t ; all",
      "on; 1; u 1; t ; all",
      "off; 50; u 50; t ; all",
    ]);
  });

  test("of VLANs with their ports: what a port is in, and nothing of its PVID", () => {
    const text =
      "VLAN ID;Name;Untagged ports;Tagged ports\n20;Staff;7-8;1,2\n30;Phones;e15;1, e1, 7-8\nx;;;\n";
    const reading = read(PRACTICE, device, text);
    expect(reading.vlans).toEqual([
      { vid: 20, name: "Staff" },
      { vid: 30, name: "Phones" },
    ]);
    expect(reading.missed).toEqual(['"x" is no VLAN ID; the line was left out.']);
    expect(words(text, "1", "7", "16", "9")).toEqual([
      "on; 1; u ; t 20 30; all",
      "on; 1; u 20; t 30; all",
      "on; 1; u 30; t ; all",
      "on; 1; u ; t ; all",
    ]);
  });

  test("of VLANs with marks beside their ports, over two lines; without marks none is taken", () => {
    const text = "VLAN  Name    Ports\n20    Staff   7u, 8(U), 1t\n              2t\n30    Phones  7-8t\n";
    expect(words(text, "1", "2", "7", "9")).toEqual([
      "on; 1; u ; t 20; all",
      "on; 1; u ; t 20; all",
      "on; 1; u 20; t 30; all",
      "on; 1; u ; t ; all",
    ]);
    const bare = read(PRACTICE, device, "VLAN  Name   Status  Ports\n20    Staff  active  7, 8\n");
    expect([bare.ports.size, bare.vlans]).toEqual([0, [{ vid: 20, name: "Staff" }]]);
    expect(bare.missed).toEqual([expect.stringMatching(/^Which ports are tagged is not said/)]);
  });

  test("a list of states: the VLAN of access ports, a trunk by its word, what is connected or not", () => {
    const text =
      "Port    Name            Status       Vlan     Type\n" +
      "e6      desk            connected    20       10/100/1000BaseTX\n" +
      "e7                      notconnect   trunk    10/100/1000BaseTX\n" +
      "e8                      disabled     routed   10/100/1000BaseTX\n";
    expect(words(text, "7", "8", "9")).toEqual([
      "on; 20; u 20; t ; all",
      "on; 1; u 1; t ; all",
      "off; 1; u 1; t ; all",
    ]);
    expect(read(PRACTICE, device, text).missed).toEqual([]);
  });

  test("of addresses: a leg in the segment, the first address goes; what none holds is said", () => {
    const text =
      "VLAN  IP address      Mask\n10    10.24.10.33     255.255.255.0\n77    10.9.9.9        255.255.255.0";
    const now = laid(PRACTICE, found, device, read(PRACTICE, device, text));
    const [leg] = now.asIs.interfacesOf(device.id);
    const [planned] = PRACTICE.interfacesOf(device.id);
    expect(now.asIs.interfacesOf(device.id)).toHaveLength(1);
    expect(leg?.id).toBe(planned?.id);
    expect(leg?.addresses4.map(formatAddress)).toEqual(["10.24.10.33"]);
    expect(now.missed).toEqual([
      "VLAN 77: the plan has no segment in VLAN 77 on Lower switch; its address was left out.",
    ]);
    const rows = driftBetween(now.asIs, PRACTICE, ALL).filter(
      ({ said }) => said.kind === "interface" && said.what === "changed",
    );
    expect(rows.map((row) => takenOf(row))).toEqual([
      { kind: "interface", id: planned?.id, fields: { addresses4: leg?.addresses4 } },
    ]);
    expect(driftTable(rows)[1]).toEqual([
      "Lower switch",
      "Lower switch (Kit)",
      "address",
      "10.24.10.33",
      "10.24.10.3",
    ]);
  });

  test("nothing is taken from words that are no table", () => {
    for (const text of ["", "hello", "Port\n1\n2", "VLAN only\n10"]) {
      const reading = readDevice(PRACTICE, device, text);
      expect(reading.ok ? "" : reading.error).toMatch(/^No line names the columns/);
    }
  });
});

test("a gateway's legs are read with what its segments take it for", () => {
  const gateway = named(PRACTICE, "Gateway");
  const now = laid(
    PRACTICE,
    box(PRACTICE),
    gateway,
    read(PRACTICE, gateway, yangText(deviceData(PRACTICE, gateway))),
  );
  for (const { id, gatewayInterface } of (PRACTICE.plan as Plan).segment.values())
    expect(now.asIs.plan.segment.get(id)?.gatewayInterface).toBe(gatewayInterface);
});

test("only what was read is said to differ, and only that can be taken into the plan", () => {
  const device = named(PRACTICE, "Lower switch");
  const text = "VLAN\tTagged ports\n20\t7\n30\t7";
  const reading = read(PRACTICE, device, text);
  const { asIs, changes } = laid(PRACTICE, box(PRACTICE), device, reading);
  const saw = seenIn(reading);
  expect(new Set(Object.values(saw.ports).map(String))).toEqual(new Set(["tagged"]));
  expect([saw.legs, saw.vlans]).toEqual([false, true]);
  const entry = {
    id: testId("entry", "1"),
    at: "2026-11-29T09:00:00.000Z",
    do: "read",
    device: device.id,
    from: "paste",
    saw,
    changes,
  } as const;
  const rows = driftBetween(asIs, PRACTICE, knowledgeOf([{ by: "Ruth", entry }], false));
  expect(new Set(rows.map((row) => row.device.name))).toEqual(new Set(["Lower switch"]));
  const port = must(
    rows.find(({ said }) => said.name === "Lower switch port 7"),
    "port 7",
  );
  expect(port.said.fields).toEqual([{ field: "tagged", before: "20, 30", after: "30" }]);
  expect(Object.keys(takenOf(port)?.fields ?? {})).toEqual(["tagged"]);
  // Gear that nobody read is not told to differ.
  expect(driftBetween(asIs, PRACTICE, knowledgeOf([], false))).toEqual([]);
});
