import type { Device, Line, Port } from "../plan";

/** An address with the subnet it lies in, as it is typed into a device. */
export interface SheetAddress {
  readonly address: string;
  readonly prefixLength: number;
  readonly mask: string;
}
export interface SheetVlan {
  readonly vid: number;
  readonly name: string;
  readonly segment: string;
  readonly purpose: string;
  /** What its packets are marked with where marks are not trusted. */
  readonly marks: string;
}
export interface SheetInterface {
  readonly name: string;
  readonly mac: string;
  readonly segment: string;
  readonly vid: number | null;
  readonly line: string;
  readonly port: string;
  readonly addresses4: readonly SheetAddress[];
  readonly addresses6: readonly SheetAddress[];
  readonly relayTo: string;
  /** What packets of the segment are marked with where no VLAN says it; "" for others. */
  readonly marks: string;
}
export interface SheetScope {
  readonly segment: string;
  readonly vid: number | null;
  readonly subnet: string;
  readonly pools: readonly string[];
  readonly exclusions: readonly string[];
  readonly gateway: string;
  readonly dns: readonly string[];
  readonly time: readonly string[];
  readonly domainName: string;
  readonly leaseSeconds: number;
  readonly options: readonly { readonly code: number; readonly name: string; readonly value: string }[];
  readonly reservations: readonly { readonly name: string; readonly mac: string; readonly address: string }[];
}
export interface SheetPort {
  readonly label: string;
  readonly softwareName: string;
  readonly pluggedIn: string;
  readonly mode: string;
  readonly enabled: boolean;
  readonly pvid: number | null;
  readonly untagged: readonly number[];
  readonly tagged: readonly number[];
  readonly admit: Port["admit"];
  readonly ingressFilter: boolean;
  readonly speedMbps: number;
  readonly poe: string;
  readonly optic: string;
  readonly lag: string;
  readonly guards: Omit<Port["guards"], "profile"> & { readonly profile: string };
  /** What it announces to phones; empty for nothing. */
  readonly voicePolicy: string;
  readonly note: string;
  readonly routed: boolean;
}
export interface SheetSsid {
  readonly name: string;
  readonly segments: readonly string[];
  readonly vids: readonly number[];
  readonly security: string;
  /** The sign-in profile whose servers it asks; empty where it asks none. */
  readonly profile: string;
  readonly hidden: boolean;
  readonly isolation: boolean;
  readonly bands: readonly string[];
}
/** An internet line as it is entered on the device at its end. What nobody knows yet is empty. */
export interface SheetLine {
  readonly name: string;
  readonly port: string;
  readonly addressing: Line["addressing"];
  readonly vlanTag: number | null;
  readonly addresses: readonly string[];
  readonly masks: readonly string[];
  readonly nextHops: readonly string[];
  readonly dns: readonly string[];
}
/** In which order lines carry what goes out, and what belongs to one of them alone. */
export interface SheetFailover {
  readonly order: number;
  readonly line: string;
  /** Percent of what goes out; "everything" without shares. */
  readonly share: string;
  readonly noticedBy: string;
  readonly nextAfter: string;
  readonly backAfter: string;
  readonly pinned: string;
  readonly marks: string;
  /** The IPv6 prefix that the provider delegates. */
  readonly delegated: string;
  /** The largest packet that leaves in one piece: 1492 where it is wrapped for a login (RFC 2516 section 7). */
  readonly mtu: number;
  readonly providerBox: string;
  readonly name: string;
  readonly nameUpdatedBy: string;
  /** Where the account of the name is kept. */
  readonly nameAccount: string;
}
/** A tunnel that is answered here. */
export interface SheetTunnel {
  readonly name: string;
  readonly for: string;
  readonly farEnd: string;
  readonly answeredAt: string;
  readonly line: string;
}
/** Something that is set on the device as a whole: its protections, its administrators' sign-in. */
export interface SheetProtection {
  readonly setting: string;
  readonly value: string;
}
/** Where what leaves gets another address. */
export interface SheetTranslation {
  readonly out: string;
  /** Empty where the line gives it. */
  readonly address: string;
}
/** What comes in on a line and is sent on to a host. */
export interface SheetForward {
  readonly name: string;
  readonly line: string;
  readonly outside: string;
  readonly protocol: "tcp" | "udp";
  readonly ports: string;
  readonly to: string;
  readonly host: string;
  readonly toPort: string;
  readonly hairpin: boolean;
  readonly sources: readonly string[];
  readonly until: string | null;
}
/** A rule of the list that the device's walls need. */
export interface SheetRule {
  readonly number: number;
  readonly from: readonly string[];
  readonly to: readonly string[];
  readonly services: string;
  readonly action: "accept";
  /** The hours of the week in which it is switched on; empty for always. */
  readonly when: string;
  readonly reason: string;
}
export interface SheetRadio {
  readonly band: string;
  readonly enabled: boolean;
  readonly channel: number | null;
  readonly widthMhz: number;
  readonly power: string;
}

