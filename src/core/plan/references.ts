import type { EntityOf, Kind } from "./schema/kinds";

export interface Reference {
  readonly field: string;
  readonly kind: Kind;
  readonly id: string;
}

/** Told of each reference; null is a field that points nowhere. */
type Visit = (field: string, kind: Kind, id: string | null) => void;

function each(to: Visit, field: string, kind: Kind, ids: readonly string[]): void {
  for (const id of ids) to(field, kind, id);
}

function wallEnd(to: Visit, field: string, end: EntityOf<"wall">["from"]): void {
  if (end.at === "zone") to(field, "zone", end.zone);
}

function ruleSide(to: Visit, field: string, side: EntityOf<"rule">["from"][number]): void {
  switch (side.at) {
    case "zone":
      return to(field, "zone", side.zone);
    case "segment":
      return to(field, "segment", side.segment);
    case "host":
      return to(field, "host", side.host);
    case "prefix":
    case "internet":
    case "gateway":
      return;
  }
}

function pin(to: Visit, pinned: EntityOf<"line">["pins"][number]): void {
  switch (pinned.what) {
    case "segment":
      return to("pins", "segment", pinned.segment);
    case "host":
      return to("pins", "host", pinned.host);
    case "service":
      return;
  }
}

type Question = EntityOf<"expectation">["question"];

function asker(to: Visit, from: Question["from"]): void {
  switch (from.at) {
    case "port":
      return to("from", "port", from.port);
    case "host":
      return to("from", "host", from.host);
    case "internet":
      return to("from", "line", from.line);
    case "tunnel":
      return to("from", "segment", from.segment);
    case "ssid":
      to("from", "ssid", from.ssid);
      return to("from", "device", from.device);
  }
}

function goal(to: Visit, asked: Question["goal"]): void {
  switch (asked.to) {
    case "host":
      return to("goal", "host", asked.host);
    case "device":
      return to("goal", "device", asked.device);
    case "forward":
      return to("goal", "forward", asked.forward);
    case "port":
      return to("goal", "port", asked.port);
    case "address":
    case "internet":
    case "gateway":
      return;
  }
}

function attachment(to: Visit, at: EntityOf<"host">["attachment"]): void {
  switch (at.at) {
    case "port":
      return to("attachment", "port", at.port);
    case "ssid":
      to("attachment", "ssid", at.ssid);
      return to("attachment", "device", at.accessPoint);
    case "behind":
      return to("attachment", "host", at.host);
    case "unplaced":
      return;
  }
}

const nothing = () => undefined;

