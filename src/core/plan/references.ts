import type { EntityOf, Kind } from "./schema/kinds";

export interface Reference {
  readonly field: string;
  readonly kind: Kind;
  readonly id: string;
}

const to = (field: string, kind: Kind, id: string | null): Reference[] =>
  id === null ? [] : [{ field, kind, id }];

const each = (field: string, kind: Kind, ids: readonly string[]): Reference[] =>
  ids.map((id) => ({ field, kind, id }));

const wallEnd = (field: string, end: EntityOf<"wall">["from"]): Reference[] =>
  end.at === "zone" ? to(field, "zone", end.zone) : [];

type Question = EntityOf<"expectation">["question"];

function askerOf(from: Question["from"]): Reference[] {
  switch (from.at) {
    case "port":
      return to("from", "port", from.port);
    case "host":
      return to("from", "host", from.host);
    case "internet":
      return to("from", "line", from.line);
    case "ssid":
      return [...to("from", "ssid", from.ssid), ...to("from", "device", from.device)];
  }
}

function goalOf(goal: Question["goal"]): Reference[] {
  switch (goal.to) {
    case "host":
      return to("goal", "host", goal.host);
    case "device":
      return to("goal", "device", goal.device);
    case "forward":
      return to("goal", "forward", goal.forward);
    case "port":
      return to("goal", "port", goal.port);
    case "address":
    case "internet":
    case "gateway":
      return [];
  }
}

function attachmentOf(at: EntityOf<"host">["attachment"]): Reference[] {
  switch (at.at) {
    case "port":
      return to("attachment", "port", at.port);
    case "ssid":
      return [...to("attachment", "ssid", at.ssid), ...to("attachment", "device", at.accessPoint)];
    case "behind":
      return to("attachment", "host", at.host);
    case "unplaced":
      return [];
  }
}

/** What each kind's entities point at. A kind that is missing here points at nothing. */
const REFERENCES: { readonly [K in Kind]: (entity: EntityOf<K>) => Reference[] } = {
  site: () => [],
  domain: () => [],
  zone: () => [],
  line: () => [],
  room: (r) => [...to("cabinet", "room", r.cabinet), ...each("beside", "room", r.beside)],
  hostKind: () => [],
  deviceModel: () => [],
  template: () => [],
  gear: (g) => [...to("room", "room", g.room), ...to("device", "device", g.device)],
  deviceVlan: (v) => to("device", "device", v.device),
  vlan: (v) => to("domain", "domain", v.domain),
  segment: (s) => [
    ...to("zone", "zone", s.zone),
    ...to("vlan", "vlan", s.vlan),
    ...to("gatewayInterface", "interface", s.gatewayInterface),
  ],
  device: (d) => [
    ...to("domain", "domain", d.domain),
    ...each("hears", "device", d.hears),
    ...each("protections", "host", d.protections.bound),
    ...to("asksFrom", "interface", d.asksFrom),
  ],
  lag: (l) => to("device", "device", l.device),
  port: (p) => [
    ...to("device", "device", p.device),
    ...to("lag", "lag", p.lag),
    ...to("guards", "signIn", p.guards.profile),
  ],
  link: (l) => [...to("a", "port", l.a), ...to("b", "port", l.b)],
  interface: (i) => [
    ...to("device", "device", i.device),
    ...to("port", "port", i.port),
    ...to("segment", "segment", i.segment),
    ...to("line", "line", i.line),
  ],
  ssid: (s) => [
    ...to("segment", "segment", s.segment),
    ...each("moreSegments", "segment", s.moreSegments),
    ...each("at", "device", s.at),
  ],
  radio: (r) => to("device", "device", r.device),
  host: (h) => [
    ...to("segment", "segment", h.segment),
    ...to("surveyed", "room", h.surveyed?.room ?? null),
    ...attachmentOf(h.attachment),
  ],
  scope: (s) => [
    ...to("segment", "segment", s.segment),
    ...to("serverDevice", "device", s.serverDevice),
    ...to("serverHost", "host", s.serverHost),
  ],
  wall: (w) => [...wallEnd("from", w.from), ...wallEnd("to", w.to)],
  signIn: (s) => each("servers", "host", s.servers),
  forward: (f) => [...to("line", "line", f.line), ...to("host", "host", f.host)],
  expectation: ({ question: { from, goal }, segment }) => [
    ...to("segment", "segment", segment),
    ...askerOf(from),
    ...goalOf(goal),
  ],
};

/** Which kinds can point at each kind: where to look before something is deleted. */
export const REFERRERS: { readonly [K in Kind]: readonly Exclude<Kind, "site">[] } = {
  site: [],
  room: ["room", "gear", "host"],
  hostKind: [],
  deviceModel: [],
  template: [],
  gear: [],
  deviceVlan: [],
  domain: ["vlan", "device"],
  zone: ["segment", "wall"],
  line: ["interface", "forward", "expectation"],
  vlan: ["segment"],
  segment: ["interface", "ssid", "host", "scope", "expectation"],
  device: [
    "device",
    "lag",
    "port",
    "interface",
    "scope",
    "gear",
    "deviceVlan",
    "ssid",
    "radio",
    "host",
    "expectation",
  ],
  lag: ["port"],
  port: ["link", "interface", "host", "expectation"],
  link: [],
  interface: ["segment", "device"],
  ssid: ["host", "expectation"],
  radio: [],
  host: ["host", "scope", "device", "signIn", "forward", "expectation"],
  scope: [],
  wall: [],
  signIn: ["port"],
  forward: ["expectation"],
  expectation: [],
};

export const referencesOf = <K extends Kind>(kind: K, entity: EntityOf<K>): Reference[] =>
  REFERENCES[kind](entity);
