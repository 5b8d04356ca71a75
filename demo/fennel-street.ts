import { must } from "../src/core/kernel";
import { CONVENTIONS, type Plan } from "../src/core/plan";
import { arrangeBox, setUpWay, USUAL_VOICE } from "../src/core/planners";
import { FENNEL_STREET } from "./surveys";
import { rulesOn } from "./rule-list";
import { PRACTICE_SIGN_IN } from "./sign-in";
import { PRACTICE_FACTS, UPPER_SWITCH } from "./baselines";
import { leafletsOfThePractice } from "./leaflets";
import { PRACTICE_PAPER } from "./papers";
import { ip, net, SiteBuilder, v } from "./site-builder";

const ALL = [10, 20, 30, 40, 50, 60, 70, 80, 90].map(v);
const access = (vid: number) => ({ role: "access", vid: v(vid) }) as const;
const phonePc = { role: "dataVoice", vid: v(20), voice: v(30) } as const;
const toAccessPoint = { role: "trunk", untagged: v(10), tagged: [v(20), v(90)] } as const;
const typed = (last: number) => ({ how: "typed", last }) as const;
const reserved = (last: number) => ({ how: "reserved", last }) as const;

/**
 * Office: two cabinets, three switches, four access points. Left as found: a few slips that the checks are
 * there for.
 */
