import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { parseMac } from "../address";
import type { HeardFacts, HeardFile } from "../heard";
import { must } from "../kernel";
import { nameOf, PlanIndex, type Host } from "../plan";
import { laidBeside } from "./laid";
import { guessTap, type TapPosition } from "./tap";
import { plannedRoot, vlanPort } from "./wire";

const plan = fennelStreet();
const index = PlanIndex.of(plan);
const portOf = ({ attachment }: Host): string => (attachment.at === "port" ? attachment.port : "");
const client = must(
  [...plan.host.values()].find(
    (host) =>
      host.manner !== "typed" &&
      nameOf(index, "segment", host.segment ?? "") === "Staff" &&
      vlanPort(index, portOf(host)) !== null,
  ),
  "a device in Staff",
);
const port = portOf(client);
const printer = must(
  [...plan.host.values()].find(
    ({ mac, ipv4, segment }) => mac !== null && ipv4 !== null && segment === client.segment,
  ),
  "a device with a MAC address",
);

const [ONE, TWO] = ["02:00:00:00:00:01", "02:00:00:00:00:02"] as const;
const QUIET: HeardFacts["traffic"] = {
  unicast: [],
  sameFrameAgain: [],
  sameFrameAgainCount: 0,
  peakFramesPerSecond: 1,
  peakBroadcastMulticastPerSecond: 1,
};
/** A capture that says these facts. */
const heard = (facts: object, part: Partial<HeardFile> = {}): HeardFile => ({
  frames: 10,
  cutFrames: 0,
  unread: 0,
  linkTypes: [1],
  seconds: 60,
  stopped: null,
  leftOut: false,
  lastRoot: null,
  facts: { tags: [], traffic: QUIET, ...facts } as HeardFacts,
  ...part,
});

const laid = (facts: object, position: TapPosition = "access", part: Partial<HeardFile> = {}) =>
  laidBeside(index, port, { position, mac: null }, heard(facts, part)).lines;
const wrong = (facts: object, position: TapPosition = "access", part: Partial<HeardFile> = {}) =>
  laid(facts, position, part).flatMap(({ verdict, says }) => (verdict === "otherwise" ? [says] : []));

const dhcp = (part: object) => ({
  dhcp: {
    servers: [],
    clients: [],
    relays: [],
    naks: [],
    discoversWithoutOfferSeen: [],
    serversOnlyNamedInRequests: [],
    ...part,
  },
});
const offer = (part: object) => ({
  type: "ack",
  client: ONE,
  address: "10.24.20.60",
  mask: "255.255.255.0",
  router: ["10.24.20.1"],
  dns: ["10.24.60.10"],
  lease: null,
  domain: null,
  giaddr: null,
  options: [],
  frames: 1,
  ...part,
});
const server = (serverId: string, part: object) =>
  dhcp({
    servers: [{ vid: null, mac: TWO, serverId, ip: serverId, messages: { ack: 1 }, offers: [offer(part)] }],
  });

test("a second DHCP server is told from the own one, and what it gives is laid beside", () => {
  expect(wrong(server("10.24.20.1", {}))).toEqual([]);
  expect(wrong(server("10.24.20.66", { address: "10.24.99.5" }))).toEqual([
    `A second DHCP server answers in Staff: find ${TWO} and switch its DHCP server off.`,
    expect.stringMatching(/^10\.24\.99\.5 /),
  ]);
  const given = laid(server("10.24.20.1", { router: ["10.24.20.9"] })).find(
    ({ given: given }) => given !== null,
  );
  expect(given?.says).toBe("The gateway is 10.24.20.9 and has to be 10.24.20.1.");
  expect(given?.given?.text).toBe("10.24.20.60\nGateway: 10.24.20.9\nName servers: 10.24.60.10");
});

test("that nobody answers is said only where everybody would have heard the answer", () => {
  const asks = (part: object) =>
    dhcp({
      discoversWithoutOfferSeen: [
        { vid: null, mac: ONE, discovers: 4, broadcastFlag: true, namesServerLater: false, ...part },
      ],
    });
  expect(wrong(asks({}))).toEqual(["It got no address."]);
  expect(wrong(asks({ broadcastFlag: false }))).toEqual([]);
  expect(wrong(asks({ broadcastFlag: false }), "inline")).toEqual(["It got no address."]);
  expect(wrong(asks({ namesServerLater: true }))).toEqual([]);
  expect(wrong(asks({}), "access", { cutFrames: 3 })).toEqual([]);
  expect(wrong(asks({}), "access", { stopped: "The file ends in the middle." })).toEqual([]);
});

const tag = (vid: number | null, part: object = {}) => ({ vid, frames: 9, senders: { [ONE]: 9 }, ...part });
const lldp = (part: object) => ({
  vid: null,
  mac: TWO,
  dst: null,
  chassisIdSubtype: 4,
  chassisId: TWO,
  portIdSubtype: 7,
  portId: must(plan.port.get(port), "a port").label,
  ttl: 120,
  systemName: must(plan.device.get(must(plan.port.get(port), "a port").device), "a device").name,
  frames: 2,
  ...part,
});

