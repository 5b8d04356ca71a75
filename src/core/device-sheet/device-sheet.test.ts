import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { formatAddress, parseIpv4, parsePrefix } from "../address";
import { must } from "../kernel";
import { applyChanges, BLANK_FORWARD, PlanEdits, PlanIndex, vid, type Device, type Plan } from "../plan";
import { editDevice, makeWayBack, setAbilities } from "../planners";
import { afterEdit, donePlan } from "../testing/after-edit";
import { testId } from "../testing/build-plan";
import { deviceData } from "./device-data";
import type { DeviceData } from "./sheet-types";
import { deviceJson, deviceTable } from "./tables";
import { deviceSteps } from "./steps";
import { type SheetStep } from "./step";

const PLANS = [fennelStreet(), lockkeepersHouse(), bramblewick()];
const everyDevice = PLANS.flatMap((plan) =>
  [...plan.device.values()].map((device) => ({ name: `${plan.site.name}, ${device.name}`, plan, device })),
);
const sheetOf = (plan: Plan, name: string): DeviceData =>
  deviceData(
    PlanIndex.of(plan),
    must(
      [...plan.device.values()].find((device) => device.name === name),
      name,
    ),
  );
const titles = (steps: readonly SheetStep[]) => steps.map((step) => step.title);
const [office] = PLANS as [Plan, Plan, Plan];

/** The printed labels behind "1 to 3, 7". */
function labelsOf(text: string, data: DeviceData): string[] {
  const labels = data.ports.map((port) => port.label);
  return text.split(", ").flatMap((part) => {
    const [from, to] = part.split(" to ") as [string, string | undefined];
    return to === undefined ? [from] : labels.slice(labels.indexOf(from), labels.indexOf(to) + 1);
  });
}

const ORDER = [
  "Reach it",
  "Name, address, time",
  "How it is administered",
  "VLANs",
  "Spanning tree",
  "Link aggregation",
  "Addresses of its own",
  "Internet lines",
  "Order of the lines",
  "Provider's boxes and names",
  "Tunnels",
  "DHCP",
  "DHCP reservations",
  "Routes",
  "Address translation",
  "Forwards",
  "Discovery",
  "Firewall rules",
  "Wireless names",
  "Radios",
  "Stations that join here",
  "Ports of end devices",
  "Guards of the device",
  "Administrators",
  "Sign-in at ports (802.1X)",
  "Guards",
  "Phone and PC ports",
  "Trunks, tagging last",
  "List one: membership of each VLAN",
  "List two: PVID of each port",
  "Save",
];

