import {
  BLANK_EXCEPTION,
  BLANK_TREE,
  CONVENTIONS,
  type Plan,
  type Segment,
  USUAL_METRIC,
} from "../src/core/plan";
import { RADIO_SETS } from "../src/core/wireless";
import { BRAMBLEWICK } from "./surveys";
import { conduit } from "./conduits";
import { WORKS_BASELINE, windowsOfTheWorks } from "./baselines";
import { leafletsOfTheWorks } from "./leaflets";
import { WORKS_PAPER } from "./papers";
import { ip, net, SiteBuilder, v } from "./site-builder";

const access = (vid: number) => ({ role: "access", vid: v(vid) }) as const;
const CELLS = [
  ["PR", 120, "Press house", "red"],
  ["TF", 130, "Tank farm", "green"],
  ["BH", 140, "Bottling hall", "orange"],
  ["CS", 150, "Cold store", "aqua"],
] as const;

/** Zones with their level of control and the security level that they shall reach. */
const ZONES = [
  ["Kit", "none", 2],
  ["Press", "control", 2],
  ["Tanks", "control", 2],
  ["Bottling", "control", 2],
  ["Filling", "control", 2],
  ["Cold", "control", 2],
  ["Operations", "operations", 2],
  ["Plant DMZ", "dmz", 2],
  ["Office", "business", 1],
  ["Vendor", "none", 1],
  ["Safety", "process", 3],
] as const;

/** Where the gear stands on the drawing: the ring as a ring. */
const AT = { Gateway: { x: 0, y: 0 }, "Office AP": { x: 0, y: 120 }, "Safety switch": { x: 520, y: 350 } };
const RING_AT = [
  { x: 250, y: 0 },
  { x: 520, y: 0 },
  { x: 790, y: 130 },
  { x: 520, y: 250 },
  { x: 250, y: 250 },
];

/**
 * Industrial: a fibre ring of five switches, cells apart, an air-gapped safety network that is recorded and
 * never linked.
 */
