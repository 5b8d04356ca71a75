import type { Purpose, Segment, Site } from "../plan";

type SiteKind = Site["kind"];

/** What the draft makes of a purpose. */
export interface PurposeRow {
  /** The segment's name where the survey gives no group. */
  readonly title: Readonly<Record<SiteKind, string>>;
  /** The zone it stands in; null for one of its own. */
  readonly zone: string | null;
  readonly insideOpen: boolean;
  readonly tape: Segment["tape"];
  /** What its wireless name ends in; null when nothing of it is wireless by itself. */
  readonly ssid: string | null;
  /** Whether rooms of different groups are kept apart: the flats of a house, the cells of a plant. */
  readonly byGroup: boolean;
}

const everywhere = (name: string): Record<SiteKind, string> => ({
  home: name,
  office: name,
  industrial: name,
});
const tape = (base: Segment["tape"]["base"], tracer: Segment["tape"]["tracer"] = null): Segment["tape"] => ({
  base,
  tracer,
});

/** In the order in which VLAN IDs are given. */
export const PURPOSE_ROWS: Readonly<Record<Purpose, PurposeRow>> = {
  management: {
    title: everywhere("Kit"),
    zone: "Kit",
    insideOpen: true,
    tape: tape("grey"),
    ssid: null,
    byGroup: false,
  },
  people: {
    title: { home: "Household", office: "Staff", industrial: "Office" },
    zone: null,
    insideOpen: true,
    tape: tape("blue"),
    ssid: "",
    byGroup: true,
  },
  voice: {
    title: everywhere("Phones"),
    zone: null,
    insideOpen: true,
    tape: tape("white", "blue"),
    ssid: null,
    byGroup: false,
  },
  instruments: {
    title: { home: "Instruments", office: "Imaging", industrial: "Laboratory" },
    zone: null,
    insideOpen: true,
    tape: tape("violet"),
    ssid: null,
    byGroup: false,
  },
  cards: {
    title: everywhere("Cards"),
    zone: "Payment",
    insideOpen: false,
    tape: tape("orange"),
    ssid: null,
    byGroup: false,
  },
  servers: {
    title: everywhere("Servers"),
    zone: null,
    insideOpen: true,
    tape: tape("green"),
    ssid: null,
    byGroup: false,
  },
  building: {
    title: everywhere("Building"),
    zone: "Building",
    insideOpen: false,
    tape: tape("brown"),
    ssid: null,
    byGroup: false,
  },
  cameras: {
    title: everywhere("Cameras"),
    zone: "Building",
    insideOpen: false,
    tape: tape("white", "brown"),
    ssid: null,
    byGroup: false,
  },
  operations: {
    title: everywhere("Operations"),
    zone: null,
    insideOpen: true,
    tape: tape("green", "white"),
    ssid: null,
    byGroup: false,
  },
  cell: {
    title: everywhere("Cell"),
    zone: null,
    insideOpen: true,
    tape: tape("aqua"),
    ssid: null,
    byGroup: true,
  },
  dmz: {
    title: everywhere("Plant DMZ"),
    zone: null,
    insideOpen: false,
    tape: tape("red"),
    ssid: null,
    byGroup: false,
  },
  vendor: {
    title: everywhere("Vendor support"),
    zone: null,
    insideOpen: false,
    tape: tape("pink"),
    ssid: null,
    byGroup: false,
  },
  gadgets: {
    title: everywhere("Gadgets"),
    zone: null,
    insideOpen: false,
    tape: tape("violet", "white"),
    ssid: "Gadgets",
    byGroup: false,
  },
  guests: {
    title: { home: "Visitors", office: "Guests", industrial: "Visitors" },
    zone: "Visitors",
    insideOpen: false,
    tape: tape("yellow"),
    ssid: "Guests",
    byGroup: false,
  },
  other: {
    title: everywhere("Other"),
    zone: null,
    insideOpen: false,
    tape: tape("white"),
    ssid: null,
    byGroup: true,
  },
  safety: {
    title: everywhere("Safety"),
    zone: null,
    insideOpen: true,
    tape: tape("black", "yellow"),
    ssid: null,
    byGroup: false,
  },
};

export const PURPOSE_ORDER = Object.keys(PURPOSE_ROWS) as Purpose[];

/** What a person calls a purpose. */
export const PURPOSE_WORDS: Readonly<Record<Purpose, string>> = {
  management: "the gear itself",
  people: "people's devices",
  voice: "phones",
  instruments: "instruments",
  cards: "payment",
  servers: "servers",
  building: "building controls",
  cameras: "cameras",
  operations: "plant operations",
  cell: "control cells",
  dmz: "plant DMZ",
  vendor: "vendor support",
  gadgets: "gadgets",
  guests: "visitors",
  other: "other",
  safety: "safety, apart",
};

/**
 * What may start talking to what in a drafted plan; every pair that is not here stays closed. Services by
 * their names.
 */
export interface Intent {
  readonly from: Purpose;
  readonly to: Purpose | "internet" | "gateway";
  readonly services: readonly string[] | "open";
  readonly reason: string;
}

export const INTENTS: readonly Intent[] = [
  { from: "people", to: "internet", services: "open", reason: "work, mail, updates" },
  { from: "guests", to: "internet", services: "open", reason: "that is all they get" },
  { from: "gadgets", to: "internet", services: "open", reason: "what they are there for" },
  { from: "voice", to: "internet", services: ["sip", "voice media", "ntp"], reason: "calls" },
  { from: "cards", to: "internet", services: ["https"], reason: "card acquirer" },
  { from: "management", to: "internet", services: ["https", "ntp"], reason: "updates only" },
  { from: "servers", to: "internet", services: ["https", "ntp"], reason: "updates only" },
  {
    from: "dmz",
    to: "internet",
    services: ["https", "ntp"],
    reason: "updates are fetched here, never by a cell",
  },
  {
    from: "management",
    to: "gateway",
    services: "open",
    reason: "the gateway's pages, from the gear's own segment only",
  },
  { from: "management", to: "servers", services: ["radius"], reason: "sign-in of ports and wireless" },
  { from: "people", to: "servers", services: ["dns", "files", "https"], reason: "records and DNS" },
  { from: "people", to: "instruments", services: ["dicom", "https"], reason: "results on the desks" },
  { from: "instruments", to: "servers", services: ["dns", "files"], reason: "records and DNS" },
  { from: "people", to: "cameras", services: ["video"], reason: "to look at the pictures" },
  { from: "people", to: "gadgets", services: ["https", "print"], reason: "to use them" },
  {
    from: "people",
    to: "dmz",
    services: ["https"],
    reason: "reports; the office never goes straight to a cell",
  },
  { from: "operations", to: "dmz", services: ["https", "files"], reason: "what the office is shown" },
  { from: "operations", to: "cell", services: ["opc ua", "modbus"], reason: "to watch and set the process" },
  { from: "vendor", to: "dmz", services: ["rdp"], reason: "support from outside, switched on for a time" },
];
