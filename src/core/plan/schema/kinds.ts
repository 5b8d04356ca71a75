import type { z } from "zod";
import {
  deviceModelSchema,
  deviceSchema,
  deviceVlanSchema,
  hostSchema,
  interfaceSchema,
  lagSchema,
  linkSchema,
  portSchema,
  radioSchema,
  templateSchema,
} from "./hardware";
import { lineSchema } from "./line";
import { signInSchema } from "./protection";
import { acceptanceSchema } from "./acceptance";
import { leafletSchema } from "./leaflet";
import { expectationSchema, forwardSchema, wishSchema } from "./reach";
import {
  conduitSchema,
  domainSchema,
  exceptionSchema,
  ownServiceSchema,
  scopeSchema,
  ruleSchema,
  segmentSchema,
  ssidSchema,
  vlanSchema,
  wallSchema,
  zoneSchema,
} from "./separation";
import { siteSchema } from "./site";
import { gearSchema, hostKindSchema, roomSchema } from "./survey";
import { windowSchema } from "./window";

/** Every kind of entity, each before those that refer to it. */
export const SCHEMAS = {
  site: siteSchema,
  domain: domainSchema,
  zone: zoneSchema,
  room: roomSchema,
  hostKind: hostKindSchema,
  deviceModel: deviceModelSchema,
  leaflet: leafletSchema,
  template: templateSchema,
  line: lineSchema,
  vlan: vlanSchema,
  segment: segmentSchema,
  device: deviceSchema,
  gear: gearSchema,
  deviceVlan: deviceVlanSchema,
  lag: lagSchema,
  port: portSchema,
  link: linkSchema,
  interface: interfaceSchema,
  ssid: ssidSchema,
  radio: radioSchema,
  host: hostSchema,
  scope: scopeSchema,
  service: ownServiceSchema,
  conduit: conduitSchema,
  wall: wallSchema,
  exception: exceptionSchema,
  rule: ruleSchema,
  signIn: signInSchema,
  forward: forwardSchema,
  wish: wishSchema,
  expectation: expectationSchema,
  acceptance: acceptanceSchema,
  window: windowSchema,
} as const;

export type Kind = keyof typeof SCHEMAS;
export type EntityOf<K extends Kind> = z.output<(typeof SCHEMAS)[K]>;
export type Entity = { [K in Kind]: EntityOf<K> }[Kind];
/** The kinds of which a plan has many; a plan has one site. */
export type CollectionKind = Exclude<Kind, "site">;

export const KINDS = Object.keys(SCHEMAS) as Kind[];
export const COLLECTION_KINDS = KINDS.filter((kind): kind is CollectionKind => kind !== "site");

/** The name of a kind's list in a plan file. */
export const LIST_NAMES = {
  domain: "domains",
  zone: "zones",
  room: "rooms",
  hostKind: "hostKinds",
  deviceModel: "deviceModels",
  leaflet: "leaflets",
  template: "templates",
  line: "lines",
  vlan: "vlans",
  segment: "segments",
  device: "devices",
  gear: "gear",
  deviceVlan: "deviceVlans",
  lag: "lags",
  port: "ports",
  link: "links",
  interface: "interfaces",
  ssid: "ssids",
  radio: "radios",
  host: "hosts",
  scope: "scopes",
  service: "services",
  conduit: "conduits",
  wall: "walls",
  exception: "exceptions",
  rule: "rules",
  signIn: "signIns",
  forward: "forwards",
  wish: "wishes",
  expectation: "expectations",
  acceptance: "acceptances",
  window: "windows",
} as const satisfies Record<CollectionKind, string>;

/** What a person calls one of a kind. */
export const KIND_WORDS = {
  site: "site",
  domain: "domain",
  zone: "zone",
  room: "room",
  hostKind: "kind of device",
  deviceModel: "model",
  leaflet: "leaflet",
  template: "template",
  line: "internet line",
  vlan: "VLAN",
  segment: "segment",
  device: "device",
  gear: "gear found",
  deviceVlan: "VLAN on a device",
  lag: "LAG",
  port: "port",
  link: "cable",
  interface: "interface",
  ssid: "wireless name",
  radio: "radio",
  host: "host",
  scope: "scope",
  service: "service",
  conduit: "conduit",
  wall: "wall",
  exception: "exception",
  rule: "rule",
  signIn: "sign-in profile",
  forward: "forward",
  wish: "wish",
  expectation: "kept probe",
  acceptance: "accepted finding",
  window: "window",
} as const satisfies Record<Kind, string>;
