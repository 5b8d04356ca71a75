// What slips are made of: the parts of the first demo site by their names, and what is put wrong there often.
import { formatAddress } from "../address";
import { must } from "../kernel";
import {
  BLANK_EXCEPTION,
  USUAL_METRIC,
  applyChanges,
  BLANK_FORWARD,
  BLANK_HOST,
  BLANK_LINK,
  BLANK_SIGN_IN,
  BLANK_TREE,
  PlanEdits,
  type Device,
  type Host,
  type Port,
  USUAL_ABILITIES,
  type Line,
  type Link,
  type Optic,
  PlanIndex,
  type CollectionKind,
  type EntityOf,
  type Plan,
} from "../plan";
import { addDevice, adoptPlanned, makeTunnel, readRuleTable } from "../planners";
import { testId } from "./build-plan";
import { ip, net, v } from "./written";

export const apply = (plan: Plan, edits: PlanEdits): Plan => {
  const result = applyChanges(plan, edits.changes());
  return must(result.ok ? result.value : null, result.ok ? "" : JSON.stringify(result.error));
};
export const find = <K extends CollectionKind>(edits: PlanEdits, kind: K, name: string): EntityOf<K> =>
  must(
    edits.all(kind).find((e) => "name" in e && e.name === name),
    `${kind} ${name}`,
  );
export const portOf = (edits: PlanEdits, device: string, label: string) =>
  must(
    edits.all("port").find((p) => p.device === find(edits, "device", device).id && p.label === label),
    `${device} ${label}`,
  );
export const scopeOf = (edits: PlanEdits, segment: string) =>
  must(
    edits.all("scope").find((s) => s.segment === find(edits, "segment", segment).id),
    segment,
  );
export const range = (a: string, b: string) => ({ first: ip(a), last: ip(b) });

/** Adds a tunnel for people, and gives its segment. */
export const tunnelIn = (d: PlanEdits): string => {
  let n = 0;
  const ids = () => testId("interface", `tunnel ${(n += 1)}`);
  const made = makeTunnel(
    { edits: d, ids },
    { name: "Family abroad", device: find(d, "device", "Gateway").id },
  );
  return typeof made === "string" ? made : made.id;
};
/** Adds an exception by which the lodger's segment reaches the kiln. */
export const exceptionIn = (d: PlanEdits, fields: Partial<EntityOf<"exception">>) =>
  d.put("exception", {
    id: testId("exception", "kiln"),
    name: "Lodger's kiln",
    from: { at: "segment", segment: find(d, "segment", "Lodger").id },
    to: { at: "host", host: find(d, "host", "kiln-controller").id },
    ...BLANK_EXCEPTION,
    services: [{ name: "https", protocol: "tcp", ports: [[443, 443]] }],
    ...fields,
  });
export const watched = (d: PlanEdits, watch: Partial<Line["watch"]>) => {
  const line = find(d, "line", "Fibre line");
  d.patch("line", line.id, { watch: { ...line.watch, ...watch } });
};
export const pinned = (d: PlanEdits, line: string, pin: Line["pins"][number]) =>
  d.patch("line", find(d, "line", line).id, { pins: [pin] });

export const routeOn = (
  d: PlanEdits,
  prefix: string,
  via: string,
  device = find(d, "device", "Gateway").id,
) =>
  d.patch("device", device, {
    routes: [{ prefix: net(prefix), via: ip(via), metric: USUAL_METRIC }],
  });

/** Some phones in the household, plugged in nowhere yet. */
export function phonesAtHome(d: PlanEdits, count: number): void {
  for (let at = 0; at < count; at += 1)
    d.put("host", {
      ...BLANK_HOST,
      id: testId("host", `phone ${at}`),
      name: `phone-${at}`,
      kind: "phone",
      segment: find(d, "segment", "Household").id,
    });
}

export const legOf = (d: PlanEdits, device: string) =>
  must(
    d.all("interface").find((leg) => leg.device === find(d, "device", device).id),
    device,
  );
/** Lets the hall's switch route; its address. */
export const routingSwitch = (d: PlanEdits): string => {
  d.patch("device", find(d, "device", "Hall switch").id, { abilities: { ...USUAL_ABILITIES, routes: true } });
  return formatAddress(must(legOf(d, "Hall switch").addresses4[0], "its address"));
};

export const fixedHost = (d: PlanEdits): Host =>
  must(
    d
      .all("host")
      .find(({ manner, ipv4, kind }) => manner !== "dynamic" && ipv4 !== null && kind !== "camera"),
    "a host with a fixed address",
  );

/** A forward of the home's fibre line. */
export function forwardTo(d: PlanEdits, host: Host, fields: Partial<EntityOf<"forward">>): void {
  const name = fields.name ?? "Kiln page";
  d.put("forward", {
    ...BLANK_FORWARD,
    id: testId("forward", name),
    line: find(d, "line", "Fibre line").id,
    host: host.id,
    ports: [8443, 8443],
    ...fields,
    name,
  });
}

