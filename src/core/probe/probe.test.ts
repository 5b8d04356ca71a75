import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { formatAddress } from "../address";
import { must } from "../kernel";
import {
  applyChanges,
  BLANK_HOST,
  PlanEdits,
  PlanIndex,
  type Plan,
  type ProbeGoal,
  type ProbeQuestion,
} from "../plan";
import { SERVICES } from "../policy";
import { testId } from "../testing/build-plan";
import { asClient, probe } from "./probe";
import { plugs } from "./choices";

const ids = () => testId("new", "one");
const hostId = (plan: Plan, name: string) =>
  must(
    [...plan.host.values()].find((h) => h.name === name),
    name,
  ).id;
const portId = (plan: Plan, device: string, label: string) =>
  must(
    [...plan.port.values()].find((p) => p.label === label && plan.device.get(p.device)?.name === device),
    label,
  ).id;
const ask = (plan: Plan, from: ProbeQuestion["from"], goal: ProbeGoal) =>
  probe(PlanIndex.of(plan), asClient(from, goal), ids);
const fromHost = (plan: Plan, name: string, goal: ProbeGoal) =>
  ask(plan, { at: "host", host: hostId(plan, name) }, goal);
const office = fennelStreet();
const home = lockkeepersHouse();
const edited = (plan: Plan, edit: (edits: PlanEdits) => void): Plan => {
  const edits = new PlanEdits(plan);
  edit(edits);
  const result = applyChanges(plan, edits.changes());
  return must(result.ok ? result.value : null, "applies");
};

test("a client gets an address over two switches, each hop with its tag", () => {
  const outcome = fromHost(office, "PC Reception 1", { to: "address" });
  expect(outcome.stopsAt).toBeNull();
  expect(outcome.steps.map((s) => [s.title, s.tag])).toEqual([
    ["PC Reception 1", null],
    ["Upper switch", undefined],
    ["Upper switch", 20],
    ["Lower switch", 20],
    ["Gateway", 20],
    ["Gateway", undefined],
  ]);
  expect(outcome.lease).toMatchObject({
    mask: "255.255.255.128",
    leaseSeconds: 28_800,
    server: "Gateway",
    free: 60,
  });
  expect(formatAddress(must(outcome.lease, "a lease").address)).toBe("10.24.20.49");
});

test("a reservation is handed out by MAC, and a phone's tag joins the voice VLAN", () => {
  expect(
    formatAddress(must(fromHost(office, "Card terminal 2", { to: "address" }).lease, "a lease").address),
  ).toBe("10.24.50.9");
  const phone = fromHost(office, "Phone Reception 1", { to: "address" });
  expect(phone.steps[0]?.tag).toBe(30);
  expect(formatAddress(must(phone.lease, "a lease").address)).toBe("10.24.30.29");
});

test("the first cause is the port that lacks the VLAN; its repair makes the same probe pass", () => {
  const outcome = fromHost(office, "Analyser", { to: "address" });
  expect(outcome.stopsAt).toBe(3);
  expect(outcome.cause?.sentence).toMatch(
    /^Imaging \(40\) stops at Upper switch port 25: the frame arrives tag 40/,
  );
  const repaired = edited(office, (edits) => must(outcome.cause?.repairs[0], "a repair").edit(edits, ids));
  expect(fromHost(repaired, "Analyser", { to: "address" }).stopsAt).toBeNull();
});

test("a wall does its job, and a door for one service lets only that through", () => {
  const cards = fromHost(office, "PC Reception 1", {
    to: "host",
    host: hostId(office, "Card terminal 1"),
    service: null,
  });
  expect(cards.cause?.sentence).toMatch(/^The wall Practice to Payment is closed/);
  const service = (name: string) =>
    must(
      SERVICES.find((s) => s.name === name),
      name,
    );
  const store = (name: string) =>
    fromHost(office, "PC Reception 1", {
      to: "host",
      host: hostId(office, "Image store"),
      service: service(name),
    });
  expect(store("dicom").stopsAt).toBeNull();
  const refused = store("ssh");
  expect(refused.cause?.sentence).toMatch(/door for dicom, https only, not for ssh/);
  const opened = edited(office, (edits) => must(refused.cause?.repairs[0], "a repair").edit(edits, ids));
  expect(
    fromHost(opened, "PC Reception 1", {
      to: "host",
      host: hostId(opened, "Image store"),
      service: service("ssh"),
    }).stopsAt,
  ).toBeNull();
});

