import { BLANK_FORWARD, CONVENTIONS, NO_BASELINE, type Plan, type Segment } from "../src/core/plan";
import { RADIO_SETS } from "../src/core/wireless";
import { LOCKKEEPERS_HOUSE } from "./surveys";
import { HOME_PAPER } from "./papers";
import { ip, net, SiteBuilder, v } from "./site-builder";

const access = (vid: number) => ({ role: "access", vid: v(vid) }) as const;

/** Home with a pottery studio and a lodger's flat; a sound plan. */
export function lockkeepersHouse(): Plan {
  const site = new SiteBuilder(
    {
      name: "Lockkeeper's House",
      kind: "home",
      timeZone: "Europe/London",
      blocks: [net("172.19.0.0/17")],
      conventions: { ...CONVENTIONS, subnetScheme: "octet", gatewayAt: "first", staticSize: 18 },
      radio: RADIO_SETS.europe,
      baseline: NO_BASELINE,
      keepClear: [{ prefix: net("192.168.144.0/24"), reason: "the mobile line's box" }],
      paper: HOME_PAPER,
    },
    true,
  );
  site.domain("Main");
  for (const zone of ["Home", "Studio", "Lodger", "Gadgets", "Visitors", "Kit"]) site.zone(zone, false);
  site.line("Fibre line", {
    access: "fibre",
    addressing: "login",
    vlanTag: 101,
    carrierNat: "no",
    providerBox: "none",
    downMbps: 150,
    upMbps: 30,
    dns: [ip("198.51.100.53")],
    watch: {
      by: "target",
      targets: [ip("198.51.100.53")],
      afterSeconds: 10,
      backSeconds: 60,
      returns: true,
    },
    delegated: { length: 56, prefix: null, keeps: false },
    dynamicName: { name: "lock.example", updatedBy: "gateway", account: "kitchen drawer, red tin" },
  });
  site.line("Mobile line", {
    access: "mobile",
    addressing: "dhcp",
    vlanTag: null,
    carrierNat: "yes",
    providerBox: "routes",
    downMbps: 60,
    upMbps: 15,
    place: 1,
  });
  site.device("Gateway", "gateway-4", "Hall cupboard", { credentialsPlace: "kitchen drawer, red tin" });
  const row = (
    mark: string,
    vid: number,
    name: string,
    zone: string,
    tape: Parameters<SiteBuilder["segment"]>[0]["tape"],
    planned: number,
    pool: [number, number],
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
        prefix: `172.19.${vid}.0/24`,
        pool,
        dns: [`172.19.${vid}.1`],
        planned,
        tape,
        purpose,
        group,
        management: purpose === "management",
      },
      "Gateway",
    );
  row("HH", 20, "Household", "Home", ["blue"], 24, [50, 149], "people");
  row("SD", 30, "Studio", "Studio", ["orange"], 8, [50, 99], "people", "Studio");
  row("LD", 40, "Lodger", "Lodger", ["green"], 8, [50, 99], "people", "Lodger");
  row("GD", 50, "Gadgets", "Gadgets", ["violet"], 20, [50, 149], "gadgets");
  row("VS", 60, "Visitors", "Visitors", ["yellow"], 12, [50, 149], "guests");
  row("KT", 70, "Kit", "Kit", ["grey"], 6, [50, 69], "management");
  site
    .device("Hall switch", "switch-16-poe", "Hall cupboard")
    .device("Landing AP", "access-point", "Landing")
    .device("Studio AP", "access-point", "Studio")
    .device("Studio bench switch", "switch-5-plain", "Studio");
  site.leg("Hall switch", "Kit", "172.19.70.2");
  site.leg("Landing AP", "Kit", "172.19.70.10");
  site.leg("Studio AP", "Kit", "172.19.70.11");
  site.wan("Gateway", "Fibre line", "Line 1", "198.51.100.70").wan("Gateway", "Mobile line", "4", null);
  site
    .ssid("Lock House", "Household")
    .ssid("Lock Gadgets", "Gadgets")
    .ssid("Lock Lodger", "Lodger")
    .ssid("Lock Visitors", "Visitors", { isolation: true });
  const all = { role: "trunk", untagged: null, tagged: [20, 30, 40, 50, 60, 70].map(v) } as const;
  const point = { role: "trunk", untagged: v(70), tagged: [20, 40, 50, 60].map(v) } as const;
  site
    .paint("Gateway", ["1"], all)
    .paint("Gateway", ["2", "3"], { role: "park" })
    .paint("Gateway", ["4"], { role: "undecided" });
  site
    .paint("Hall switch", [1], all)
    .paint("Hall switch", [2, 3], point)
    .paint("Hall switch", [4, 5], access(20))
    .paint("Hall switch", [6], access(30))
    .unlimited("Hall switch", [6])
    .paint("Hall switch", [7], access(40))
    .paint("Hall switch", [8], access(50))
    .paint("Hall switch", [9, 10, 11, 12, 13, 14, 15, 17, 18], { role: "park" })
    .paint("Hall switch", [16], access(70))
    .note("Hall switch", 16, "Way back in, keep free");
  site.paint("Landing AP", [1], point).paint("Studio AP", [1], point);
  site
    .cable("Gateway/1", "Hall switch/1", 1, "")
    .cable("Hall switch/2", "Landing AP/1", 12, "")
    .cable("Hall switch/3", "Studio AP/1", 40, "")
    .cable("Hall switch/6", "Studio bench switch/1", 40, "");
  site
    .host("Study PC", "pc", "Household", "Study", "Hall switch/4")
    .host("Television", "television", "Household", "Living room", "Hall switch/5")
    .host("Kiln controller", "controller", "Studio", "Studio", "Studio bench switch/2", {
      how: "reserved",
      last: 20,
    })
    .host("Studio laptop", "laptop", "Studio", "Studio", "Studio bench switch/3")
    .host("Lodger's desk", "pc", "Lodger", "Flat", "Hall switch/7")
    .host("Heating controller", "sensor", "Gadgets", "Hall cupboard", "Hall switch/8", {
      how: "reserved",
      last: 20,
    })
    .host("Door bell", "camera", "Gadgets", "Front door", "ssid:Lock Gadgets", { how: "reserved", last: 21 });
  for (const name of ["Ada's phone", "Bram's phone", "Tablet"])
    site.host(name, "mobile", "Household", "House", "ssid:Lock House");
  for (const zone of ["Home", "Studio", "Lodger", "Visitors"]) site.wall(zone, "Internet", "open", "");
  site
    .wall("Gadgets", "Internet", ["https", "ntp"], "updates only")
    .wall("Home", "Gadgets", ["https", "video"], "see and set them")
    .wall("Home", "Studio", ["https"], "watch the kiln")
    .wall("Kit", "Gateway", "open", "the gateway's pages, from Kit only")
    .wall("Kit", "Internet", ["https", "ntp"], "updates only");
  site.radios("Landing AP", 1, 36, ["Studio AP"]).radios("Studio AP", 6, 44);
  site.survey(LOCKKEEPERS_HOUSE);
  site.with((edits, id) => {
    edits.patch("device", id("device", "Gateway"), {
      repeatsDiscovery: [id("segment", "Household"), id("segment", "Gadgets")],
    });
    edits.put("wish", {
      id: id("wish", "Door bell"),
      name: "Who is at the door",
      host: id("host", "Door bell"),
      service: { name: "video", protocol: "tcp", ports: [[554, 554]] },
      from: [],
      way: "open",
      note: "from the family's phones",
    });
    edits.put("wish", {
      id: id("wish", "Kiln"),
      name: "Kiln, for its maker",
      host: id("host", "Kiln controller"),
      service: { name: "https", protocol: "tcp", ports: [[443, 443]] },
      from: [net("203.0.113.40/32")],
      way: "forward",
      note: "",
    });
    edits.put("forward", {
      ...BLANK_FORWARD,
      id: id("forward", "Kiln"),
      name: "Kiln, for its maker",
      line: id("line", "Fibre line"),
      host: id("host", "Kiln controller"),
      ports: [8443, 8443],
      toPort: 443,
      sources: [net("203.0.113.40/32")],
    });
  });
  return site.build();
}
