import type { Device, Host } from "./schema/hardware";
import type { Segment } from "./schema/separation";
import type { Line } from "./schema/site";
import type { Gear, Room } from "./schema/survey";

// What a new entity has before anything is known of it. Everything but ids, names and references, which the planner gives.

export const BLANK_LINE: Omit<Line, "id" | "name"> = {
  access: "fibre", addressing: "dhcp", vlanTag: null, carrierNat: "unknown", providerBox: "none", boxPrefix: null, locked: "", downMbps: 0, upMbps: 0,
};
export const BLANK_SEGMENT: Omit<Segment, "id" | "zone" | "vlan" | "name" | "mark" | "tape"> = {
  prefixes4: [], prefixes6: [], gatewayInterface: null, dns: [], time: [], domainName: "", planned: 0, growth: 0, management: false, purpose: "other", group: "",
  advertise: "none", visit: null,
};
export const BLANK_DEVICE: Omit<Device, "id" | "kind" | "bridging" | "name" | "model" | "domain"> = {
  place: "", poeBudgetMw: 0, tree: { kind: "none", priority: 32_768 }, supportUntil: null, credentialsPlace: "", vlanNameLimit: null, position: null, notes: "",
};
export const BLANK_HOST: Omit<Host, "id" | "name"> = {
  kind: "pc", mac: null, manner: "dynamic", ipv4: null, ipv6: null, segment: null, attachment: { at: "unplaced" }, tag: null, place: "", surveyed: null, notes: "",
};
export const BLANK_ROOM: Omit<Room, "id" | "name" | "position"> = { kind: "room", cabinet: null, cableCm: null, heightUnits: null, group: "", needs: "" };
export const BLANK_GEAR: Omit<Gear, "id" | "name"> = {
  kind: "switch", model: "", room: null, addresses: [], prefixes: [], dhcp: "unknown", facesInternet: false, supportUntil: null, fate: "keep", device: null, notes: "",
};