export function fennelStreet(): Plan {
  const site = new SiteBuilder({
    name: "Fennel Street Veterinary Practice",
    kind: "office",
    timeZone: "Europe/London",
    blocks: [net("10.24.0.0/17")],
    conventions: { ...CONVENTIONS, subnetScheme: "octet", gatewayAt: "first", staticSize: 18 },
    ...PRACTICE_FACTS,
    paper: PRACTICE_PAPER,
    keepClear: [
      { prefix: net("192.168.177.0/24"), reason: "the provider's box, outside the gateway" },
      { prefix: net("10.61.8.0/24"), reason: "far end of the VPN, the second practice" },
      { prefix: net("172.28.0.0/16"), reason: "the imaging supplier's remote service" },
      { prefix: net("192.168.203.0/24"), reason: "first address of the access points still to be added" },
    ],
  });
  site.domain("Main");
  for (const [zone, open] of [
    ["Kit", true],
    ["Practice", true],
    ["Clinical", true],
    ["Payment", false],
    ["Servers", true],
    ["Building", true],
    ["Visitors", false],
  ] as const)
    site.zone(zone, open);
  site.line("Fibre line", {
    access: "fibre",
    addressing: "dhcp",
    vlanTag: null,
    carrierNat: "no",
    providerBox: "bridges",
    downMbps: 500,
    upMbps: 100,
  });
  site.device("Gateway", "gateway-4", "Cabinet A", { credentialsPlace: "practice safe, envelope 1" });
  leafletsOfThePractice(site);
  site
    .segment(
      {
        mark: "KT",
        vid: 10,
        name: "Kit",
        purpose: "management",
        zone: "Kit",
        prefix: "10.24.10.0/27",
        pool: [25, 30],
        leaseHours: 1,
        dns: ["10.24.10.1"],
        planned: 12,
        tape: ["grey"],
        management: true,
      },
      "Gateway",
    )
    .segment(
      {
        mark: "ST",
        vid: 20,
        name: "Staff",
        purpose: "people",
        zone: "Practice",
        prefix: "10.24.20.0/25",
        pool: [40, 99],
        dns: ["10.24.60.10"],
        planned: 30,
        tape: ["blue"],
      },
      "Gateway",
    )
    .segment(
      {
        mark: "PH",
        vid: 30,
        name: "Phones",
        purpose: "voice",
        zone: "Practice",
        prefix: "10.24.30.0/26",
        pool: [20, 49],
        leaseHours: 12,
        dns: ["10.24.30.1"],
        planned: 17,
        tape: ["white", "blue"],
      },
      "Gateway",
    )
    .segment(
      {
        mark: "IM",
        vid: 40,
        name: "Imaging",
        purpose: "instruments",
        zone: "Clinical",
        prefix: "10.24.40.0/26",
        pool: [30, 49],
        dns: ["10.24.60.10"],
        planned: 8,
        tape: ["violet"],
      },
      "Gateway",
    )
    .segment(
      {
        mark: "CT",
        vid: 50,
        name: "Cards",
        purpose: "cards",
        zone: "Payment",
        prefix: "10.24.50.0/28",
        pool: [8, 14],
        leaseHours: 24,
        dns: ["10.24.50.1"],
        planned: 4,
        tape: ["orange"],
      },
      "Gateway",
    )
    .segment(
      {
        mark: "SV",
        vid: 60,
        name: "Servers",
        purpose: "servers",
        zone: "Servers",
        prefix: "10.24.60.0/28",
        pool: null,
        planned: 4,
        tape: ["green"],
      },
      "Gateway",
    )
    .segment(
      {
        mark: "BC",
        vid: 70,
        name: "Building",
        purpose: "building",
        zone: "Building",
        prefix: "10.24.70.0/27",
        pool: [16, 23],
        leaseHours: 24,
        dns: ["10.24.70.1"],
        planned: 5,
        tape: ["brown"],
      },
      "Gateway",
    )
    .segment(
      {
        mark: "CM",
        vid: 80,
        name: "Cameras",
        purpose: "cameras",
        zone: "Building",
        prefix: "10.24.80.0/27",
        pool: [10, 25],
        leaseHours: 24,
        dns: ["10.24.80.1"],
        planned: 8,
        tape: ["white", "brown"],
      },
      "Gateway",
    )
    .segment(
      {
        mark: "GU",
        vid: 90,
        name: "Guests",
        purpose: "guests",
        zone: "Visitors",
        prefix: "10.24.90.0/24",
        pool: [90, 139],
        leaseHours: 24,
        dns: ["10.24.60.10"],
        planned: 75,
        tape: ["yellow"],
      },
      "Gateway",
    )
    .parkedVlan(99, "Parked", "parked");

  site
    .device("Upper switch", "switch-24-poe", "Cabinet A", UPPER_SWITCH)
    .device("Lower switch", "switch-24-poe", "Cabinet A", { credentialsPlace: "practice safe, envelope 1" })
    .device("Switch B", "switch-16-poe", "Cabinet B", { credentialsPlace: "practice safe, envelope 1" });
  const points = ["Waiting room AP", "Office AP", "Consult AP", "Kennels AP"];
  for (const [i, point] of points.entries())
    site.device(point, "access-point", point.replace(" AP", "")).leg(point, "Kit", `10.24.10.${10 + i}`);
  site.leg("Upper switch", "Kit", "10.24.10.2");
  site.leg("Lower switch", "Kit", "10.24.10.3");
  site.leg("Switch B", "Kit", "10.24.10.4");
  site.wan("Gateway", "Fibre line", "Line 1", null);
  site.ssid("Fennel Staff", "Staff").ssid("Fennel Guests", "Guests");

  site.survey(FENNEL_STREET);
  wire(site);
  people(site);
  gear(site);
  walls(site);
  rulesFound(site);
  // Two neighbours were set up on one day, and both by default on channel 1.
  site
    .radios("Waiting room AP", 1, 36, ["Office AP", "Consult AP"])
    .radios("Office AP", 1, 44, ["Consult AP"])
    .radios("Consult AP", 6, 52, ["Kennels AP"])
    .radios("Kennels AP", 11, 100);
  site
    .itself("Gateway", { asksFrom: "Kit" })
    .itself("Upper switch", { bridgeMac: "02:5a:10:0a:02:01" })
    .itself("Lower switch", { bridgeMac: "02:5a:10:0a:03:01" })
    .itself("Switch B", { bridgeMac: "02:5a:10:0a:04:01" });
  site.signIn("Practice sign-in", ["Sign-in server 1", "Sign-in server 2"], PRACTICE_SIGN_IN, [
    ["Upper switch", 1],
    ["Upper switch", 2],
    ["Upper switch", 3],
    ["Upper switch", 10],
    ["Upper switch", 18],
    ["Upper switch", 20],
  ]);
  signsIn(site);
  site.snoops("Upper switch", [20, 30, 90], [24]).snoops("Switch B", [20, 30, 90], [17]);
  site
    .rack("Gateway", 12, "UPS A, outlet 1")
    .rack("Upper switch", 11, "UPS A, outlet 2")
    .rack("Lower switch", 10, "UPS A, outlet 3")
    .rack("Switch B", 6, "wall socket, circuit 14");
  return site.build();
}