export function bramblewick(): Plan {
  const site = new SiteBuilder(
    {
      name: "Bramblewick Cider Works",
      kind: "industrial",
      timeZone: "Europe/London",
      blocks: [net("172.22.0.0/16"), net("10.99.4.0/24")],
      conventions: { ...CONVENTIONS, subnetScheme: "octet", gatewayAt: "first", staticSize: 30 },
      radio: RADIO_SETS.europe,
      baseline: WORKS_BASELINE,
      keepClear: [{ prefix: net("192.168.177.0/24"), reason: "the provider's box" }],
      paper: WORKS_PAPER,
    },
    true,
  );
  site.domain("Main").domain("Safety");
  for (const [zone, level, securityLevel] of ZONES) site.zone(zone, false, { level, securityLevel });
  site.line("Fibre line", {
    access: "fibre",
    addressing: "fixed",
    vlanTag: null,
    carrierNat: "no",
    providerBox: "bridges",
    downMbps: 200,
    upMbps: 200,
    length4: 29,
    nextHop4: ip("203.0.113.89"),
    dns: [ip("203.0.113.53")],
  });
  site.device("Gateway", "gateway-4", "Office", {
    credentialsPlace: "office safe, envelope 3",
    position: AT.Gateway,
  });
  const row = (
    mark: string,
    vid: number,
    name: string,
    zone: string,
    tape: Parameters<SiteBuilder["segment"]>[0]["tape"],
    planned: number,
    pool: [number, number] | null,
    purpose: Segment["purpose"],
    group = "",
    // eslint-disable-next-line max-params -- a row of the site's table, read in columns
  ) =>
    site.segment(
      {
        mark,
        vid,
        name,
        zone,
        prefix: `172.22.${vid}.0/25`,
        pool,
        dns: [`172.22.${vid}.1`],
        planned,
        tape,
        purpose,
        group,
        management: purpose === "management",
      },
      "Gateway",
    );
  row("KT", 110, "Kit", "Kit", ["grey"], 10, [100, 119], "management");
  const zones = ["Press", "Tanks", "Bottling", "Cold"];
  for (const [i, [mark, vid, name, tape]] of CELLS.entries())
    row(mark, vid, name, zones[i] ?? "", [tape], 16, [40, 79], "cell", name);
  row("OP", 160, "Operations", "Operations", ["blue"], 12, [40, 79], "operations");
  row("DZ", 170, "Plant DMZ", "Plant DMZ", ["yellow"], 4, [40, 59], "dmz");
  row("OF", 180, "Office", "Office", ["violet"], 24, [40, 99], "people");
  row("VN", 190, "Vendor", "Vendor", ["white", "red"], 4, [40, 49], "vendor");
  const single = { cable: "os2", optic: "10GBASE-LR" } as const;
  const ring = [
    "Office switch",
    "Press house switch",
    "Tank farm switch",
    "Bottling hall switch",
    "Cold store switch",
  ];
  leafletsOfTheWorks(site);
  windowsOfTheWorks(site);
  for (const [i, name] of ring.entries()) {
    site.device(name, i === 0 ? "switch-24-poe" : "switch-16", name.replace(" switch", ""), {
      tree: { ...BLANK_TREE, kind: "rapid", priority: [4096, 8192][i] ?? 32_768 },
      position: RING_AT[i] ?? null,
    });
    site.leg(name, "Kit", `172.22.110.${10 + i}`);
  }
  site
    .device("Office AP", "access-point", "Office", { position: AT["Office AP"] })
    .leg("Office AP", "Kit", "172.22.110.20");
  site.wan("Gateway", "Fibre line", "Line 1", "203.0.113.90");
  site.ssid("Bramblewick Office", "Office");
  const all = {
    role: "trunk",
    untagged: null,
    tagged: [110, 120, 130, 140, 150, 160, 170, 180, 190].map(v),
  } as const;
  /** Those with users in the halls; the office's own stay off the ring. */
  const round = { role: "trunk", untagged: null, tagged: [110, 120, 130, 140, 150].map(v) } as const;
  const point = { role: "trunk", untagged: v(110), tagged: [v(180)] } as const;
  site
    .paint("Gateway", ["1"], all)
    .paint("Gateway", ["2", "3", "4"], { role: "park" })
    .paint("Office AP", [1], point);
  site.paint("Office switch", [1], all).paint("Office switch", [25, 26], round);
  for (const name of ring.slice(1)) site.paint(name, [17, 18], round);
  // The tank farm's end of the cable that stands by does not carry the bottling hall: unseen as long as the
  // ring is whole.
  site.paint("Tank farm switch", [18], {
    role: "trunk",
    untagged: null,
    tagged: [110, 120, 130, 150].map(v),
  });
  site
    .paint("Office switch", [2], point)
    .paint("Office switch", [3, 4, 5, 6], access(180))
    .paint("Office switch", [7, 8], access(160))
    .paint("Office switch", [9], access(170))
    .paint("Office switch", [10], access(190));
  site.paint(
    "Office switch",
    Array.from({ length: 13 }, (_, i) => 11 + i),
    { role: "park" },
  );
  site.paint("Office switch", [24], access(110)).note("Office switch", 24, "Way back in, keep free");
  site
    .cable("Gateway/1", "Office switch/1", 2, "")
    .cable("Office switch/2", "Office AP/1", 14, "")
    .cable("Office switch/25", "Press house switch/17", 120, "R1", single)
    .cable("Press house switch/18", "Tank farm switch/17", 85, "R2", single)
    .cable("Bottling hall switch/18", "Cold store switch/17", 60, "R4", single)
    .cable("Cold store switch/18", "Office switch/26", 150, "R5", single);
  site.cable("Tank farm switch/18", "Bottling hall switch/17", 95, "R3", single);
  site.radios("Office AP", 6, 40);
  for (const [i, [mark, vid, name]] of CELLS.entries()) {
    const at = ring[i + 1] ?? "";
    site.paint(at, [1, 2, 3, 4, 5, 6], access(vid)).paint(
      at,
      Array.from({ length: 10 }, (_, n) => 7 + n),
      { role: "park" },
    );
    site
      .host(`${name} controller`, "controller", name, name, `${at}/1`, { how: "typed", last: 10 })
      .host(`${name} panel`, "operatorPanel", name, name, `${at}/2`, { how: "typed", last: 11 });
    site
      .host(`${name} I/O island`, "ioIsland", name, name, `${at}/3`, { how: "typed", last: 12 })
      .host(`${name} drive ${mark}1`, "drive", name, name, `${at}/4`, { how: "typed", last: 13 });
  }
  site
    .host("Control desk 1", "pc", "Operations", "Office", "Office switch/7", { how: "typed", last: 20 })
    .host("Control desk 2", "pc", "Operations", "Office", "Office switch/8", { how: "typed", last: 21 });
  site
    .host("Historian", "server", "Plant DMZ", "Office", "Office switch/9", { how: "typed", last: 10 })
    .host("Vendor jump host", "server", "Vendor", "Office", "Office switch/10", { how: "typed", last: 10 });
  for (let i = 0; i < 4; i += 1)
    site.host(`Office PC ${i + 1}`, "pc", "Office", "Office", `Office switch/${3 + i}`);
  site
    .device("Safety switch", "switch-8-poe", "Bottling hall", {
      domain: "Safety",
      position: AT["Safety switch"],
    })
    .paint("Safety switch", [1, 2, 3], access(900))
    .paint("Safety switch", [4, 5, 6, 7, 9, 10], { role: "park" })
    .paint("Safety switch", [8], access(900))
    .note("Safety switch", 8, "Way back in, keep free");
  site.segment(
    {
      mark: "SF",
      vid: 900,
      name: "Safety",
      purpose: "safety",
      zone: "Safety",
      prefix: "10.99.4.0/27",
      pool: null,
      planned: 0,
      tape: ["black"],
      domain: "Safety",
    },
    null,
  );
  site.leg("Safety switch", "Safety", "10.99.4.2");
  for (let i = 1; i <= 3; i += 1)
    site.host(`Safety relay ${i}`, "controller", "Safety", "Bottling hall", `Safety switch/${i}`, {
      how: "typed",
      last: 9 + i,
    });
  for (const zone of [...zones, "Filling"])
    site.wall("Operations", zone, ["opc ua"], "read and set the cells");
  site
    .wall("Office", "Internet", "open", "mail, ordering, updates")
    .wall("Office", "Plant DMZ", ["https"], "reports")
    .wall("Operations", "Plant DMZ", ["https"], "the historian")
    .wall("Tanks", "Cold", ["modbus"], "cooling demand")
    .wall("Bottling", "Filling", ["modbus"], "the filler keeps pace with the line")
    .wall("Vendor", "Plant DMZ", ["ssh"], "supplier reaches the jump host, no further")
    .wall("Plant DMZ", "Internet", ["https"], "updates only")
    .wall("Kit", "Internet", ["https", "ntp"], "updates only")
    .wall("Kit", "Gateway", "open", "the gateway's pages, from Kit only");
  const owner = "shift engineer";
  conduit(site, "Operations to the cells", {
    securityLevel: 2,
    owner,
    doors: [...zones, "Filling"].map((zone) => ["Operations", zone] as const),
  });
  conduit(site, "Pace of the filler", { securityLevel: 2, owner, doors: [["Bottling", "Filling"]] });
  conduit(site, "Cooling demand", { securityLevel: 2, owner, doors: [["Tanks", "Cold"]] });
  conduit(site, "Into the plant DMZ", {
    securityLevel: 2,
    owner: "site office",
    doors: [
      ["Office", "Plant DMZ"],
      ["Operations", "Plant DMZ"],
      ["Vendor", "Plant DMZ"],
    ],
  });
  conduit(site, "Vendors to a line", { securityLevel: 2, owner, doors: [] });
  site.with((edits, id) =>
    edits.put("exception", {
      ...BLANK_EXCEPTION,
      id: id("exception", "Bottling line"),
      name: "Bottling line, by its maker",
      from: { at: "host", host: id("host", "Vendor jump host") },
      to: { at: "host", host: id("host", "Bottling hall controller") },
      services: [{ name: "ssh", protocol: "tcp", ports: [[22, 22]] }],
      owner: "shift engineer",
      reason: "service contract, with the line stopped",
      hours: { days: [2, 4], from: 480, to: 720 },
      conduit: id("conduit", "Vendors to a line"),
    }),
  );
  fillingLine(site);
  site.survey(BRAMBLEWICK);
  return site.build();
}