const switchId = must(index.plan.port.get(port), "its port").device;
/** VLANs of the site that the switch does not carry. */
const notThere = [...plan.vlan.values()].filter(
  ({ vid }) =>
    !index.portsOf(switchId).some(({ untagged, tagged }) => [...untagged, ...tagged].includes(vid)),
);

test("frames without a tag and those with a priority tag are heard as one", () => {
  const both = laid({
    tags: [
      tag(null, { frames: 5, senders: { [ONE]: 2, [TWO]: 3 } }),
      tag(0, { priorityTag: true, frames: 4, senders: { [ONE]: 4 } }),
    ],
  });
  expect(both.filter(({ about }) => about === "Untagged frames").map((laidLine) => laidLine.heard)).toEqual([
    "there: 9 frames of 2 stations",
  ]);
});

test("tags that are not planned at the port are told; messages to the neighbour are of no VLAN", () => {
  expect(wrong({ tags: [tag(null)] })).toEqual([]);
  expect(wrong({ tags: [tag(77)] })).toEqual([expect.stringMatching(/^Frames in VLAN 77 bear a tag at /)]);
  expect(wrong({ tags: [tag(0, { priorityTag: true })] })).toEqual([]);
  expect(wrong({ tags: [tag(77)] }, "mirror")).toEqual(["The plan has no VLAN 77."]);
  expect(wrong({ tags: [tag(30)] }, "mirror")).toEqual([]);
  expect(notThere.map(({ vid }) => wrong({ tags: [tag(vid)] }, "mirror"))).toEqual(
    notThere.map(({ vid }) => [
      `By the plan no port of ${nameOf(index, "device", switchId)} carries VLAN ${vid}.`,
    ]),
  );
  expect(
    laid({ tags: [tag(null, { frames: 2 })], lldp: [lldp({})] }).map(({ about }) => about),
  ).not.toContain("Untagged frames");
});

const claims = (ip: string, ...macs: string[]) => ({
  arp: {
    claims: [{ vid: null, ip, macs: Object.fromEntries(macs.map((mac) => [mac, 1])) }],
    duplicates: macs.length > 1 ? [{ vid: null, ip, macs }] : [],
    gratuitous: [],
    probes: [],
  },
});

test("addresses: of another segment, of somebody else, twice, and given by a station to itself", () => {
  expect(wrong(claims("10.24.20.60", ONE))).toEqual([]);
  expect(wrong(claims("10.24.30.21", ONE))).toEqual(["1 address is none of Staff."]);
  const two = [...claims("10.24.30.21", ONE).arp.claims, ...claims("10.24.30.22", TWO).arp.claims];
  expect(wrong({ arp: { claims: two } })).toEqual(["Stations of Phones are heard where Staff is planned."]);
  const own = must(printer.ipv4, "an address");
  const text = [24, 16, 8, 0].map((by) => Math.floor(Number(own) / 2 ** by) % 256).join(".");
  expect(wrong(claims(text, must(printer.mac, "a MAC")))).toEqual([]);
  expect(wrong(claims(text, ONE))).toEqual([`${ONE} says that it has ${text}, which is ${printer.name}’s.`]);
  expect(wrong(claims("10.24.20.60", ONE, TWO))).toEqual([
    "2 stations have 10.24.20.60: give all but one another address.",
  ]);
  const selfGiven = laid(claims("169.254.3.4", ONE));
  expect(selfGiven.map(({ verdict, says }) => [verdict, says])).toEqual([
    ["note", "It gave itself this address: no DHCP server answered it."],
  ]);
});

const router = (part: object) => ({
  ra: [
    {
      vid: null,
      mac: TWO,
      address: "fe80::2",
      routerLifetime: 1800,
      prefixes: [{ prefix: "fd00:9::/64" }],
      ...part,
    },
  ],
});

test("a router of IPv6 where none is planned; one that says farewell is none any more", () => {
  expect(wrong(router({}))).toEqual([expect.stringContaining(TWO)]);
  expect(wrong(router({ routerLifetime: 0 }))).toEqual([]);
});

test("a loop, and frames to one station that all get", () => {
  const again = (mostWithinOneSecond: number) => ({
    traffic: {
      ...QUIET,
      sameFrameAgain: [{ vid: null, src: ONE, dst: TWO, copies: 900, mostWithinOneSecond, overSeconds: 1 }],
    },
  });
  expect(wrong(again(700))).toEqual([expect.stringMatching(/^Frames go round/)]);
  expect(wrong(again(6))).toEqual([]);
  const flood = { traffic: { ...QUIET, unicast: [{ vid: null, src: ONE, dst: TWO, frames: 44 }] } };
  expect(wrong(flood)).toEqual([expect.stringMatching(/^Frames to 02:00:00:00:00:02 are flooded/)]);
  expect(wrong(flood, "mirror")).toEqual([]);
  const own = laidBeside(index, port, { position: "own", mac: must(parseMac(ONE), "a MAC") }, heard(flood));
  expect(own.lines.filter(({ verdict }) => verdict === "otherwise")).toEqual([]);
});

