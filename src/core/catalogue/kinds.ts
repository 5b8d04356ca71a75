import type { HostKind, Plan } from "../plan";
import { type DeviceKind, kind } from "./kind";

/** Generic kinds; a site can add its own. */
export const CATALOGUE: readonly DeviceKind[] = [
  kind("PC", "pc", "people", {
    aliases:
      "desktop, computer, workstation, desk, pc workstation, office " +
      "pc, all-in-one, mini pc, thin client, terminal pc, mac",
    kbps: 5000,
    signIn: true,
  }),
  kind("laptop", "laptop", "people", {
    aliases: "notebook, portable, portable pc, ultrabook",
    wireless: true,
    kbps: 5000,
    signIn: true,
  }),
  kind("tablet", "mobile", "people", {
    aliases: "pad, tablet pc, handheld",
    wireless: true,
    kbps: 2000,
    signIn: true,
  }),
  kind("mobile", "mobile", "people", {
    aliases:
      "smartphone, mobile phone, cell phone, cell, cellphone, mobile device, phone (mobile), wifi phone",
    wireless: true,
    kbps: 2000,
    signIn: true,
  }),
  kind("phone", "phone", "voice", {
    aliases:
      "desk phone, telephone, handset, ip phone, voip phone, sip phone, " +
      "desk telephone, conference phone, cordless base, dect base",
    poe: 2,
    kbps: 100,
    signIn: true,
  }),
  kind("phone with PC", "phone", "voice", {
    aliases: "pc+phone, phone+pc, pc with phone, phone and pc, pc via phone, pc behind phone, pc+telephone",
    poe: 2,
    kbps: 5100,
    signIn: true,
    role: "pair",
  }),
  kind("printer", "printer", "people", {
    aliases:
      "label printer, copier, plotter, multifunction printer, mfp, laser " +
      "printer, network printer, receipt printer, all-in-one printer",
    manner: "reserved",
    kbps: 500,
    never: true,
  }),
  kind("scanner", "scanner", "people", {
    aliases: "barcode scanner, document scanner, code reader, handheld scanner",
    manner: "reserved",
    kbps: 500,
    never: true,
  }),
  kind("camera", "camera", "cameras", {
    aliases:
      "dome camera, cctv, ip camera, security camera, ptz camera, bullet camera, surveillance camera, webcam",
    manner: "reserved",
    poe: 3,
    kbps: 6000,
    never: true,
  }),
  kind("recorder", "recorder", "cameras", {
    aliases: "video recorder, camera recorder, nvr, dvr, network video recorder, camera server",
    manner: "typed",
    kbps: 40_000,
    never: true,
  }),
  kind("card terminal", "cardTerminal", "cards", {
    aliases:
      "payment terminal, card reader, card machine, pin pad, " +
      "pinpad, eftpos terminal, payment device, chip and pin",
    manner: "reserved",
    kbps: 100,
  }),
  kind("till", "pc", "cards", {
    aliases: "point of sale, cash register, pos, pos terminal, checkout, register, kiosk",
    manner: "reserved",
    kbps: 500,
  }),
  kind("door controller", "doorController", "building", {
    aliases:
      "access controller, door, door access controller, badge " +
      "reader, access reader, door reader, lock controller",
    manner: "reserved",
    poe: 3,
    kbps: 50,
    never: true,
  }),
  kind("door station", "doorController", "building", {
    aliases: "intercom, bell, doorbell, door phone, video intercom, entry phone, gate station",
    manner: "reserved",
    poe: 3,
    kbps: 2000,
    never: true,
  }),
  kind("sensor gateway", "sensor", "building", {
    aliases:
      "fridge logger, logger, sensor, temperature logger, meter, kiln logger, probe, temperature " +
      "sensor, humidity sensor, iot gateway, energy meter, water meter, smart meter, data logger",
    manner: "reserved",
    kbps: 10,
    never: true,
  }),
  kind("heating controller", "controller", "building", {
    aliases:
      "boiler, boiler controller, thermostat, air handling, heat pump, hvac, " +
      "hvac controller, air conditioning, air conditioner, building controller, " +
      "bms, solar inverter, charger, car charger, wallbox, ev charger",
    manner: "reserved",
    kbps: 50,
    never: true,
  }),
  kind("UPS", "other", "management", {
    aliases: "power supply, uninterruptible power supply, battery backup, pdu, power distribution unit",
    manner: "typed",
    kbps: 10,
    never: true,
    role: "gear",
  }),
  kind("television", "television", "gadgets", {
    aliases:
      "tv, smart tv, set-top box, streaming box, television set, " +
      "media player, streamer, av receiver, soundbar, projector",
    kbps: 25_000,
  }),
  kind("screen", "television", "building", {
    aliases:
      "display, sign, signage, info screen, information " +
      "screen, menu board, digital sign, display panel, monitor",
    kbps: 8000,
  }),
  kind("game console", "console", "gadgets", {
    aliases: "console, games console, gaming console",
    kbps: 25_000,
  }),
  kind("gadget", "other", "gadgets", {
    aliases:
      "smart speaker, speaker, light bridge, hub, vacuum, doorbell chime, " +
      "iot, iot device, smart device, smart plug, smart bulb, smart lock, " +
      "robot vacuum, robot mower, voice assistant, smart home hub",
    wireless: true,
    kbps: 500,
  }),
  kind("controller", "controller", "cell", {
    aliases:
      "plc, controller (plc), process controller, programmable " +
      "controller, logic controller, process plc, line controller",
    manner: "typed",
    kbps: 500,
    noDhcp: true,
    never: true,
  }),
  kind("operator panel", "operatorPanel", "cell", {
    aliases: "hmi, panel, touch panel, operator terminal, touch screen, touchscreen",
    manner: "typed",
    kbps: 500,
    noDhcp: true,
    never: true,
  }),
  kind("drive", "drive", "cell", {
    aliases:
      "inverter, variable speed drive, servo, vfd, vsd, frequency " +
      "converter, motor drive, servo drive, soft starter",
    manner: "typed",
    kbps: 200,
    noDhcp: true,
    never: true,
  }),
  kind("I/O island", "ioIsland", "cell", {
    aliases:
      "io island, remote io, remote i/o, i/o, valve island, io block, i/o " +
      "block, io module, i/o module, remote io island, distributed i/o",
    manner: "typed",
    kbps: 200,
    noDhcp: true,
    never: true,
  }),
  kind("weigher", "controller", "cell", {
    aliases: "scale, checkweigher, weighing scale, weighbridge, load cell, scales",
    manner: "typed",
    kbps: 100,
    noDhcp: true,
    never: true,
  }),
  kind("operator station", "pc", "operations", {
    aliases: "control room pc, engineering station, hmi pc, scada client, operator pc, control room station",
    manner: "reserved",
    kbps: 5000,
    never: true,
  }),
  kind("plant server", "server", "operations", {
    aliases: "historian, supervisory server, batch server, scada, scada server, mes server, process server",
    manner: "typed",
    kbps: 20_000,
    never: true,
  }),
  kind("transfer server", "server", "dmz", {
    aliases:
      "report server, jump server, update server, dmz server, bastion host, file transfer server, proxy",
    manner: "typed",
    kbps: 20_000,
  }),
  kind("vendor box", "other", "vendor", {
    aliases:
      "vendor router, support box, remote support box, remote access box, maintenance router, service router",
    manner: "reserved",
    kbps: 2000,
  }),
  kind("safety controller", "controller", "safety", {
    aliases: "safety plc, fail-safe controller, safety relay",
    manner: "typed",
    kbps: 500,
    noDhcp: true,
    never: true,
  }),
  kind("safety I/O", "ioIsland", "safety", {
    aliases: "safety io, safety island, safety i/o island, safety io block, light curtain, fail-safe i/o",
    manner: "typed",
    kbps: 200,
    noDhcp: true,
    never: true,
  }),
  kind("x-ray panel", "imaging", "instruments", {
    aliases: "x-ray, xray, xray panel, x-ray detector, radiography panel, dental x-ray",
    manner: "typed",
    kbps: 20_000,
    never: true,
  }),
  kind("ultrasound", "imaging", "instruments", {
    aliases: "ultrasound scanner, sonograph, ultrasound machine",
    manner: "typed",
    kbps: 10_000,
    never: true,
  }),
  kind("analyser", "imaging", "instruments", {
    aliases: "analyzer, blood analyser, lab analyser, lab analyzer, blood analyzer, urine analyser",
    manner: "reserved",
    kbps: 500,
    never: true,
  }),
  kind("viewing station", "pc", "instruments", {
    aliases: "image viewer, reading station, review station, dicom viewer",
    manner: "reserved",
    kbps: 20_000,
    signIn: true,
    never: true,
  }),
  kind("image store", "storage", "instruments", {
    aliases: "picture store, pacs, image server, image archive",
    manner: "typed",
    kbps: 50_000,
    never: true,
  }),
  kind("server", "server", "servers", {
    aliases:
      "records server, file server, practice server, sign-in server, auth server, " +
      "authentication server, host server, domain controller, mail server, web server, " +
      "database server, hypervisor, virtual host, application server, radius server, dns server",
    manner: "typed",
    kbps: 50_000,
  }),
  kind("storage", "storage", "servers", {
    aliases:
      "file store, backup store, nas, san, network storage, disk station, backup server, backup storage",
    manner: "typed",
    kbps: 50_000,
    never: true,
  }),
  kind("guest", "mobile", "guests", {
    aliases:
      "visitor, visitor device, guest device, guest phone, guest laptop, customer, customer device, attendee",
    wireless: true,
    kbps: 2000,
    role: "crowd",
  }),
  kind("spare socket", "other", "people", {
    aliases:
      "socket, outlet, spare, network socket, data socket, " +
      "data point, wall socket, wall outlet, spare port, rj45",
    role: "socket",
    kbps: 0,
  }),
  kind("access point", "other", "management", {
    aliases: "ap, wireless point, wap, wifi point, wi-fi point, wireless access point, hotspot",
    manner: "typed",
    poe: 4,
    kbps: 100_000,
    role: "point",
  }),
  kind("switch", "other", "management", {
    aliases: "network switch, ethernet switch, lan switch, poe switch",
    manner: "typed",
    kbps: 0,
    role: "switch",
  }),
];

/** A kind the site has added, as the catalogue writes it. */
const ofSite = (own: HostKind): DeviceKind => ({
  word: own.name,
  aliases: own.aliases,
  base: own.base,
  purpose: own.purpose,
  manner: own.manner,
  wireless: own.wireless,
  poeClass: own.poeClass,
  kbps: own.kbps,
  speaksDhcp: own.speaksDhcp,
  speaksSignIn: own.speaksSignIn,
  internet: own.internet,
  role: "host",
});

/** The site's own kinds first: a word of one's own has one's own meaning. */
export const catalogueOf = (plan: Plan): readonly DeviceKind[] => [
  ...[...plan.hostKind.values()].map(ofSite),
  ...CATALOGUE,
];

/** The power a switch sets aside at the port for a class, in mW (IEEE 802.3 section 145.2.8). */
const CLASS_MW = [15_400, 4000, 7000, 15_400, 30_000, 45_000, 60_000, 75_000, 90_000] as const;
export const portPowerMw = (poeClass: number | null): number =>
  poeClass === null ? 0 : (CLASS_MW[poeClass] ?? 0);
