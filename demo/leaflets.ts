import { parseIpv4 } from "../src/core/address";
import { must } from "../src/core/kernel";
import { DEVICE_MODELS } from "../src/core/catalogue";
import { BLANK_LEAFLET, type Leaflet } from "../src/core/plan";
import type { SiteBuilder } from "./site-builder";

/** Adds what the leaflet of a generic model says to a site: its first address in a /24, and more. */
function leaflet(site: SiteBuilder, model: string, address: string, fields: Partial<Leaflet>): void {
  const { model: name } = must(
    DEVICE_MODELS.find(({ id }) => id === model),
    model,
  );
  site.with((edits, id) =>
    edits.put("leaflet", {
      ...BLANK_LEAFLET,
      addressing: "fixed",
      opens: "https",
      nameMost: 32,
      address4: must(parseIpv4(address), address),
      length4: 24,
      ...fields,
      id: id("leaflet", name),
      model: name,
    }),
  );
}

/** The practice's gear, as its installer read it. */
export function leafletsOfThePractice(site: SiteBuilder): void {
  leaflet(site, "gateway-4", "192.168.205.1", { gives: "yes", startSeconds: 120, resetSeconds: 10 });
  leaflet(site, "switch-24-poe", "192.168.204.2", { startSeconds: 90, resetSeconds: 10 });
  leaflet(site, "switch-16-poe", "192.168.204.3", { startSeconds: 90, resetSeconds: 10 });
  leaflet(site, "access-point", "192.168.203.254", {
    addressing: "dhcp",
    startSeconds: 75,
    light: "its ring stops blinking",
    resetSeconds: 8,
  });
}

/** The works' ring switches give the laptop its address, and take their own only with a restart. */
export function leafletsOfTheWorks(site: SiteBuilder): void {
  leaflet(site, "switch-16", "192.168.206.1", {
    gives: "yes",
    startSeconds: 150,
    light: "the ring's light blinks slowly",
    resetSeconds: 15,
    restarts: true,
  });
}