/** What each kind's entities point at. */
const REFERENCES: { readonly [K in Kind]: (entity: EntityOf<K>, to: Visit) => void } = {
  site: nothing,
  domain: nothing,
  zone: nothing,
  line: (l, to) => {
    for (const pinned of l.pins) pin(to, pinned);
  },
  room: (r, to) => {
    to("cabinet", "room", r.cabinet);
    each(to, "beside", "room", r.beside);
  },
  hostKind: nothing,
  deviceModel: nothing,
  leaflet: nothing,
  template: nothing,
  gear: (g, to) => {
    to("room", "room", g.room);
    to("device", "device", g.device);
  },
  deviceVlan: (v, to) => to("device", "device", v.device),
  vlan: (v, to) => to("domain", "domain", v.domain),
  segment: (s, to) => {
    to("zone", "zone", s.zone);
    to("vlan", "vlan", s.vlan);
    to("gatewayInterface", "interface", s.gatewayInterface);
    if (s.tunnel !== null) to("tunnel", "line", s.tunnel.line);
  },
  device: (d, to) => {
    to("domain", "domain", d.domain);
    each(to, "hears", "device", d.hears);
    each(to, "repeatsDiscovery", "segment", d.repeatsDiscovery);
    each(to, "protections", "host", d.protections.bound);
    each(to, "adminSignIn", "host", d.adminSignIn.servers);
    to("asksFrom", "interface", d.asksFrom);
  },
  lag: (l, to) => to("device", "device", l.device),
  port: (p, to) => {
    to("device", "device", p.device);
    to("lag", "lag", p.lag);
    to("guards", "signIn", p.guards.profile);
  },
  link: (l, to) => {
    to("a", "port", l.a);
    to("b", "port", l.b);
  },
  interface: (i, to) => {
    to("device", "device", i.device);
    to("port", "port", i.port);
    to("segment", "segment", i.segment);
    to("line", "line", i.line);
  },
  ssid: (s, to) => {
    to("segment", "segment", s.segment);
    each(to, "moreSegments", "segment", s.moreSegments);
    to("profile", "signIn", s.profile);
    each(to, "at", "device", s.at);
  },
  radio: (r, to) => to("device", "device", r.device),
  host: (h, to) => {
    to("segment", "segment", h.segment);
    if (h.surveyed !== null) to("surveyed", "room", h.surveyed.room);
    attachment(to, h.attachment);
  },
  scope: (s, to) => {
    to("segment", "segment", s.segment);
    to("serverDevice", "device", s.serverDevice);
    to("serverHost", "host", s.serverHost);
  },
  service: nothing,
  conduit: nothing,
  wall: (w, to) => {
    to("conduit", "conduit", w.conduit);
    wallEnd(to, "from", w.from);
    wallEnd(to, "to", w.to);
  },
  exception: (e, to) => {
    to("conduit", "conduit", e.conduit);
    ruleSide(to, "from", e.from);
    ruleSide(to, "to", e.to);
  },
  rule: (r, to) => {
    to("device", "device", r.device);
    for (const side of r.from) ruleSide(to, "from", side);
    for (const side of r.to) ruleSide(to, "to", side);
  },
  signIn: (s, to) => each(to, "servers", "host", s.servers),
  forward: (f, to) => {
    to("line", "line", f.line);
    to("host", "host", f.host);
  },
  wish: (w, to) => to("host", "host", w.host),
  acceptance: nothing,
  window: (w, to) => each(to, "segments", "segment", w.segments),
  expectation: ({ question, segment }, to) => {
    to("segment", "segment", segment);
    asker(to, question.from);
    goal(to, question.goal);
  },
};

/** Which kinds can point at each kind: where to look before something is deleted. */
export const REFERRERS: { readonly [K in Kind]: readonly Exclude<Kind, "site">[] } = {
  site: [],
  room: ["room", "gear", "host"],
  hostKind: [],
  deviceModel: [],
  leaflet: [],
  template: [],
  gear: [],
  deviceVlan: [],
  domain: ["vlan", "device"],
  zone: ["segment", "wall", "exception", "rule"],
  line: ["interface", "segment", "forward", "expectation"],
  vlan: ["segment"],
  segment: [
    "line",
    "interface",
    "device",
    "ssid",
    "host",
    "scope",
    "exception",
    "rule",
    "expectation",
    "window",
  ],
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
    "rule",
    "expectation",
  ],
  lag: ["port"],
  port: ["link", "interface", "host", "expectation"],
  link: [],
  interface: ["segment", "device"],
  ssid: ["host", "expectation"],
  radio: [],
  host: ["line", "host", "scope", "device", "signIn", "exception", "rule", "forward", "wish", "expectation"],
  scope: [],
  service: [],
  conduit: ["wall", "exception"],
  wall: [],
  exception: [],
  rule: [],
  signIn: ["port", "ssid"],
  forward: ["expectation"],
  wish: [],
  expectation: [],
  acceptance: [],
  window: [],
};

/** What an entity points at. */
export function referencesOf<K extends Kind>(kind: K, entity: EntityOf<K>): Reference[] {
  const found: Reference[] = [];
  REFERENCES[kind](entity, (field, to, id) => {
    if (id !== null) found.push({ field, kind: to, id });
  });
  return found;
}

/**
 * Whether all that the entities point at is there, asked in one go of many: `has` says whether the plan has an
 * entity of that kind. Who asks: the opening of a stored plan, which makes no list of what it only looks at.
 */
export function allThere<K extends Kind>(
  kind: K,
  entities: Iterable<EntityOf<K>>,
  has: (kind: Kind, id: string) => boolean,
): boolean {
  let there = true;
  const look: Visit = (_, to, id) => {
    if (id !== null && !has(to, id)) there = false;
  };
  const visit = REFERENCES[kind];
  for (const entity of entities) visit(entity, look);
  return there;
}