/** The rules that the home's walls need stand on its gateway, and one more. */
export function listWith(d: PlanEdits, place: number, row: readonly string[]): void {
  let count = 0;
  const ids = () => testId("rule", `${(count += 1)}`);
  const index = PlanIndex.of(d.plan);
  const device = find(d, "device", "Gateway").id;
  const refusal = adoptPlanned({ edits: d, index, ids }, device);
  must(refusal === null ? device : null, "the gateway's list");
  const read = readRuleTable(index, [row]);
  const [rule] = typeof read === "string" ? [] : read.rules;
  d.put("rule", { ...must(rule, "the rule is read"), id: ids(), device, place });
}

/** A second switch in a barn, joined by fibre to the hall's. */
export function fibreTo(d: PlanEdits, link: Partial<Link>, near: Optic, far: Optic): void {
  let n = 0;
  addDevice(
    { edits: d, index: PlanIndex.of(d.plan), ids: () => testId("barn", `${(n += 1)}`) },
    { model: "switch-16", name: "Barn switch", place: "Barn" },
  );
  for (const port of d.all("port").filter((p) => p.device === find(d, "device", "Barn switch").id))
    d.patch("port", port.id, { enabled: port.label === "17" });
  const [a, b] = [portOf(d, "Hall switch", "17"), portOf(d, "Barn switch", "17")];
  d.patch("port", a.id, { enabled: true, tagged: [v(20)], optic: near });
  d.patch("port", b.id, { tagged: [v(20)], optic: far });
  d.patch("device", find(d, "device", "Barn switch").id, { domain: find(d, "device", "Hall switch").domain });
  leg(d, "Barn switch", "Household");
  d.put("link", { ...BLANK_LINK, id: testId("link", "barn"), a: a.id, b: b.id, medium: "fibre", ...link });
}

function leg(d: PlanEdits, device: string, segment: string): void {
  d.put("interface", {
    id: testId("interface", device),
    device: find(d, "device", device).id,
    port: null,
    segment: find(d, "segment", segment).id,
    line: null,
    name: segment,
    mac: null,
    addresses4: [ip("172.19.20.5")],
    addresses6: [],
    relayTo: null,
    translates: "asUsual",
  });
}

export function secondFibre(d: PlanEdits): void {
  const [a, b] = [portOf(d, "Hall switch", "18"), portOf(d, "Barn switch", "18")];
  for (const port of [a, b])
    d.patch("port", port.id, { enabled: true, tagged: [v(20)], optic: "10GBASE-SR" });
  d.put("link", { ...BLANK_LINK, id: testId("link", "barn 2"), a: a.id, b: b.id, medium: "fibre" });
}

export function lagOf(d: PlanEdits, device: string, labels: readonly string[]): void {
  const lag = d.put("lag", {
    id: testId("lag", device),
    device: find(d, "device", device).id,
    name: "LAG 1",
    mode: "active",
  });
  const first = portOf(d, device, labels[0] ?? "");
  for (const label of labels)
    d.patch("port", portOf(d, device, label).id, {
      lag: lag.id,
      pvid: first.pvid,
      untagged: first.untagged,
      tagged: first.tagged,
      admit: first.admit,
      enabled: first.enabled,
    });
}

/** A second cable from the barn to the gateway: the way round, which lacks what the first carries. */
export function ring(d: PlanEdits): void {
  fibreTo(d, { cable: "om3" }, "10GBASE-SR", "10GBASE-SR");
  const [a, b] = [portOf(d, "Gateway", "2"), portOf(d, "Barn switch", "1")];
  for (const port of [a, b]) d.patch("port", port.id, { enabled: true, tagged: [v(30)] });
  d.put("link", { ...BLANK_LINK, id: testId("link", "ring"), a: a.id, b: b.id });
  trees(d, { Gateway: 4096, "Hall switch": 8192, "Barn switch": 32_768 });
  d.patch("port", b.id, { treeCost: 2_000_000 });
}

export const radioOf = (d: PlanEdits, device: string, band: string) =>
  must(
    d.all("radio").find((r) => r.device === find(d, "device", device).id && r.band === band),
    `${device} ${band}`,
  );

/** What a device says it has created, under the plan's names. */
export function createdOn(d: PlanEdits, device: string, vids: readonly number[]): string[] {
  const owner = find(d, "device", device).id;
  return vids.map(
    (vid) =>
      d.put("deviceVlan", {
        id: testId("deviceVlan", `${device} ${vid}`),
        device: owner,
        vid: v(vid),
        name: must(
          d.all("vlan").find((vlan) => vlan.vid === vid),
          `VLAN ${vid}`,
        ).name,
      }).id,
  );
}