test("the internet needs a gateway, a door and a line", () => {
  expect(fromHost(office, "PC Reception 1", { to: "internet", service: null }).stopsAt).toBeNull();
  expect(fromHost(office, "Camera Entrance", { to: "internet", service: null }).cause?.sentence).toMatch(
    /wall Building to Internet is closed/,
  );
  const noLine = edited(office, (edits) =>
    edits
      .all("interface")
      .filter((i) => i.line !== null)
      .forEach((i) => edits.remove("interface", i.id)),
  );
  expect(fromHost(noLine, "PC Reception 1", { to: "internet", service: null }).cause?.sentence).toMatch(
    /no leg on an internet line/,
  );
});

test("wireless joins the VLAN behind the name, and gear that knows no VLANs passes the frame on", () => {
  const ssid = must(
    [...home.ssid.values()].find((s) => s.name === "Lock Visitors"),
    "an SSID",
  );
  const point = must(
    [...home.device.values()].find((d) => d.name === "Landing AP"),
    "an AP",
  );
  const guest = ask(home, { at: "ssid", ssid: ssid.id, device: point.id }, { to: "internet", service: null });
  expect(guest.stopsAt).toBeNull();
  expect(formatAddress(must(guest.lease, "a lease").address)).toBe("172.19.60.50");
  expect(
    formatAddress(must(fromHost(home, "studio-laptop", { to: "address" }).lease, "a lease").address),
  ).toBe("172.19.30.50");
});

test("a name is joined where it is offered, in one's own place first, and nowhere else", () => {
  const ssid = must(
    [...home.ssid.values()].find((s) => s.name === "Lock Visitors"),
    "an SSID",
  );
  const [landing, studio] = ["Landing AP", "Studio AP"].map((name) =>
    must(
      [...home.device.values()].find((d) => d.name === name),
      name,
    ),
  );
  const only = edited(home, (edits) => {
    edits.patch("ssid", ssid.id, { at: [studio?.id ?? ""] });
  });
  const offered = plugs(PlanIndex.of(only)).flatMap(({ from }) =>
    from.at === "ssid" && from.ssid === ssid.id ? [from.device] : [],
  );
  expect(offered).toEqual([studio?.id]);
  expect(
    ask(only, { at: "ssid", ssid: ssid.id, device: studio?.id ?? "" }, { to: "internet", service: null })
      .stopsAt,
  ).toBeNull();
  expect(
    ask(only, { at: "ssid", ssid: ssid.id, device: landing?.id ?? "" }, { to: "address" }).cause?.sentence,
  ).toMatch(/can't join Lock Visitors: it needs an access point that offers it/);
  // Someone in the studio joins the access point that stands there.
  const guest = edited(home, (edits) => {
    edits.put("host", {
      ...BLANK_HOST,
      id: testId("host", "guest"),
      name: "guest",
      kind: "mobile",
      segment: ssid.segment,
      place: studio?.place ?? "",
      attachment: { at: "ssid", ssid: ssid.id, accessPoint: null },
    });
  });
  const way = fromHost(guest, "guest", { to: "internet", service: null }).steps.flatMap(
    (step) => step.device ?? [],
  );
  expect(way).toContain(studio?.id);
  expect(way).not.toContain(landing?.id);
});

test.each([
  ["a port that is off", portId(office, "Upper switch", "21"), /port 21 is switched off/],
  [
    "a port in no VLAN",
    portId(office, "Upper switch", "13"),
    /port 13 drops the frame \(untagged\): no VLAN is set/,
  ],
])("a laptop at %s is told why nothing comes", (_, port, says) => {
  const outcome = ask(office, { at: "port", port, tag: null }, { to: "address" });
  expect(outcome.lease).toBeNull();
  expect(outcome.cause?.sentence).toMatch(says);
});

test("two stations of one segment need neither gateway nor wall", () => {
  const mended = edited(office, (edits) =>
    must(fromHost(office, "Analyser", { to: "address" }).cause?.repairs[0], "a repair").edit(edits, ids),
  );
  const outcome = fromHost(mended, "Analyser", {
    to: "host",
    host: hostId(mended, "X-ray panel"),
    service: null,
  });
  expect(outcome.stopsAt).toBeNull();
  expect(outcome.steps.some((s) => s.title === "Wall")).toBe(false);
});
