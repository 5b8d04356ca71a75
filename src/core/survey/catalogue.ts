import type { Host, HostKind, Plan, Purpose } from "../plan";

/** A kind of thing that the survey counts. */
export interface DeviceKind {
  readonly word: string;
  readonly aliases: readonly string[];
  readonly base: Host["kind"];
  readonly purpose: Purpose;
  readonly manner: Host["manner"];
  readonly wireless: boolean;
  /** Class of IEEE 802.3 section 145.2.8; null when it takes no power over the cable. */
  readonly poeClass: number | null;
  /** Typical bandwidth. */
  readonly kbps: number;
  readonly speaksDhcp: boolean;
  /** Signs in by IEEE 802.1X. */
  readonly speaksSignIn: boolean;
  readonly internet: "may" | "never";
  /**
   * host: an end device; pair: a phone with a PC behind it, two devices on one socket; crowd: counted, never in the register; socket: a
   * socket without a device; point and switch: gear; gear: gear with an address of its own and nothing else.
   */
  readonly role: "host" | "pair" | "crowd" | "socket" | "point" | "switch" | "gear";
}

interface Rest { readonly aliases?: string; readonly manner?: Host["manner"]; readonly wireless?: true; readonly poe?: number; readonly kbps?: number; readonly noDhcp?: true; readonly signIn?: true; readonly never?: true; readonly role?: DeviceKind["role"] }

const kind = (word: string, base: Host["kind"], purpose: Purpose, rest: Rest = {}): DeviceKind => ({
  word, base, purpose, aliases: rest.aliases?.split(", ") ?? [], manner: rest.manner ?? "dynamic", wireless: rest.wireless ?? false, poeClass: rest.poe ?? null, kbps: rest.kbps ?? 1000,
  speaksDhcp: rest.noDhcp !== true, speaksSignIn: rest.signIn ?? false, internet: rest.never === true ? "never" : "may", role: rest.role ?? "host",
});

