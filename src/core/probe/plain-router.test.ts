import { listFindings, runChecks, sentenceOf } from "../checks";
import { FABRIC } from "../fabric";
import { FailureStudy } from "../failure";
import {
  BLANK_HOST,
  BLANK_LINE,
  BLANK_SSID,
  PlanIndex,
  type Plan,
  type Port,
  type ProbeQuestion,
} from "../plan";
import {
  aDevice,
  anInterface,
  aPort,
  aScope,
  aSegment,
  aZone,
  planWith,
  testId,
} from "../testing/build-plan";
import { ip, net } from "../testing/written";
import { asClient, probe } from "./probe";

// A home with one box: a router with wireless whose ports know no VLANs.

const id = (name: string) => testId("plain", name);

const router = aDevice({ name: "Router", kind: "gateway", bridging: "plain" });
const radios = { ...router, abilities: { ...router.abilities, routes: true, radios: true } };
const port = (label: string, position: number): Port =>
  aPort({ device: router.id, label, position, enabled: true, pvid: null, untagged: [], tagged: [] });
const [wan, one, two] = [port("Line 1", 1), port("1", 2), port("2", 3)];
const line = { ...BLANK_LINE, id: id("line"), name: "Line" };
const leg = anInterface({ device: router.id, name: "Home", addresses4: [ip("10.31.5.1")] });
const segment = aSegment({
  name: "Home",
  vlan: null,
  prefixes4: [net("10.31.5.0/24")],
  gatewayInterface: leg.id,
  dns: [],
});
const ssid = { ...BLANK_SSID, id: id("ssid"), name: "House", segment: segment.id };
const desk = {
  ...BLANK_HOST,
  id: id("desk"),
  name: "desk",
  segment: segment.id,
  attachment: { at: "port" as const, port: one.id },
};
const phone = {
  ...BLANK_HOST,
  id: id("phone"),
  name: "phone",
  segment: segment.id,
  attachment: { at: "ssid" as const, ssid: ssid.id, accessPoint: null },
};

/** The home; its inside leg at all ports together, or on a port of its own. */
function home(inside: Port | null): PlanIndex {
  const plan: Plan = planWith({
    zone: [aZone({ id: segment.zone, insideOpen: true })],
    line: [line],
    segment: [segment],
    device: [radios],
    port: [wan, one, two],
    interface: [
      { ...leg, segment: segment.id, port: inside?.id ?? null },
      anInterface({ device: router.id, name: "Out", port: wan.id, line: line.id }),
    ],
    ssid: [ssid],
    host: [desk, phone],
    scope: [
      aScope({
        segment: segment.id,
        serverDevice: router.id,
        pools: [{ first: ip("10.31.5.50"), last: ip("10.31.5.99") }],
      }),
    ],
    wall: [
      {
        id: id("out"),
        from: { at: "zone", zone: segment.zone },
        to: { at: "internet" },
        door: "open",
        services: [],
        reason: "",
        conduit: null,
      },
    ],
  });
  return PlanIndex.of(plan);
}
const from = (host: string, goal: ProbeQuestion["goal"]) => asClient({ at: "host", host }, goal);
const cause = (index: PlanIndex, question: ProbeQuestion) =>
  probe(index, question, () => "").cause?.sentence ?? null;

test("its line is no part of what its other ports switch", () => {
  const { wireOf, portNumber } = home(null).derived(FABRIC);
  const wire = (of: Port) => wireOf[portNumber.get(of.id) ?? -1];
  expect(wire(one)).toBe(wire(two));
  expect(wire(wan)).not.toBe(wire(one));
});

test.each([
  ["at all its ports together", null],
  ["on a port of its own", two],
])(
  "with its inside %s, a station over the air gets an address, the internet and what is plugged in",
  (_, inside) => {
    const index = home(inside);
    expect(cause(index, from(phone.id, { to: "internet", service: null }))).toBeNull();
    if (inside !== null) return;
    expect(cause(index, from(desk.id, { to: "internet", service: null }))).toBeNull();
    expect(cause(index, from(phone.id, { to: "host", host: desk.id, service: null }))).toBeNull();
    expect(cause(index, from(desk.id, { to: "host", host: phone.id, service: null }))).toBeNull();
  },
);

test("with the port of its own off, nobody on the air is anywhere", () => {
  const index = home({ ...two, enabled: true });
  const off = PlanIndex.of({
    ...index.plan,
    port: new Map([...index.plan.port, [two.id, { ...two, enabled: false }]]),
  });
  expect(cause(off, from(phone.id, { to: "internet", service: null }))).not.toBeNull();
});

test("nothing in it is found wrong, and without the box nobody has anything", () => {
  const index = home(null);
  const found = listFindings(runChecks(index)).filter(({ severity }) => severity === "stop");
  expect(found.map((finding) => sentenceOf(finding, index))).toEqual([]);
  const { cutOff, noGateway } = new FailureStudy(index).fail([{ what: "device", id: router.id }]);
  expect(new Set([...cutOff, ...noGateway])).toEqual(new Set([desk.id, phone.id]));
  const { noInternet } = new FailureStudy(index).fail([{ what: "line", id: line.id }]);
  expect(new Set(noInternet)).toEqual(new Set([desk.id, phone.id]));
});
