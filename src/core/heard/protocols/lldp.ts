import { formatAddress, type Mac } from "../../address";
import { bitOf, macOf, type Octets } from "../octets";
import { Contents, type Budget, type Tagged } from "../rows";
import type { Heading } from "../link";

export interface MedPolicy {
  /** 1 is voice, 6 and 7 are video (ANSI/TIA-1057 table 12). */
  readonly application: number;
  readonly unknown: boolean;
  readonly tagged: boolean;
  readonly vid: number;
  readonly priority: number;
  readonly dscp: number;
}

/** What a neighbour says of itself (IEEE 802.1AB clause 8). */
export interface Neighbour extends Tagged {
  readonly mac: Mac;
  readonly dst: Mac | null;
  readonly chassisIdSubtype: number | null;
  readonly chassisId: string;
  readonly portIdSubtype: number | null;
  readonly portId: string;
  readonly ttl: number;
  /** It says that it goes away. */
  readonly shutdown?: true;
  readonly portDescription?: string;
  readonly systemName?: string;
  readonly systemDescription?: string;
  readonly capabilitiesEnabled?: readonly string[];
  readonly managementAddresses?: readonly string[];
  readonly pvid?: number;
  readonly vlanNames?: readonly { readonly vid: number; readonly name: string }[];
  readonly medClass?: number;
  readonly medPolicies?: readonly MedPolicy[];
  readonly medPower?: {
    readonly type: "pse" | "pd";
    readonly source: number;
    readonly priority: number;
    readonly milliwatts: number;
  };
  readonly mdiPower?: {
    readonly portClass: "pse" | "pd";
    readonly classOnWire: number;
    /** 0 to 4: one less than stands on the wire. */
    readonly powerClass: number;
    /** Tenths of a watt. */
    readonly requested?: number;
    readonly allocated?: number;
  };
}
export type NeighbourFact = Neighbour & { readonly frames: number };

/** By bit (IEEE 802.1AB table 8-4). */
const CAPABILITIES = [
  "other",
  "repeater",
  "bridge",
  "wlan_access_pt",
  "router",
  "telephone",
  "docsis_cable_device",
  "station_only",
  "cvlan",
  "svlan",
  "tpmr",
] as const;

/** While it is read. */
type Draft = { -readonly [Key in keyof Neighbour]?: Neighbour[Key] };

const MAC_SUBTYPE = { chassis: 4, port: 3 } as const;
const ADDRESS_SUBTYPE = { chassis: 5, port: 4 } as const;

/** An identifier by its subtype: a MAC address, a network address, or a name. */
function identifier(value: Octets, kind: "chassis" | "port"): string {
  const [subtype, body] = [value.u8(0), value.from(1)];
  if (subtype === MAC_SUBTYPE[kind]) return body.hex();
  return (subtype === ADDRESS_SUBTYPE[kind] ? networkAddress(body) : null) ?? body.text();
}

/** An address behind the number of its family: 1 is IPv4, 2 is IPv6. */
function networkAddress(body: Octets): string | null {
  if (body.u8(0) === 1 && body.has(1, 4)) return formatAddress(body.address4(1));
  return body.u8(0) === 2 && body.has(1, 16) ? formatAddress(body.address6(1)) : null;
}

/** The basic set (IEEE 802.1AB clause 8.5), by type. */
const BASIC: ReadonlyMap<number, (value: Octets, draft: Draft) => void> = new Map([
  [
    1,
    (value: Octets, draft: Draft) => {
      draft.chassisIdSubtype = value.u8(0);
      draft.chassisId = identifier(value, "chassis");
    },
  ],
  [
    2,
    (value: Octets, draft: Draft) => {
      draft.portIdSubtype = value.u8(0);
      draft.portId = identifier(value, "port");
    },
  ],
  [
    3,
    (value: Octets, draft: Draft) => {
      draft.ttl = value.u16(0);
      if (draft.ttl === 0) draft.shutdown = true;
    },
  ],
  [4, (value: Octets, draft: Draft) => void (draft.portDescription = value.text())],
  [5, (value: Octets, draft: Draft) => void (draft.systemName = value.text())],
  [6, (value: Octets, draft: Draft) => void (draft.systemDescription = value.text())],
  [
    7,
    (value: Octets, draft: Draft) =>
      void (draft.capabilitiesEnabled = CAPABILITIES.filter((_, bit) => bitOf(value.u16(2), bit))),
  ],
  [
    8,
    (value: Octets, draft: Draft) => {
      const address = networkAddress(value.from(1));
      if (address !== null) draft.managementAddresses = [...(draft.managementAddresses ?? []), address];
    },
  ],
]);