test("neighbours: the right port, another one, other gear, one that goes away, and too many", () => {
  const { device } = must(plan.port.get(port), "a port");
  const other = must(
    index.portsOf(device).find(({ id }) => id !== port),
    "another port",
  );
  const gear = must(
    [...plan.device.values()].find(({ id }) => id !== device),
    "another device",
  );
  expect(wrong({ lldp: [lldp({})] })).toEqual([]);
  // Software calls the same port otherwise than its case does.
  const { label } = must(plan.port.get(port), "a port");
  expect(wrong({ lldp: [lldp({ portId: `ge 0/0/${label}` })] })).toEqual([]);
  expect(wrong({ lldp: [lldp({ portIdSubtype: 3, portId: `02:00:00:00:00:0${other.label}` })] })).toEqual([]);
  expect(wrong({ lldp: [lldp({ pvid: 99 })] })).toEqual([
    expect.stringMatching(/ names 99; it has to be 20\.$/),
  ]);
  expect(wrong({ lldp: [lldp({ vlanNames: [{ vid: 50, name: "cards" }] })] })).toEqual([
    expect.stringMatching(/ names VLAN 50, which is not planned there\.$/),
  ]);
  expect(wrong({ lldp: [lldp({ portId: other.label })] })).toEqual([
    expect.stringMatching(/^The cable comes from /),
  ]);
  expect(wrong({ lldp: [lldp({ systemName: gear.name })] })).toEqual([
    expect.stringMatching(new RegExp(`^${gear.name} speaks here, not `)),
  ]);
  expect(wrong({ lldp: [lldp({ systemName: gear.name, shutdown: true, ttl: 0 })] })).toEqual([]);
  const many = [1, 2, 3].map((at) => lldp({ chassisId: `02:00:00:00:01:0${at}`, systemName: `desk ${at}` }));
  expect(laid({ lldp: many }).at(-1)?.says).toMatch(/^Unmanaged gear is in between/);
});

const root = (priority: number, mac: string) => ({
  vid: null,
  kind: "rstp",
  mac: TWO,
  root: { priority, ext: 0, mac },
  frames: 3,
});
const tree = (...messages: ReturnType<typeof root>[]): HeardFile => ({
  ...heard({ stp: { messages, topologyChange: { tcnFrames: 0, framesWithTcFlag: 0 } } }),
  lastRoot: must(messages.at(-1), "a message").root as HeardFile["lastRoot"],
});

test("another root than planned is told; of two that were heard the last counts", () => {
  const site = PlanIndex.of(bramblewick());
  const at = must(
    [...site.plan.port.values()].find((port) => plannedRoot(site, port) !== null && port.enabled),
    "a port of gear in a tree",
  );
  const lines = (...messages: ReturnType<typeof root>[]) =>
    laidBeside(site, at.id, { position: "access", mac: null }, tree(...messages)).lines;
  const planned = must(plannedRoot(site, at), "a root");
  const priority = Number(/\d+/.exec(planned)?.[0]);
  const [right] = lines(root(priority, ONE));
  expect([right?.planned, right?.verdict]).toEqual([planned, planned.includes(",") ? "otherwise" : "right"]);
  const [other] = lines(root(0, ONE));
  expect(other?.says).toMatch(/^The root of the tree is priority 0.*; it has to be /);
  const both = lines(root(priority, ONE), root(0, TWO));
  expect(both.map(({ about, verdict }) => [about, verdict])).toEqual([
    ["Tree root", "otherwise"],
    ["Tree roots before", "note"],
  ]);
  // The planned one came back after the other: each is told once, and the last message counts.
  const [now, before] = lines(root(priority, ONE), root(0, TWO), root(priority, ONE));
  expect([now?.heard, now?.planned]).toEqual([lines(root(priority, ONE))[0]?.heard, planned]);
  expect([before?.about, before?.heard]).toEqual(["Tree roots before", lines(root(0, TWO))[0]?.heard]);
  const { facts, ...rest } = tree(root(0, ONE));
  expect(wrong(facts, "access", rest)).toEqual([
    "Somebody speaks spanning tree here, where no tree is planned.",
  ]);
});

test("where the tap sat is guessed by who talks with whom", () => {
  const talk = (...pairs: [string, string][]) =>
    heard({
      traffic: { ...QUIET, unicast: pairs.map(([src, dst]) => ({ vid: null, src, dst, frames: 3 })) },
    });
  expect(guessTap(heard({})).position).toBe("access");
  expect(guessTap(heard({ tags: [tag(20)] })).position).toBe("trunk");
  expect(guessTap(talk([ONE, TWO]))).toEqual({ position: "access", mac: null });
  expect(guessTap(talk([ONE, TWO], [TWO, ONE])).position).toBe("own");
  expect(guessTap(talk([ONE, TWO], [TWO, ONE], ["02:00:00:00:00:03", "02:00:00:00:00:04"])).position).toBe(
    "mirror",
  );
});
