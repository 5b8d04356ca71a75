import { ipv4, prefixOf, type Ipv4, type Prefix4, parseMac } from "../src/core/address";
import { encodePlan, openPlan } from "../src/core/formats";
import { must } from "../src/core/kernel";
import {
  NO_GUARDS,
  BLANK_LINE,
  BLANK_TREE,
  PlanIndex,
  vid as asVid,
  type CollectionKind,
  type EntityOf,
  type Plan,
  type Port,
  type Vid,
} from "../src/core/plan";
import {
  aDevice,
  aDomain,
  aHost,
  aLink,
  anInterface,
  aPort,
  aScope,
  aSegment,
  aSite,
  aVlan,
  aZone,
  planWith,
  testId,
} from "../src/core/testing/build-plan";

export interface Size {
  readonly name: string;
  readonly switches: number;
  readonly ports: number;
  readonly vlans: number;
  readonly addresses: number;
  readonly walls: number;
}

/** The three sizes that speed is measured at. */
export const SIZES: readonly Size[] = [
  { name: "office", switches: 12, ports: 400, vlans: 12, addresses: 300, walls: 60 },
  { name: "campus", switches: 200, ports: 9_600, vlans: 120, addresses: 5_000, walls: 400 },
  { name: "estate", switches: 1_000, ports: 48_000, vlans: 1_000, addresses: 50_000, walls: 5_000 },
];

const EDGE = {
  ...NO_GUARDS,
  edge: true,
  bpduGuard: true,
  macLimit: 1,
};
const address = (n: number): Ipv4 => must(ipv4(n), "an address");
const subnet = (i: number): Prefix4 => {
  const prefix = prefixOf(address(10 * 2 ** 24 + i * 256), 24);
  return must(prefix?.family === 4 ? prefix : null, "a subnet");
};
const mac = (n: number) => must(parseMac((0x02_00_00_00_00_00 + n).toString(16).padStart(12, "0")), "a MAC");

/**
 * From ids of words, spread over all their bits, to ids as a real plan has them: in the order of making
 * (RFC 9562, version 7).
 */
function dated(plan: Plan): Plan {
  const ids = new Map<string, string>();
  const made = (id: string): string => {
    const n = ids.size;
    // Two hundred rows a millisecond, as a batch makes them.
    const time = (1_790_000_000_000 + Math.floor(n / 200)).toString(16).padStart(12, "0");
    const count = (n % 200).toString(16).padStart(3, "0");
    const dated = `${time.slice(0, 8)}-${time.slice(8)}-7${count}-${id.slice(19)}`;
    ids.set(id, dated);
    return dated;
  };
  const text = JSON.stringify(encodePlan(plan)).replaceAll(
    /"[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}"/g,
    (quoted) => {
      const id = quoted.slice(1, -1);
      return `"${ids.get(id) ?? made(id)}"`;
    },
  );
  const read = openPlan(JSON.parse(text));
  return PlanIndex.of(must(read.ok ? read.value : null, "the same plan with other ids")).plan;
}

/**
 * A sound three-layer site without any randomness: a core switch with the gateway, distribution switches of
 * twenty, access switches of twelve VLANs each; every trunk carries exactly what lies behind it.
 */