test.each(everyDevice)(
  "$name: the steps come in the order of the work, with nothing empty, and end in saving",
  ({ plan, device }) => {
    const steps = deviceSteps(deviceData(PlanIndex.of(plan), device));
    const places = titles(steps).map((title) => ORDER.indexOf(title));
    expect(places).toEqual([...places].sort((a, b) => a - b));
    expect([places[0], titles(steps).at(-1)]).toEqual([0, "Save"]);
    for (const step of steps) {
      for (const row of step.rows) expect(row.length).toBe(step.heads.length);
      expect(step.rows.length > 0 || step.note !== "").toBe(true);
      expect(JSON.stringify(step)).not.toMatch(/undefined|NaN|\[object/);
    }
  },
);

test.each(everyDevice.filter(({ device }) => device.bridging === "vlan"))(
  "$name: each port that is set has one step of its own, and the VLANs it needs are created before",
  ({ plan, device }) => {
    const data = deviceData(PlanIndex.of(plan), device);
    const steps = deviceSteps(data);
    const told = new Map<string, string>();
    for (const title of ["Ports of end devices", "Phone and PC ports", "Trunks, tagging last"]) {
      const step = steps.find((sheetStep) => sheetStep.title === title);
      for (const row of step?.rows ?? []) {
        const cell = (head: string) => row[step?.heads.indexOf(head) ?? -1] ?? "none";
        const labels = labelsOf(row[0] ?? "", data);
        expect(String(labels.length)).toBe(cell("Count"));
        for (const label of labels) {
          expect(told.has(label)).toBe(false);
          told.set(label, `${cell("Untagged (PVID)")} / ${cell("Tagged")}`);
        }
      }
    }
    const set = data.ports.filter((port) => !port.routed && port.mode !== "undecided");
    expect(told).toEqual(
      new Map(
        set.map((port) => [port.label, `${port.pvid ?? "none"} / ${port.tagged.join(", ") || "none"}`]),
      ),
    );
    const created = new Set(data.vlans.map((vlan) => vlan.vid));
    for (const port of set)
      for (const vid of [...port.untagged, ...port.tagged]) expect(created.has(vid)).toBe(true);
  },
);

test("a gateway gets addresses before scopes, and its reservations", () => {
  const steps = deviceSteps(sheetOf(office, "Gateway"));
  expect(titles(steps).indexOf("Addresses of its own")).toBeLessThan(titles(steps).indexOf("DHCP"));
  const reservations = must(
    steps.find((step) => step.title === "DHCP reservations"),
    "reservations",
  );
  const truth = [...office.host.values()].filter(
    (host) =>
      host.manner === "reserved" &&
      host.ipv4 !== null &&
      [...office.scope.values()].some(
        (scope) => scope.segment === host.segment && scope.serverDevice !== null,
      ),
  ).length;
  expect(reservations.rows.length).toBe(truth);
});

test("a gateway's routes, translation, forwards and rules are on its sheet, in addresses and numbers", () => {
  const home = lockkeepersHouse();
  const gateway = must(
    [...home.device.values()].find(({ kind }) => kind === "gateway"),
    "the gateway",
  );
  const line = must(
    [...home.line.values()].find(({ name }) => name === "Fibre line"),
    "the line",
  );
  const host = must(
    [...home.host.values()].find(({ ipv4 }) => ipv4 !== null),
    "a host with an address",
  );
  const edits = new PlanEdits(home);
  const net = (text: string) => must(parsePrefix(text), text);
  const forward = { ...BLANK_FORWARD, line: line.id, host: host.id, ports: [8443, 8450] as [number, number] };
  edits.put("forward", {
    ...forward,
    id: testId("forward", "kiln"),
    name: "Kiln",
    toPort: 443,
    sources: [net("203.0.113.40/32")],
    until: "2027-04-30",
  });
  edits.put("forward", { ...forward, id: testId("forward", "over"), name: "Over", until: "2027-01-31" });
  edits.patch("device", gateway.id, {
    routes: [{ prefix: net("10.9.0.0/16"), via: must(parseIpv4("172.19.20.7"), "an address"), metric: 5 }],
  });
  const applied = applyChanges(home, edits.changes());
  const index = PlanIndex.of(must(applied.ok ? applied.value : null, "it stands"), "2027-03-01");
  const data = deviceData(index, must(index.plan.device.get(gateway.id), "it"));
  const row = (title: string, at = 0) =>
    must(
      deviceSteps(data).find((step) => step.title === title),
      title,
    ).rows[at];
  expect(row("Routes")).toEqual(["10.9.0.0/16", "172.19.20.7", "5"]);
  expect(row("Address translation")?.[0]).toBe("Fibre line");
  expect(data.forwards.map(({ name }) => name)).toEqual(["Kiln", "Kiln, for its maker"]);
  expect(row("Forwards")?.slice(3)).toEqual([
    "TCP",
    "8443 to 8450",
    `${formatAddress(must(host.ipv4, "its address"))} ${host.name}`,
    "443",
    "no",
    "203.0.113.40/32",
    "2027-04-30",
  ]);
  const rules = data.rules.map(
    ({ from, to, services }) => `${from.join(" ")} > ${to.join(" ")}: ${services}`,
  );
  expect(rules).toContain("Household (172.19.20.0/24) > Studio (172.19.30.0/24): TCP 443");
  expect(rules).toContain(`203.0.113.40/32 > ${formatAddress(must(host.ipv4, ""))}/32: TCP 443`);
  expect(rules.every((rule) => !/undefined|network/.test(rule))).toBe(true);
});

test("a device with two lists gets both, and they say the same", () => {
  const device = must(
    [...office.device.values()].find((device) => device.name === "Switch B"),
    "Switch B",
  );
  const plan = donePlan(afterEdit(office, (context) => setAbilities(context, device.id, { lists: "two" })));
  const data = sheetOf(plan, "Switch B");
  const steps = deviceSteps(data);
  const membership = must(
    steps.find((step) => step.title.startsWith("List one")),
    "list one",
  );
  const pvids = must(
    steps.find((step) => step.title.startsWith("List two")),
    "list two",
  );
  const untagged = new Map(
    membership.rows.flatMap((row) =>
      row[2] === "none" ? [] : labelsOf(row[2] ?? "", data).map((label) => [label, row[0]] as const),
    ),
  );
  const own = new Map(
    pvids.rows.flatMap((row) =>
      row[3] === "as it is" ? [] : labelsOf(row[0] ?? "", data).map((label) => [label, row[3]] as const),
    ),
  );
  expect(untagged.size).toBeGreaterThan(5);
  expect(untagged).toEqual(own);
  expect(titles(deviceSteps(sheetOf(office, "Switch B"))).some((title) => title.startsWith("List"))).toBe(
    false,
  );
});

test("the two lists say only what can be entered; ports that its line does not name leave VLAN 1", () => {
  const device = must(
    [...office.device.values()].find((device) => device.name === "Switch B"),
    "Switch B",
  );
  const two = donePlan(afterEdit(office, (context) => setAbilities(context, device.id, { lists: "two" })));
  const notes = (plan: Plan) =>
    deviceSteps(sheetOf(plan, "Switch B"))
      .filter(({ title }) => title.startsWith("List"))
      .map(({ note, rows }) => ({ note, cells: rows.flat() }));
  const [one, other] = notes(two);
  expect(one?.note).toContain("Every port that is set here leaves VLAN 1, after list two");
  expect([other?.cells.includes("none"), other?.note.includes("A port always has a PVID")]).toEqual([
    false,
    other?.cells.includes("as it is"),
  ]);
  const first = must(vid(1), "VLAN 1");
  const port = must(
    PlanIndex.of(two)
      .portsOf(device.id)
      .find(({ pvid }) => pvid !== null),
    "a port",
  );
  const onOne = donePlan(
    afterEdit(two, ({ edits }) =>
      edits.patch("port", port.id, { pvid: first, untagged: [first], tagged: [] }),
    ),
  );
  expect(notes(onOne)[0]?.note).toContain("Every port that VLAN 1's line does not name leaves VLAN 1");
});

test("the rescue port, the place of the credentials and the limit of VLAN names are on the sheet", () => {
  const device = must(
    [...office.device.values()].find((device) => device.name === "Upper switch"),
    "Upper switch",
  ) as Device;
  const index = PlanIndex.of(office);
  const spare = must(
    index.portsOf(device.id).find((port) => port.label === "14"),
    "port 14",
  );
  const plan = donePlan(
    afterEdit(
      office,
      (context) =>
        makeWayBack(context, [spare.id]) ??
        editDevice(context, device.id, "credentialsPlace", "safe in the office"),
    ),
  );
  const [reach] = deviceSteps(sheetOf(plan, "Upper switch"));
  expect(reach?.note).toContain("The rescue port is port 14");
  expect(reach?.note).toContain("safe in the office");
  const short = deviceData(PlanIndex.of(plan), { ...device, vlanNameLimit: 4 });
  expect(short.vlans.every((vlan) => vlan.name.length <= 4)).toBe(true);
});

test("the table and the JSON hold all that the steps hold, and no password has a place in either", () => {
  for (const { plan, device } of everyDevice) {
    const data = deviceData(PlanIndex.of(plan), device);
    const values = deviceTable(data).map((row) => row[4]);
    for (const step of deviceSteps(data))
      for (const row of step.rows) for (const cell of row) expect(values).toContain(cell);
    expect(JSON.parse(deviceJson(data))).toEqual(JSON.parse(JSON.stringify(data)));
    expect(deviceJson(data)).not.toMatch(/"(password|secret|passphrase|key)"/i);
  }
});