/** How ports of the device let devices in (IEEE 802.1X). */
export interface SheetSignIn {
  readonly profile: string;
  readonly servers: readonly { readonly name: string; readonly address: string }[];
  readonly ports: readonly string[];
  /** Everything else that is set, in words. */
  readonly settings: readonly { readonly setting: string; readonly value: string }[];
}

/**
 * All that is to be entered on one device and what is to be known about it, as plain data: what its sheet,
 * its files and the user's templates are made of.
 */
export interface DeviceData {
  readonly site: string;
  readonly name: string;
  /** The name without spaces, as it can be typed into the device (RFC 1123 section 2.1). */
  readonly hostName: string;
  readonly kind: Device["kind"];
  readonly model: string;
  readonly place: string;
  readonly rackUnit: number | null;
  readonly feed: string;
  readonly backupFeed: string;
  readonly credentialsPlace: string;
  /** What it is and runs: serial number, revision, software. */
  readonly identity: readonly SheetProtection[];
  /** How it is administered: ways in, password rules, servers of its own, clock. */
  readonly administration: readonly SheetProtection[];
  readonly supportUntil: string | null;
  /** Whether that day has passed; false where no day is known. */
  readonly supportEnded: boolean;
  readonly knowsVlans: boolean;
  /** Whether its pages show PVID and membership as two lists. */
  readonly twoLists: boolean;
  readonly tree: Device["tree"];
  /** The digest of its region's map (IEEE 802.1Q section 13.8); empty with any other tree. */
  readonly digest: string;
  /** The MAC address in its bridge identifier, entered or that of its lowest leg; null when nobody knows. */
  readonly bridgeMac: string | null;
  /** The address its own questions leave from, where one is chosen. */
  readonly asksFrom: string | null;
  readonly lines: readonly SheetLine[];
  readonly failover: readonly SheetFailover[];
  readonly tunnels: readonly SheetTunnel[];
  readonly protections: readonly SheetProtection[];
  readonly signIns: readonly SheetSignIn[];
  /** What is known of it as it comes out of its box. */
  readonly outOfBox: readonly SheetProtection[];
  /** How administrators sign in to it. */
  readonly administrators: readonly SheetProtection[];
  readonly routes: readonly {
    readonly prefix: string;
    readonly via: string;
    readonly metric: number;
  }[];
  readonly translations: readonly SheetTranslation[];
  /** How its list of rules is read; null where it filters nothing. */
  readonly filter: {
    readonly remembers: boolean;
    readonly logsRefused: boolean;
    readonly hostsOpen: boolean;
  } | null;
  readonly forwards: readonly SheetForward[];
  readonly rules: readonly SheetRule[];
  /** End devices that are to join at this access point. */
  /** The segments of which it tells each what the others offer, by name. */
  readonly tells: readonly string[];
  readonly stations: readonly { readonly name: string; readonly ssid: string }[];
  /** Where it is managed: null without an address of its own. */
  readonly management: {
    readonly segment: string;
    readonly vid: number | null;
    readonly address: SheetAddress;
    readonly gateway: string | null;
    readonly dns: readonly string[];
    readonly time: readonly string[];
  } | null;
  readonly vlans: readonly SheetVlan[];
  readonly lags: readonly {
    readonly name: string;
    readonly mode: "static" | "active" | "passive";
    readonly ports: readonly string[];
  }[];
  readonly interfaces: readonly SheetInterface[];
  readonly scopes: readonly SheetScope[];
  readonly ssids: readonly SheetSsid[];
  readonly radios: readonly SheetRadio[];
  /** In the printed order. */
  readonly ports: readonly SheetPort[];
  readonly wayBack: readonly string[];
}