/** Runs a spanning tree on devices, with a priority each. */
export function trees(
  d: PlanEdits,
  priorities: Readonly<Record<string, number>>,
  fields: Partial<Device["tree"]> = {},
): void {
  for (const [name, priority] of Object.entries(priorities))
    d.patch("device", find(d, "device", name).id, {
      tree: { ...BLANK_TREE, kind: "rapid", ...fields, priority },
    });
}
export const guard = (d: PlanEdits, device: string, label: string, guards: Partial<Port["guards"]>) =>
  d.patch("port", portOf(d, device, label).id, { guards: { ...portOf(d, device, label).guards, ...guards } });
export const protect = (d: PlanEdits, device: string, fields: Partial<Device["protections"]>) => {
  d.patch("device", find(d, "device", device).id, {
    protections: { ...find(d, "device", device).protections, ...fields },
  });
};
/** The study's PC with an address entered on it. */
export const static4 = (d: PlanEdits, fields: Partial<Host>) =>
  d.patch("host", find(d, "host", "study-pc").id, { manner: "typed", ipv4: ip("172.19.20.9"), ...fields });
export const profile = (d: PlanEdits, port: number) => ({
  ...BLANK_SIGN_IN,
  id: testId("signIn", "House"),
  name: "House",
  servers: [find(d, "host", "study-pc").id],
  port,
  byMac: true,
});
/** A second cable from the gateway to the hall switch. */
/** A new switch on two cables, at ports that nobody has decided. */
export function undecidedPair(d: PlanEdits): void {
  const spare = d.put("device", {
    ...find(d, "device", "Hall switch"),
    id: testId("device", "spare"),
    name: "Spare switch",
    rackUnit: null,
    position: null,
    feed: "",
  });
  const undecided = { tagged: [], untagged: [], pvid: null, enabled: true, lag: null };
  for (const [n, label] of ["9", "10"].entries()) {
    const far = d.put("port", { ...portOf(d, "Hall switch", label), ...undecided });
    const own = d.put("port", {
      ...far,
      id: testId("port", `spare ${n}`),
      device: spare.id,
      label: `${n + 1}`,
      position: n + 1,
    });
    d.put("link", { ...BLANK_LINK, id: testId("link", `spare ${n}`), a: own.id, b: far.id });
  }
}
export function secondCable(d: PlanEdits): void {
  const like = portOf(d, "Hall switch", "1");
  for (const [device, label] of [
    ["Gateway", "2"],
    ["Hall switch", "9"],
  ] as const) {
    const { tagged, untagged, pvid, admit, guards, enabled } = like;
    d.patch("port", portOf(d, device, label).id, { tagged, untagged, pvid, admit, guards, enabled });
  }
  d.put("link", {
    ...BLANK_LINK,
    id: testId("link", "second"),
    a: portOf(d, "Gateway", "2").id,
    b: portOf(d, "Hall switch", "9").id,
  });
}
/** Switches in a chain behind the hall switch. */
export function attic(d: PlanEdits, count: number): void {
  const like = find(d, "device", "Hall switch");
  let before = portOf(d, "Hall switch", "9");
  const trunk = {
    tagged: [v(20)],
    untagged: [],
    pvid: null,
    admit: "tagged" as const,
    guards: portOf(d, "Hall switch", "1").guards,
    enabled: true,
  };
  d.patch("port", before.id, trunk);
  for (let i = 1; i <= count; i += 1) {
    const device = d.put("device", {
      ...like,
      id: testId("device", `attic ${i}`),
      name: `Attic switch ${i}`,
      rackUnit: null,
      position: null,
      feed: "",
    });
    const port = (label: string) =>
      d.put("port", {
        ...before,
        ...trunk,
        id: testId("port", `attic ${i} ${label}`),
        device: device.id,
        label,
        softwareName: `a${label}`,
        position: Number(label),
      });
    const [up, down] = [port("1"), port("2")];
    d.put("link", { ...BLANK_LINK, id: testId("link", `attic ${i}`), a: before.id, b: up.id });
    before = down;
  }
}
/** Lets a switch route between segments, as their gateway. */
export function routesBetween(d: PlanEdits, name: string, segments: readonly string[]): void {
  const device = find(d, "device", name);
  d.patch("device", device.id, { abilities: { ...device.abilities, routes: true } });
  for (const segment of segments) {
    const own = find(d, "segment", segment);
    const leg = must(d.get("interface", own.gatewayInterface ?? ""), "a leg");
    const made = d.put("interface", {
      ...leg,
      id: testId("interface", `${name} ${segment}`),
      device: device.id,
      mac: null,
      addresses4: [ip(formatAddress(must(leg.addresses4[0], "an address")).replace(/\.1$/, ".2"))],
    });
    d.patch("segment", own.id, { gatewayInterface: made.id });
  }
}
