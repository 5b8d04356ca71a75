import type { CollectionKind } from "./schema/kinds";

/**
 * How many of each kind a plan may have: part of its integrity, so that whatever was accepted can be opened,
 * encoded and taken in again.
 */
export const MOST: Readonly<Record<CollectionKind, number>> = {
  domain: 64,
  zone: 256,
  room: 2000,
  hostKind: 200,
  deviceModel: 200,
  leaflet: 500,
  template: 100,
  lag: 20_000,
  radio: 15_000,
  line: 16,
  gear: 2000,
  deviceVlan: 250_000,
  vlan: 4094 * 4,
  segment: 4096,
  device: 5000,
  port: 250_000,
  link: 125_000,
  interface: 50_000,
  ssid: 256,
  host: 250_000,
  scope: 8192,
  service: 200,
  conduit: 1000,
  wall: 65_536,
  exception: 2000,
  rule: 40_000,
  signIn: 64,
  forward: 1000,
  wish: 500,
  expectation: 5000,
  acceptance: 5000,
  window: 200,
};

/** The most rules that one device's list may have. */
export const MOST_RULES = 10_000;

/** As many services as a wall, an exception, a rule or a sign-in profile takes (`wallSchema`). */
export const MOST_SERVICES = 32;