/** Generic kinds; a site can add its own. */
export const CATALOGUE: readonly DeviceKind[] = [
  kind("PC", "pc", "people", { aliases: "desktop, computer, workstation, desk", kbps: 5000, signIn: true }),
  kind("laptop", "laptop", "people", { aliases: "notebook", wireless: true, kbps: 5000, signIn: true }),
  kind("tablet", "mobile", "people", { aliases: "pad", wireless: true, kbps: 2000, signIn: true }),
  kind("mobile", "mobile", "people", { aliases: "smartphone, mobile phone, cell phone", wireless: true, kbps: 2000, signIn: true }),
  kind("phone", "phone", "voice", { aliases: "desk phone, telephone, handset, ip phone", poe: 2, kbps: 100, signIn: true }),
  kind("phone with PC", "phone", "voice", { aliases: "pc+phone, phone+pc, pc with phone, phone and pc", poe: 2, kbps: 5100, signIn: true, role: "pair" }),
  kind("printer", "printer", "people", { aliases: "label printer, copier, plotter", manner: "reserved", kbps: 500, never: true }),
  kind("scanner", "scanner", "people", { aliases: "barcode scanner, document scanner", manner: "reserved", kbps: 500, never: true }),
  kind("camera", "camera", "cameras", { aliases: "dome camera, cctv", manner: "reserved", poe: 3, kbps: 6000, never: true }),
  kind("recorder", "recorder", "cameras", { aliases: "video recorder, camera recorder", manner: "typed", kbps: 40_000, never: true }),
  kind("card terminal", "cardTerminal", "cards", { aliases: "payment terminal, card reader, card machine", manner: "reserved", kbps: 100 }),
  kind("till", "pc", "cards", { aliases: "point of sale, cash register", manner: "reserved", kbps: 500 }),
  kind("door controller", "doorController", "building", { aliases: "access controller, door", manner: "reserved", poe: 3, kbps: 50, never: true }),
  kind("door station", "doorController", "building", { aliases: "intercom, bell, doorbell", manner: "reserved", poe: 3, kbps: 2000, never: true }),
  kind("sensor gateway", "sensor", "building", { aliases: "fridge logger, logger, sensor, temperature logger, meter, kiln logger", manner: "reserved", kbps: 10, never: true }),
  kind("heating controller", "controller", "building", { aliases: "boiler, boiler controller, thermostat, air handling, heat pump", manner: "reserved", kbps: 50, never: true }),
  kind("UPS", "other", "management", { aliases: "power supply", manner: "typed", kbps: 10, never: true, role: "gear" }),
  kind("television", "television", "gadgets", { aliases: "tv, smart tv, set-top box, streaming box", kbps: 25_000 }),
  kind("screen", "television", "building", { aliases: "display, sign, signage", kbps: 8000 }),
  kind("game console", "console", "gadgets", { aliases: "console, games console", kbps: 25_000 }),
  kind("gadget", "other", "gadgets", { aliases: "smart speaker, speaker, light bridge, hub, vacuum, doorbell chime", wireless: true, kbps: 500 }),
  kind("controller", "controller", "cell", { aliases: "plc, controller (plc), process controller", manner: "typed", kbps: 500, noDhcp: true, never: true }),
  kind("operator panel", "operatorPanel", "cell", { aliases: "hmi, panel, touch panel", manner: "typed", kbps: 500, noDhcp: true, never: true }),
  kind("drive", "drive", "cell", { aliases: "inverter, variable speed drive, servo", manner: "typed", kbps: 200, noDhcp: true, never: true }),
  kind("I/O island", "ioIsland", "cell", { aliases: "io island, remote io, remote i/o, i/o, valve island", manner: "typed", kbps: 200, noDhcp: true, never: true }),
  kind("weigher", "controller", "cell", { aliases: "scale, checkweigher", manner: "typed", kbps: 100, noDhcp: true, never: true }),
  kind("operator station", "pc", "operations", { aliases: "control room pc, engineering station", manner: "reserved", kbps: 5000, never: true }),
  kind("plant server", "server", "operations", { aliases: "historian, supervisory server, batch server", manner: "typed", kbps: 20_000, never: true }),
  kind("transfer server", "server", "dmz", { aliases: "report server, jump server, update server", manner: "typed", kbps: 20_000 }),
  kind("vendor box", "other", "vendor", { aliases: "vendor router, support box, remote support box", manner: "reserved", kbps: 2000 }),
  kind("safety controller", "controller", "safety", { aliases: "safety plc", manner: "typed", kbps: 500, noDhcp: true, never: true }),
  kind("safety I/O", "ioIsland", "safety", { aliases: "safety io, safety island", manner: "typed", kbps: 200, noDhcp: true, never: true }),
  kind("x-ray panel", "imaging", "instruments", { aliases: "x-ray, xray, xray panel", manner: "typed", kbps: 20_000, never: true }),
  kind("ultrasound", "imaging", "instruments", { manner: "typed", kbps: 10_000, never: true }),
  kind("analyser", "imaging", "instruments", { aliases: "analyzer, blood analyser", manner: "reserved", kbps: 500, never: true }),
  kind("viewing station", "pc", "instruments", { manner: "reserved", kbps: 20_000, signIn: true, never: true }),
  kind("image store", "storage", "instruments", { aliases: "picture store", manner: "typed", kbps: 50_000, never: true }),
  kind("server", "server", "servers", { aliases: "records server, file server, practice server, sign-in server, auth server, authentication server", manner: "typed", kbps: 50_000 }),
  kind("storage", "storage", "servers", { aliases: "file store, backup store", manner: "typed", kbps: 50_000, never: true }),
  kind("guest", "mobile", "guests", { aliases: "visitor, visitor device, guest device", wireless: true, kbps: 2000, role: "crowd" }),
  kind("spare socket", "other", "people", { aliases: "socket, outlet, spare", role: "socket", kbps: 0 }),
  kind("access point", "other", "management", { aliases: "ap, wireless point", manner: "typed", poe: 4, kbps: 100_000, role: "point" }),
  kind("switch", "other", "management", { aliases: "network switch", manner: "typed", kbps: 0, role: "switch" }),
];

/** A kind the site has added, as the catalogue writes it. */
export const ofSite = (own: HostKind): DeviceKind => ({
  word: own.name, aliases: own.aliases, base: own.base, purpose: own.purpose, manner: own.manner, wireless: own.wireless, poeClass: own.poeClass, kbps: own.kbps,
  speaksDhcp: own.speaksDhcp, speaksSignIn: own.speaksSignIn, internet: own.internet, role: "host",
});

/** The site's own kinds first: a word of one's own has one's own meaning. */
export const catalogueOf = (plan: Plan): readonly DeviceKind[] => [...[...plan.hostKind.values()].map(ofSite), ...CATALOGUE];

/** The power a switch sets aside at the port for a class, in mW (IEEE 802.3 section 145.2.8). */
const CLASS_MW = [15_400, 4000, 7000, 15_400, 30_000, 45_000, 60_000, 75_000, 90_000] as const;
export const portPowerMw = (poeClass: number | null): number => (poeClass === null ? 0 : (CLASS_MW[poeClass] ?? 0));
