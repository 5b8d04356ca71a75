import { parseAddress } from "../address";
import { must } from "../kernel";
import type { Baseline, Device, PlanEdits } from "../plan";
import { testId } from "./build-plan";
import type { Slip } from "./slips-of-walls";

/** The home's hall switch with something of its baseline set. */
function onHall(d: PlanEdits, baseline: Partial<Baseline>, fields: Partial<Device> = {}): void {
  const hall = must(
    d.all("device").find(({ name }) => name === "Hall switch"),
    "the hall switch",
  );
  d.patch("device", hall.id, { ...fields, baseline: { ...hall.baseline, ...baseline } });
}

const decide = (d: PlanEdits, baseline: Partial<Baseline>): void => {
  const site = d.need("site", d.plan.site.id);
  d.put("site", { ...site, baseline: { ...site.baseline, ...baseline } });
};

/** Slips in how gear is administered, what it is, and when work may stop others; each for the home. */
export const SLIPS_OF_BASELINE: readonly Slip[] = [
  [
    "off-baseline",
    (d) => {
      decide(d, { idleMinutes: 10 });
      for (const { id, baseline, name } of d.all("device"))
        d.patch("device", id, { baseline: { ...baseline, idleMinutes: name === "Hall switch" ? 30 : 10 } });
    },
    /^Hall switch: signed out after 30 min, the site's gear 10 min\.$/,
  ],
  [
    "baseline-beyond-device",
    (d) => {
      decide(d, { describes: "yes" });
      const hall = d.all("device").find(({ name }) => name === "Hall switch");
      onHall(d, {}, { abilities: { ...must(hall, "it").abilities, lacks: ["descriptions"] } });
    },
    /^Hall switch does not do: says where they lead \(yes\)\.$/,
  ],
  [
    "clear-way-in",
    (d) => onHall(d, { waysIn: ["http", "telnet", "ssh"] }),
    /^Hall switch is administered by web without TLS and Telnet, which hides nothing\.$/,
  ],
  [
    "gear-server-unreachable",
    (d) => onHall(d, { timeServers: [must(parseAddress("172.19.50.250"), "an address")] }),
    /^Hall switch asks for the time 172\.19\.50\.250, and nobody in the plan has that address\.$/,
  ],
  [
    "serial-twice",
    (d) => {
      for (const { id, name } of d.all("device"))
        if (name.endsWith(" AP")) d.patch("device", id, { serial: "SN 0042" });
    },
    /have the serial number SN 0042\.$/,
  ],
  [
    "licence-ended",
    (d) => onHall(d, {}, { licenceUntil: "2025-06-30" }),
    /^The licence of Hall switch ended on 2025-06-30; renew it, or clear the day\.$/,
  ],
  [
    "window-without-consent",
    (d) => {
      d.put("site", { ...d.need("site", d.plan.site.id), kind: "industrial" });
      d.put("window", {
        id: testId("window", "Saturday"),
        name: "Saturday",
        starts: "2026-12-05T18:00",
        minutes: 60,
        segments: [],
        permit: "",
        consent: "",
        notes: "",
      });
    },
    /^Saturday says neither which permit it needs nor who agrees to it;/,
  ],
];