/** Administrators by the practice's servers, and the phones' ports that tell them their VLAN. */
function signsIn(site: SiteBuilder): void {
  const servers = ["Sign-in server 1", "Sign-in server 2"].map(site.hostId);
  for (const name of ["Upper switch", "Lower switch", "Switch B"])
    site.set(name, { adminSignIn: { by: "radius", servers, port: null, localAccount: true } });
  const phones = { "Upper switch": [1, 2, 3, 10], "Lower switch": [7, 8], "Switch B": [6, 7] };
  for (const [name, labels] of Object.entries(phones))
    for (const label of labels) site.setPort(name, label, { voicePolicy: { vid: v(30), ...USUAL_VOICE } });
}

function wire(site: SiteBuilder): void {
  const everything = { role: "trunk", untagged: null, tagged: ALL } as const;
  site.paint("Gateway", ["1"], everything).paint("Gateway", ["2", "3", "4"], { role: "park" });
  site.paint("Upper switch", [1, 2, 3, 10], phonePc).paint("Upper switch", [4, 11, 12, 18, 20], access(20));
  site
    .paint("Upper switch", [5, 6], access(50))
    .paint("Upper switch", [7], access(70))
    .paint("Upper switch", [8], access(80));
  site
    .paint("Upper switch", [9], toAccessPoint)
    .paint("Upper switch", [19], { role: "trunk", untagged: v(10), tagged: [v(20)] });
  site
    .paint("Upper switch", [21, 22, 26], { role: "park" })
    .paint("Upper switch", [23], access(10))
    .note("Upper switch", 23, "Way back in, keep free");
  site.paint("Upper switch", [24], everything).paint("Upper switch", [25], {
    role: "trunk",
    untagged: null,
    tagged: [10, 20, 30, 50, 70, 80, 90].map(v),
  });
  site
    .paint("Lower switch", [1], everything)
    .paint("Lower switch", [2], everything)
    .paint("Lower switch", [3, 4, 5], access(60))
    .paint("Lower switch", [6], access(40));
  site
    .paint("Lower switch", [7, 8], phonePc)
    .paint("Lower switch", [9], access(50))
    .paint("Lower switch", [10, 11, 12], access(80))
    .paint("Lower switch", [13, 14], access(70));
  site
    .paint("Lower switch", [15], toAccessPoint)
    .paint("Lower switch", [16], access(30))
    .paint("Lower switch", [17, 18, 19, 20, 21, 22, 23, 24, 25, 26], { role: "park" });
  site.paint("Switch B", [17], {
    role: "trunk",
    untagged: null,
    tagged: [10, 20, 30, 40, 50, 70, 80, 90].map(v),
  });
  site
    .paint("Switch B", [1, 2, 3, 4, 5], access(40))
    .paint("Switch B", [6, 7], phonePc)
    .paint("Switch B", [8, 9], access(80))
    .paint("Switch B", [10], access(70));
  site.paint("Switch B", [11], toAccessPoint).paint("Switch B", [12, 13, 14, 15, 16, 18], { role: "park" });
  for (const point of ["Waiting room AP", "Office AP", "Consult AP", "Kennels AP"])
    site.paint(point, [1], toAccessPoint);
  site
    .cable("Gateway/1", "Lower switch/1", 1, "A-G1")
    .cable("Upper switch/24", "Lower switch/2", 1, "A-24")
    .cable("Upper switch/25", "Switch B/17", 38, "A-25")
    .cable("Upper switch/9", "Waiting room AP/1", 22, "A-09")
    .cable("Upper switch/19", "Office AP/1", 17, "A-19")
    .cable("Lower switch/15", "Consult AP/1", 26, "A-39")
    .cable("Switch B/11", "Kennels AP/1", 31, "B-11");
}

