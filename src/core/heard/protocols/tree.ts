import type { Mac } from "../../address";
import { bitOf, macOf, type MacNumber, type Octets } from "../octets";
import { Contents, type Budget, type Tagged } from "../rows";

/** A bridge as its messages name it: priority in steps of 4096, and the twelve bits below. */
export interface BridgeName {
  readonly priority: number;
  readonly ext: number;
  readonly mac: Mac;
}
const ROLES = ["unknown", "alternate", "root", "designated"] as const;

/** What a bridge says of its tree (IEEE 802.1Q clause 14). */
export interface TreeSaid extends Tagged {
  readonly kind: "stp" | "rstp" | "mstp" | "tcn";
  readonly mac: Mac;
  readonly root?: BridgeName;
  readonly cost?: number;
  /** Who sends; in a multiple tree the root of its region. */
  readonly bridge?: BridgeName;
  readonly port?: string;
  /** Seconds; some count in 256ths. */
  readonly maxAge?: number;
  readonly hello?: number;
  readonly forwardDelay?: number;
  readonly messageAge?: number;
  readonly flags?: Readonly<
    Record<"tc" | "tcAck", boolean> &
      Partial<Record<"proposal" | "learning" | "forwarding" | "agreement", boolean>>
  >;
  readonly role?: (typeof ROLES)[number];
  readonly region?: { readonly name: string; readonly revision: number; readonly digest: string };
  readonly internalRootCost?: number | null;
  readonly cistBridge?: BridgeName | null;
  readonly remainingHops?: number | null;
  readonly instances?: readonly {
    readonly id: number;
    readonly regionalRoot: Mac;
    readonly cost: number;
    readonly hops: number;
  }[];
}

export interface TreeFacts {
  readonly messages: readonly (TreeSaid & { readonly frames: number })[];
  readonly topologyChange: { readonly tcnFrames: number; readonly framesWithTcFlag: number };
}

/** The logical link header of bridges: both service access points 42, unnumbered information. */
const LLC = [0x42, 0x42, 0x03] as const;
const TCN = 0x80;
const AT = {
  version: 2,
  type: 3,
  flags: 4,
  root: 5,
  cost: 13,
  bridge: 17,
  port: 25,
  messageAge: 27,
  maxAge: 29,
  hello: 31,
  forwardDelay: 33,
} as const;
/** Lengths up to which each kind is there. */
const LEAST = { tcn: 4, stp: 35, rstp: 36 } as const;
/** Of the part of a multiple tree (IEEE 802.1Q clause 14.4): region, then the sender, then instances. */
const MSTP = {
  length: 36,
  name: 39,
  revision: 71,
  digest: 73,
  cost: 89,
  sender: 93,
  hops: 101,
  instances: 102,
} as const;
const INSTANCE = { root: 1, cost: 9, hops: 15, length: 16 } as const;
const MOST_INSTANCES = 64;
/** What of the part stands in front of the instances. */
const MSTP_HEAD = 64;

function nameAt(bpdu: Octets, at: number): BridgeName {
  const word = bpdu.u16(at);
  return { priority: word - (word % 4096), ext: word % 4096, mac: macOf(bpdu.u48(at + 2)) };
}

const secondsAt = (bpdu: Octets, at: number): number => bpdu.u16(at) / 256;

function instancesIn(bpdu: Octets): NonNullable<TreeSaid["instances"]> {
  const said = Math.floor((bpdu.u16(MSTP.length) - MSTP_HEAD) / INSTANCE.length);
  const count = Math.max(0, Math.min(MOST_INSTANCES, said));
  return Array.from({ length: count }, (_, i) => MSTP.instances + i * INSTANCE.length)
    .filter((at) => bpdu.has(at, INSTANCE.length))
    .map((at) => {
      const root = nameAt(bpdu, at + INSTANCE.root);
      const cost = bpdu.u32(at + INSTANCE.cost);
      return { id: root.ext, regionalRoot: root.mac, cost, hops: bpdu.u8(at + INSTANCE.hops) };
    });
}