function policyIn(value: Octets): MedPolicy {
  const word = value.u32(4) % 2 ** 24;
  return {
    application: value.u8(4),
    unknown: bitOf(word, 23),
    tagged: bitOf(word, 22),
    vid: Math.floor(word / 2 ** 9) % 4096,
    priority: Math.floor(word / 2 ** 6) % 8,
    dscp: word % 64,
  };
}

/** IEEE 802.3 clause 79.3.2. */
function powerIn(value: Octets): NonNullable<Neighbour["mdiPower"]> {
  const classOnWire = value.u8(6);
  const isLong = value.has(8, 4);
  return {
    portClass: bitOf(value.u8(4), 0) ? "pse" : "pd",
    classOnWire,
    powerClass: classOnWire - 1,
    ...(isLong ? { requested: value.u16(8), allocated: value.u16(10) } : {}),
  };
}

/** What organisations add, by identifier and subtype: VLANs (IEEE 802.1Q annex D), power, telephones. */
const ORGANISATIONS: ReadonlyMap<string, (value: Octets, draft: Draft) => void> = new Map([
  ["00:80:c2:01", (value: Octets, draft: Draft) => void (draft.pvid = value.u16(4))],
  [
    "00:80:c2:03",
    (value: Octets, draft: Draft) => {
      const name = value.from(7, value.u8(6)).text();
      draft.vlanNames = [...(draft.vlanNames ?? []), { vid: value.u16(4), name }];
    },
  ],
  ["00:12:0f:02", (value: Octets, draft: Draft) => void (draft.mdiPower = powerIn(value))],
  ["00:12:bb:01", (value: Octets, draft: Draft) => void (draft.medClass = value.u8(6))],
  [
    "00:12:bb:02",
    (value: Octets, draft: Draft) =>
      void (draft.medPolicies = [...(draft.medPolicies ?? []), policyIn(value)]),
  ],
  [
    "00:12:bb:04",
    (value: Octets, draft: Draft) => {
      const octet = value.u8(4);
      draft.medPower = {
        type: octet < 64 ? "pse" : "pd",
        source: Math.floor(octet / 16) % 4,
        priority: octet % 16,
        milliwatts: value.u16(5) * 100,
      };
    },
  ],
]);
const ORGANISATION = 127;
const MOST_PARTS = 200;

/** The parts of a message: seven bits of type, nine of length (IEEE 802.1AB clause 8.4). */
function readParts(message: Octets, draft: Draft): void {
  for (let at = 0, i = 0; message.has(at, 2) && i < MOST_PARTS; i += 1) {
    const word = message.u16(at);
    const [type, length] = [Math.floor(word / 512), word % 512];
    // What was cut off in its middle says nothing; 0 is the end.
    if (type === 0 || !message.has(at + 2, length)) return;
    const value = message.from(at + 2, length);
    if (type === ORGANISATION) ORGANISATIONS.get(value.from(0, 4).hex())?.(value, draft);
    else BASIC.get(type)?.(value, draft);
    at += 2 + length;
  }
}

/** Neighbours that name themselves. */
export class LldpHeard {
  readonly #neighbours: Contents<Neighbour>;

  constructor(budget: Budget) {
    this.#neighbours = new Contents(budget);
  }

  add(tagged: Tagged, { from, to, payload }: Heading): void {
    const draft: Draft = {};
    readParts(payload, draft);
    if (draft.chassisId === undefined) return;
    this.#neighbours.add({
      ...tagged,
      mac: macOf(from),
      dst: to === null ? null : macOf(to),
      chassisIdSubtype: null,
      chassisId: "",
      portIdSubtype: null,
      portId: "",
      ttl: 0,
      ...draft,
    });
  }

  facts(): readonly NeighbourFact[] | undefined {
    const all = this.#neighbours.all();
    return all.length === 0 ? undefined : all;
  }
}
