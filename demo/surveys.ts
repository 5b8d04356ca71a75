import type { Gear, Room, Site } from "../src/core/plan";

/** A room of a demo's survey: as little as a person would type. */
export interface SurveyRoom {
  readonly name: string;
  readonly needs: string;
  readonly kind?: Room["kind"];
  readonly cabinet?: string;
  readonly metres?: number;
  readonly group?: string;
}
export interface SurveyGear extends Pick<Gear, "name" | "kind" | "fate"> {
  readonly room?: string;
  readonly model?: string;
  readonly dhcp?: Gear["dhcp"];
  readonly prefixes?: readonly string[];
  readonly addresses?: readonly string[];
  readonly facesInternet?: boolean;
  readonly supportUntil?: string;
}
export interface Survey {
  readonly name: string;
  readonly kind: Site["kind"];
  readonly rooms: readonly SurveyRoom[];
  readonly gear: readonly SurveyGear[];
}

const [A, B] = ["Cabinet A", "Cabinet B"];

export const FENNEL_STREET: Survey = {
  name: "Fennel Street Veterinary Practice",
  kind: "office",
  rooms: [
    {
      name: A,
      kind: "cabinet",
      needs: "1 practice server, 2 sign-in server, 1 image store, 1 recorder, 1 heating controller, 2 switch",
    },
    { name: B, kind: "cabinet", needs: "1 switch" },
    { name: "Reception", cabinet: A, metres: 14, needs: "3 PC+phone, 2 card terminal, 1 printer" },
    { name: "Waiting room", cabinet: A, metres: 22, needs: "1 screen, 1 camera, 1 access point, 60 guest" },
    { name: "Consult 1", cabinet: A, metres: 18, needs: "1 PC+phone, 1 label printer" },
    { name: "Consult 2", cabinet: A, metres: 20, needs: "1 PC+phone, 1 label printer" },
    { name: "Consult 3", cabinet: A, metres: 23, needs: "1 PC+phone, 1 label printer" },
    { name: "Consult", cabinet: A, metres: 26, needs: "1 access point" },
    { name: "Office", cabinet: A, metres: 17, needs: "3 PC+phone, 1 printer, 1 access point" },
    { name: "Manager", cabinet: A, metres: 19, needs: "1 PC+phone" },
    { name: "Pharmacy", cabinet: A, metres: 21, needs: "1 PC+phone, 1 card terminal" },
    { name: "Entrance", cabinet: A, metres: 12, needs: "1 door controller, 1 camera" },
    { name: "Outside", kind: "outdoor", cabinet: A, metres: 35, needs: "1 camera" },
    { name: "Practice", cabinet: A, needs: "6 laptop" },
    {
      name: "Theatre",
      cabinet: B,
      metres: 11,
      needs: "1 PC+phone, 1 viewing station, 1 air handling, 1 camera",
    },
    { name: "Imaging suite", cabinet: B, metres: 9, needs: "1 x-ray panel, 1 ultrasound, 1 viewing station" },
    { name: "Lab", cabinet: B, metres: 18, needs: "1 PC+phone, 1 analyser" },
    { name: "Kennels", cabinet: B, metres: 31, needs: "1 camera, 1 access point" },
  ],
  gear: [
    {
      name: "Provider's box",
      kind: "providerBox",
      room: A,
      fate: "keep",
      dhcp: "off",
      facesInternet: true,
      supportUntil: "2028-03-31",
    },
  ],
};

export const LOCKKEEPERS_HOUSE: Survey = {
  name: "Lockkeeper's House",
  kind: "home",
  rooms: [
    { name: "Hall cupboard", kind: "cabinet", needs: "1 heating controller for Gadgets, 1 switch" },
    { name: "Study", cabinet: "Hall cupboard", metres: 9, needs: "1 PC, 1 printer" },
    {
      name: "Living room",
      cabinet: "Hall cupboard",
      metres: 11,
      needs: "1 television, 1 game console, 1 smart speaker",
    },
    { name: "House", cabinet: "Hall cupboard", needs: "3 mobile, 2 tablet, 12 visitors" },
    { name: "Front door", cabinet: "Hall cupboard", metres: 6, needs: "1 doorbell wireless" },
    { name: "Landing", cabinet: "Hall cupboard", metres: 12, needs: "1 access point" },
    {
      name: "Studio",
      cabinet: "Hall cupboard",
      metres: 40,
      group: "Studio",
      needs: "1 laptop wired, 1 PC, 1 kiln logger for Studio, 1 access point",
    },
    {
      name: "Flat",
      cabinet: "Hall cupboard",
      metres: 15,
      group: "Lodger",
      needs: "1 PC, 2 mobile, 1 television",
    },
  ],
  gear: [
    {
      name: "Mobile box",
      kind: "providerBox",
      room: "Hall cupboard",
      fate: "keep",
      dhcp: "on",
      prefixes: ["192.168.144.0/24"],
      facesInternet: true,
      supportUntil: "2027-09-30",
    },
  ],
};

export const BRAMBLEWICK: Survey = {
  name: "Bramblewick Cider Works",
  kind: "industrial",
  rooms: [
    { name: "Office cabinet", kind: "cabinet", needs: "1 historian, 1 report server, 1 vendor box" },
    { name: "Press cabinet", kind: "cabinet", needs: "" },
    { name: "Tank cabinet", kind: "cabinet", needs: "" },
    { name: "Bottling cabinet", kind: "cabinet", needs: "" },
    { name: "Cold cabinet", kind: "cabinet", needs: "" },
    {
      name: "Office",
      cabinet: "Office cabinet",
      metres: 14,
      needs: "4 PC, 1 printer, 1 access point, 6 laptop",
    },
    { name: "Control room", cabinet: "Office cabinet", metres: 20, needs: "2 operator station" },
    {
      name: "Press house",
      cabinet: "Press cabinet",
      metres: 25,
      needs: "1 controller, 1 operator panel, 2 I/O island, 3 drive",
    },
    {
      name: "Tank farm",
      cabinet: "Tank cabinet",
      metres: 45,
      needs: "1 controller, 1 operator panel, 4 I/O island, 1 drive",
    },
    {
      name: "Bottling hall",
      cabinet: "Bottling cabinet",
      metres: 30,
      needs: "1 controller, 2 operator panel, 3 I/O island, 4 drive, 1 checkweigher, 3 safety controller",
    },
    {
      name: "Cold store",
      cabinet: "Cold cabinet",
      metres: 28,
      needs: "1 controller, 1 operator panel, 1 I/O island, 2 drive",
    },
    { name: "Yard", kind: "outdoor", cabinet: "Office cabinet", metres: 60, needs: "2 camera" },
  ],
  gear: [
    {
      name: "Old office router",
      kind: "gateway",
      room: "Office cabinet",
      fate: "remove",
      dhcp: "on",
      prefixes: ["192.168.177.0/24"],
      addresses: ["192.168.177.1"],
      facesInternet: true,
      supportUntil: "2024-12-31",
    },
  ],
};

export const SURVEYS = [FENNEL_STREET, LOCKKEEPERS_HOUSE, BRAMBLEWICK] as const;