/** What of a multiple tree is there: where it was cut, null stands for what is missing. */
function regionPart(bpdu: Octets): Partial<TreeSaid> {
  const isWhole = bpdu.has(MSTP.instances - 1);
  return {
    region: {
      name: bpdu.from(MSTP.name, 32).text(),
      revision: bpdu.u16(MSTP.revision),
      digest: bpdu.has(MSTP.digest, 16) ? bpdu.from(MSTP.digest, 16).hex().replaceAll(":", "") : "",
    },
    internalRootCost: bpdu.has(MSTP.cost, 4) ? bpdu.u32(MSTP.cost) : null,
    cistBridge: bpdu.has(MSTP.sender, 8) ? nameAt(bpdu, MSTP.sender) : null,
    remainingHops: isWhole ? bpdu.u8(MSTP.hops) : null,
    instances: instancesIn(bpdu),
  };
}

function kindOf(bpdu: Octets): TreeSaid["kind"] | null {
  const [version, type] = [bpdu.u8(AT.version), bpdu.u8(AT.type)];
  if (!bpdu.has(0, LEAST.tcn) || bpdu.u16(0) !== 0) return null;
  if (type === TCN) return "tcn";
  if (type === 0) return bpdu.has(0, LEAST.stp) ? "stp" : null;
  if (type !== 2 || !bpdu.has(0, LEAST.rstp)) return null;
  const hasRegion = version >= 3 && bpdu.u16(MSTP.length) >= MSTP_HEAD && bpdu.has(MSTP.digest);
  return hasRegion ? "mstp" : "rstp";
}

function saidIn(tagged: Tagged, from: MacNumber, bpdu: Octets): TreeSaid | null {
  const kind = kindOf(bpdu);
  const head = { ...tagged, mac: macOf(from) };
  if (kind === null) return null;
  if (kind === "tcn") return { ...head, kind };
  const bits = bpdu.u8(AT.flags);
  const [tc, tcAck] = [bitOf(bits, 0), bitOf(bits, 7)];
  const rapid = {
    proposal: bitOf(bits, 1),
    learning: bitOf(bits, 4),
    forwarding: bitOf(bits, 5),
    agreement: bitOf(bits, 6),
  };
  const isRapid = kind !== "stp";
  return {
    ...head,
    kind,
    root: nameAt(bpdu, AT.root),
    cost: bpdu.u32(AT.cost),
    bridge: nameAt(bpdu, AT.bridge),
    port: `0x${bpdu.u16(AT.port).toString(16).padStart(4, "0")}`,
    maxAge: secondsAt(bpdu, AT.maxAge),
    hello: secondsAt(bpdu, AT.hello),
    forwardDelay: secondsAt(bpdu, AT.forwardDelay),
    messageAge: secondsAt(bpdu, AT.messageAge),
    flags: { tc, tcAck, ...(isRapid ? rapid : {}) },
    ...(isRapid ? { role: ROLES[Math.floor(bits / 4) % 4] ?? "unknown" } : {}),
    ...(kind === "mstp" ? regionPart(bpdu) : {}),
  };
}

/** Messages of spanning trees. */
export class TreeHeard {
  readonly #said: Contents<TreeSaid>;
  #tcn = 0;
  #withFlag = 0;
  #lastRoot: BridgeName | null = null;

  constructor(budget: Budget) {
    this.#said = new Contents(budget);
  }

  /** `payload`: what follows the length of a frame. */
  add(tagged: Tagged, from: MacNumber, payload: Octets): void {
    if (!LLC.every((octet, at) => payload.u8(at) === octet)) return;
    const said = saidIn(tagged, from, payload.from(LLC.length));
    if (said === null) return;
    this.#said.add(said);
    if (said.root !== undefined && (said.vid ?? 0) === 0) this.#lastRoot = said.root;
    if (said.kind === "tcn") this.#tcn += 1;
    if (said.flags?.tc === true) this.#withFlag += 1;
  }

  /** The root of the last message that bore no VLAN; null for none. */
  get lastRoot(): BridgeName | null {
    return this.#lastRoot;
  }

  facts(): TreeFacts | undefined {
    const messages = this.#said.all();
    return messages.length === 0
      ? undefined
      : { messages, topologyChange: { tcnFrames: this.#tcn, framesWithTcFlag: this.#withFlag } };
  }
}