function people(site: SiteBuilder): void {
  const desks = [
    ["Reception 1", "Upper switch/1"],
    ["Reception 2", "Upper switch/2"],
    ["Reception 3", "Upper switch/3"],
    ["Consult 1", "Upper switch/10"],
    ["Consult 2", "Upper switch/13"],
    ["Consult 3", "Upper switch/14"],
    ["Office 1", "Upper switch/15"],
    ["Office 2", "Upper switch/16"],
    ["Office 3", "Upper switch/17"],
    ["Pharmacy", "Lower switch/7"],
    ["Manager", "Lower switch/8"],
    ["Theatre desk", "Switch B/6"],
    ["Lab desk", "Switch B/7"],
  ] as const;
  for (const [desk, port] of desks) {
    const room = desk.replace(/ (\d|desk)$/, (all, d: string) =>
      /\d/.test(d) && desk.startsWith("Consult") ? all : "",
    );
    site.host(`Phone ${desk}`, "phone", "Phones", room, port, null, { tag: v(30) });
    site.host(`PC ${desk}`, "pc", "Staff", room, `behind:Phone ${desk}`);
  }
  const printers = [
    ["Reception printer", "Reception", 4, 20],
    ["Consult 1 label printer", "Consult 1", 11, 21],
    ["Consult 2 label printer", "Consult 2", 12, 22],
    ["Office printer", "Office", 18, 23],
    ["Consult 3 label printer", "Consult 3", 20, 24],
  ] as const;
  for (const [name, room, port, last] of printers)
    site.host(name, "printer", "Staff", room, `Upper switch/${port}`, reserved(last));
  for (let i = 1; i <= 6; i += 1)
    site.host(
      `Staff laptop ${i}`,
      "laptop",
      "Staff",
      "Practice",
      i === 6 ? "ssid:Fennel Staff@Consult AP" : "ssid:Fennel Staff",
    );
}

function gear(site: SiteBuilder): void {
  site
    .host("Card terminal 1", "cardTerminal", "Cards", "Reception", "Upper switch/5", reserved(8))
    .host("Card terminal 2", "cardTerminal", "Cards", "Reception", "Upper switch/6", reserved(9))
    .host("Card terminal 3", "cardTerminal", "Cards", "Pharmacy", "Lower switch/9", reserved(10));
  site
    .host("Sign-in server 1", "server", "Servers", "Cabinet A", "Lower switch/3", typed(8))
    .host("Sign-in server 2", "server", "Servers", "Cabinet A", "Lower switch/4", typed(9))
    .host("Practice server", "server", "Servers", "Cabinet A", "Lower switch/5", typed(10));
  site
    .host("Image store", "storage", "Imaging", "Cabinet A", "Lower switch/6", typed(10))
    .host("X-ray panel", "imaging", "Imaging", "Imaging suite", "Switch B/1", typed(11))
    .host("Ultrasound", "imaging", "Imaging", "Imaging suite", "Switch B/2", typed(12))
    .host("Viewing station", "pc", "Imaging", "Imaging suite", "Switch B/3", reserved(30))
    .host("Analyser", "imaging", "Imaging", "Lab", "Switch B/4", reserved(31))
    .host("Viewing station, Theatre", "pc", "Imaging", "Theatre", "Switch B/5", typed(34));
  site
    .host("Waiting room screen", "television", "Building", "Waiting room", "Upper switch/7")
    .host("Heating controller", "controller", "Building", "Cabinet A", "Lower switch/13", typed(5))
    .host("Front door controller", "doorController", "Building", "Entrance", "Lower switch/14", reserved(16))
    .host("Theatre air handling", "controller", "Building", "Theatre", "Switch B/10", typed(6));
  site
    .host("Camera Waiting room", "camera", "Cameras", "Waiting room", "Upper switch/8", reserved(10))
    .host("Camera Entrance", "camera", "Cameras", "Entrance", "Lower switch/10", reserved(11))
    .host("Camera Car park", "camera", "Cameras", "Outside", "Lower switch/11", reserved(12))
    .host("Camera recorder", "recorder", "Cameras", "Cabinet A", "Lower switch/12", typed(2))
    .host("Camera Kennels", "camera", "Cameras", "Kennels", "Switch B/8", reserved(13))
    .host("Camera Theatre", "camera", "Cameras", "Theatre", "Switch B/9", reserved(14));
}