/** The filler, behind the hall's switch: a layer-3 switch with a list that remembers nothing. */
function fillingLine(site: SiteBuilder): void {
  const hall = "Bottling hall switch";
  // Behind the hall's switch, which routes it, so that the line goes on when the ring is cut.
  site.segment(
    {
      mark: "FL",
      vid: 145,
      name: "Filling line",
      zone: "Filling",
      prefix: "172.22.145.0/25",
      pool: null,
      planned: 4,
      tape: ["pink"],
      purpose: "cell",
      group: "Filling line",
    },
    "Bottling hall switch",
  );
  site.leg(hall, "Bottling hall", "172.22.140.2");
  site
    .paint(hall, [7, 8], access(145))
    .host("Filler controller", "controller", "Filling line", "Bottling hall", `${hall}/7`, {
      how: "typed",
      last: 10,
    })
    .host("Filler panel", "operatorPanel", "Filling line", "Bottling hall", `${hall}/8`, {
      how: "typed",
      last: 11,
    });
  site.with((edits, id) => {
    const device = edits.need("device", id("device", hall));
    edits.patch("device", device.id, {
      abilities: { ...device.abilities, routes: true },
      filter: { ...device.filter, list: "planned", established: false },
    });
    edits.patch("device", id("device", "Gateway"), {
      routes: [{ prefix: net("172.22.145.0/25"), via: ip("172.22.140.2"), metric: USUAL_METRIC }],
    });
  });
}