export function generate({ switches, ports, vlans, addresses, walls }: Size): Plan {
  const domain = aDomain();
  const vids = Array.from({ length: vlans }, (_, i): Vid => must(asVid(i + 2), "a VID"));
  const zones = Array.from({ length: Math.min(vlans, 80) }, (_, i) =>
    aZone({ id: testId("zone", `${i}`), name: `Zone ${i}` }),
  );
  const zoneOf = (i: number) => must(zones[i % zones.length], "a zone").id;
  const vlanList = vids.map((vid) => aVlan({ vid, domain: domain.id }));
  const gateway = aDevice({ name: "Gateway", kind: "gateway", domain: domain.id });
  const names = Array.from({ length: switches }, (_, i) => `Switch ${i}`);
  const devices = [
    gateway,
    ...names.map((name, i) =>
      aDevice({
        name,
        domain: domain.id,
        tree: { ...BLANK_TREE, kind: "rapid", priority: [4096, 8192][i] ?? 32_768 },
      }),
    ),
  ];
  const parentOf = (i: number) => {
    if (i === 0) return -1;
    if (i < switches / 20 + 1) return 0;
    return 1 + (i % Math.max(1, Math.floor(switches / 20)));
  };
  const used = names.map((_, i) =>
    vids.filter((_v, k) => k < 2 || (k + i) % Math.max(1, Math.floor(vlans / 10)) === 0),
  );
  const carried = used.map((list) => new Set<Vid>(list));
  for (let i = switches - 1; i > 0; i -= 1)
    for (const vid of carried[i] ?? []) carried[parentOf(i)]?.add(vid);
  const sorted = (set: Iterable<Vid> | undefined) => [...(set ?? [])].sort((a, b) => a - b);
  const portList: Port[] = [];
  const access: { port: string; vlan: number }[] = [];
  const links: EntityOf<"link">[] = [];
  const join = (a: string, b: string, tagged: Vid[]) => {
    const trunk = (device: string, far: string) =>
      aPort({
        id: testId("port", `${device}>${far}`),
        device: testId("device", device),
        label: `to ${far}`.slice(0, 24),
        position: 500,
        tagged,
      });
    const [near, far] = [trunk(a, b), trunk(b, a)];
    portList.push(near, far);
    links.push(aLink({ a: near.id, b: far.id }));
  };
  const wan = aPort({ device: gateway.id, label: "WAN", position: 1 });
  portList.push(wan);
  join("Gateway", names[0] ?? "", vids);
  for (let i = 1; i < switches; i += 1) join(names[parentOf(i)] ?? "", names[i] ?? "", sorted(carried[i]));
  const each = Math.floor((ports - portList.length) / switches);
  for (const [i, name] of names.entries()) {
    for (let n = 0; n < each; n += 1) {
      const list = used[i] ?? [];
      const vid = must(list[n % list.length], "a VLAN");
      const port = aPort({
        id: testId("port", `${name}/${n}`),
        device: testId("device", name),
        label: String(n + 1),
        pvid: vid,
        untagged: [vid],
        guards: EDGE,
      });
      portList.push(port);
      access.push({ port: port.id, vlan: vid - 2 });
    }
  }
  const segments = vids.map((_, i) =>
    aSegment({
      name: `Segment ${i}`,
      vlan: must(vlanList[i], "a VLAN").id,
      zone: zoneOf(i),
      prefixes4: [subnet(i)],
      gatewayInterface: testId("interface", `leg ${i}`),
      planned: 40,
      dns: [address(subnet(i).network + 1)],
    }),
  );
  const legs = segments.map((segment, i) =>
    anInterface({
      id: testId("interface", `leg ${i}`),
      device: gateway.id,
      name: segment.name,
      segment: segment.id,
      addresses4: [address(subnet(i).network + 1)],
    }),
  );
  const line = { ...BLANK_LINE, id: testId("line", "line"), name: "Line" };
  legs.push(
    anInterface({
      device: gateway.id,
      name: "outside",
      port: wan.id,
      line: line.id,
      addresses4: [address(203 * 2 ** 24 + 113 * 256 + 9)],
    }),
  );
  const scopes = segments.map((segment, i) =>
    aScope({
      segment: segment.id,
      serverDevice: gateway.id,
      pools: [{ first: address(subnet(i).network + 150), last: address(subnet(i).network + 250) }],
    }),
  );
  const perVlan = new Map<number, number>();
  const hosts = access.slice(0, Math.min(addresses, access.length)).map(({ port, vlan }, n) => {
    const last = 2 + (perVlan.get(vlan) ?? 0);
    perVlan.set(vlan, last - 1);
    const fixed = last < 150;
    return aHost({
      id: testId("host", `${n}`),
      name: `host-${n}`,
      mac: mac(n),
      segment: must(segments[vlan], "a segment").id,
      attachment: { at: "port", port },
      manner: fixed ? "typed" : "dynamic",
      ipv4: fixed ? address(subnet(vlan).network + last) : null,
    });
  });
  const wallList = zones
    .flatMap((from) => zones.map((to) => ({ from, to })))
    .filter(({ from, to }) => from !== to)
    .slice(0, walls)
    .map(({ from, to }): EntityOf<"wall"> => ({
      id: testId("wall", `${from.id}${to.id}`),
      from: { at: "zone", zone: from.id },
      to: { at: "zone", zone: to.id },
      door: "open",
      services: [],
      reason: "",
      conduit: null,
    }));
  for (const zone of zones)
    wallList.push({
      id: testId("wall", `${zone.id} out`),
      from: { at: "zone", zone: zone.id },
      to: { at: "internet" },
      door: "open",
      services: [],
      reason: "",
      conduit: null,
    });
  const entities: { [K in CollectionKind]?: readonly EntityOf<K>[] } = {
    domain: [domain],
    zone: zones,
    line: [line],
    vlan: vlanList,
    segment: segments,
    device: devices,
    port: portList,
    link: links,
    interface: legs,
    host: hosts,
    scope: scopes,
    wall: wallList,
  };
  return dated(planWith({ ...entities, site: aSite() }));
}

/** The generated plan of a size, by its name. */
export const sized = (name: string): Plan =>
  generate(
    must(
      SIZES.find((size) => size.name === name),
      name,
    ),
  );