function walls(site: SiteBuilder): void {
  site
    .wall("Practice", "Internet", "open", "mail, records, updates")
    .wall("Visitors", "Internet", "open", "that is all they get")
    .wall("Servers", "Internet", ["https", "ntp"], "updates only")
    .wall("Kit", "Internet", ["https", "ntp"], "updates only")
    .wall("Payment", "Internet", ["https"], "card acquirer")
    .service("records", ["files", "https"], "the shares and pages of the practice's records")
    .wall("Practice", "Servers", ["dns", "records"], "records and names")
    .wall("Clinical", "Servers", ["dns", "files"], "records and names")
    .wall("Practice", "Clinical", ["dicom", "https"], "images on the desks")
    .wall("Practice", "Building", ["video"], "reception sees the door")
    .wall("Kit", "Servers", ["radius"], "sign-in of ports and wireless")
    .wall("Kit", "Gateway", "open", "the gateway's pages, from Kit only");
  site.with((edits, id) =>
    edits.patch("interface", id("interface", "Gateway/Fibre line"), { addresses4: [ip("203.0.113.24")] }),
  );
  site.with((edits, id) =>
    edits.put("wish", {
      id: id("wish", "Records"),
      name: "Records on a home visit",
      host: id("host", "Image store"),
      service: { name: "https", protocol: "tcp", ports: [[443, 443]] },
      from: [],
      way: "open",
      note: "for the vet on call",
    }),
  );
  lineAndWayIn(site);
  site.patchSegment("Phones", { trafficClass: "voice" });
  site.patchSegment("Guests", { visit: { perHour: 12, staySeconds: 2400, openSeconds: 32_400 } });
}

/** What was read from the gateway on the first visit: somebody has been at it before, in a hurry. */
function rulesFound(site: SiteBuilder): void {
  rulesOn(site, "Gateway", [
    ["Practice, Payment, zone Building", "Gateway", "udp 67-68, dns, tcp 53, ping", "accept", ""],
    ["Clinical, Visitors", "Gateway", "udp 67-68, ping", "accept", "their names come from elsewhere"],
    ["Servers", "Gateway", "ping", "accept", ""],
    ["Practice", "Practice", "any", "accept", "desks and phones"],
    ["zone Building", "zone Building", "any", "accept", "cameras and controls"],
    ["Kit", "Gateway", "any", "accept", "the pages, from Kit only"],
    ["Practice", "Internet", "any", "accept", "mail, records, updates"],
    ["Visitors", "Internet", "any", "accept", "that is all they get"],
    ["Practice", "Internet", "tcp 25", "drop", "no mail past the records"],
    ["Kit", "Internet", "https, ntp", "accept", "updates only"],
    ["Payment", "Internet", "https", "accept", "card acquirer"],
    ["Practice", "Servers", "dns, files, https", "accept", "records and names"],
    ["Staff", "Servers", "files", "accept", "records, asked for twice"],
    ["Clinical", "Servers", "dns, files", "accept", "records and names"],
    ["Practice", "Clinical", "dicom, https", "accept", "images on the desks"],
    ["Practice", "zone Building", "any", "accept", "reception could not see the door"],
    ["Kit", "Servers", "radius", "accept", "sign-in of ports and wireless"],
    ["Internet", "Gateway", "udp 51900", "accept", "the vet on call, by VPN"],
    ["By VPN", "Gateway", "dns, tcp 53, ping", "accept", ""],
    ["By VPN", "host Image store", "https", "accept", "records on a home visit"],
    ["any", "any", "any", "drop", "the rest"],
  ]);
}

/**
 * The provider's box stays, since the numbers are locked to it, and hangs behind the gateway; the vet on call
 * comes in by VPN.
 */
function lineAndWayIn(site: SiteBuilder): void {
  site.with((edits, id) => {
    const [fibre, box] = [id("line", "Fibre line"), id("host", "Box of the line")];
    edits.patch("line", fibre, { locked: "the practice's telephone numbers" });
    let made = 0;
    const ids = () => id("way in", `${(made += 1)}`);
    const refusals = [
      arrangeBox({ edits, ids: () => box }, { line: fibre, arrangement: "behind" }),
      setUpWay({ edits, ids }, { wish: id("wish", "Records"), way: "vpn", line: fibre }),
    ];
    for (const refusal of refusals) must(refusal === null ? true : null, `${refusal}`);
    edits.patch("host", box, {
      attachment: { at: "port", port: id("port", "Lower switch/16") },
      place: "Cabinet A",
    });
  });
}
