import { CaptureFile, type CapturedFrame } from "./container";
import { headingOf, TYPE, type Heading } from "./link";
import { carriedIn, PROTOCOL, udpIn, type Carried } from "./packets";
import { ArpHeard, type ArpFacts } from "./protocols/arp";
import { dhcpMessage } from "./protocols/dhcp";
import { DhcpHeard, type DhcpFacts } from "./protocols/dhcp-heard";
import { Dhcp6Heard, type Dhcp6Facts } from "./protocols/dhcp6";
import { LldpHeard, type NeighbourFact } from "./protocols/lldp";
import { NeighboursHeard, type NeighbourFacts } from "./protocols/neighbours";
import { RADIUS_PORTS, RadiusHeard, type RadiusFact } from "./protocols/radius";
import { SignInHeard, type SignInFact } from "./protocols/sign-in";
import { TreeHeard, type BridgeName, type TreeFacts } from "./protocols/tree";
import { UnreachableHeard, type UnreachableFact } from "./protocols/unreachable";
import { Budget, taggedOf, type Tagged } from "./rows";
import { TagFacts, type TagFact } from "./tags";
import { TrafficHeard, type TrafficFacts } from "./traffic";

/** What can be read off a capture: what is not there is undefined. */
export interface HeardFacts extends NeighbourFacts {
  readonly tags: readonly TagFact[];
  readonly dhcp?: DhcpFacts;
  readonly dhcp6?: Dhcp6Facts;
  readonly arp?: ArpFacts;
  readonly stp?: TreeFacts;
  readonly lldp?: readonly NeighbourFact[];
  readonly eapol?: readonly SignInFact[];
  readonly radius?: readonly RadiusFact[];
  readonly icmpUnreachable?: readonly UnreachableFact[];
  readonly traffic: TrafficFacts;
}

/** A capture that was read, as far as it could be. */
export interface HeardFile {
  readonly frames: number;
  /** Of so many frames not all was kept: what they do not show may still have been there. */
  readonly cutFrames: number;
  /** So many were too short, or of a kind that cannot be read. */
  readonly unread: number;
  readonly linkTypes: readonly number[];
  /** From the first to the last frame; 0 where the file holds no times. */
  readonly seconds: number;
  readonly facts: HeardFacts;
  /** The root of the last message of a tree that bore no VLAN: roots come back after others. Null for none. */
  readonly lastRoot: BridgeName | null;
  /** Why it was not read to its end; null where it was. */
  readonly stopped: string | null;
  /** There were more kinds of something than are kept. */
  readonly leftOut: boolean;
}

const PORT = { server: 67, client: 68, client6: 546, server6: 547 } as const;
const DHCP_PORTS: ReadonlySet<number> = new Set([PORT.server, PORT.client]);
const DHCP6_PORTS: ReadonlySet<number> = new Set([PORT.client6, PORT.server6]);

/** Listens to a capture, piece by piece, and keeps nothing but facts. */
export class Listener {
  readonly #file: CaptureFile;
  readonly #linkTypes = new Set<number>();
  readonly #budget = new Budget();
  readonly #tags = new TagFacts(this.#budget);
  readonly #arp = new ArpHeard(this.#budget);
  readonly #dhcp = new DhcpHeard(this.#budget);
  readonly #dhcp6 = new Dhcp6Heard(this.#budget);
  readonly #neighbours = new NeighboursHeard(this.#budget);
  readonly #tree = new TreeHeard(this.#budget);
  readonly #lldp = new LldpHeard(this.#budget);
  readonly #signIn = new SignInHeard(this.#budget);
  readonly #radius = new RadiusHeard(this.#budget);
  readonly #unreachable = new UnreachableHeard(this.#budget);
  readonly #traffic = new TrafficHeard(this.#budget);
  #frames = 0;
  #cut = 0;
  #unread = 0;
  #last = 0;

  constructor() {
    this.#file = new CaptureFile({
      frame: (frame) => this.#add(frame),
      hears: (linkType) => this.#linkTypes.add(linkType),
    });
  }

  /** So many frames were read. */
  get frames(): number {
    return this.#frames;
  }

  /** The next piece of the file. */
  push(piece: Uint8Array): void {
    this.#file.push(piece);
  }

  /** What was heard, when all pieces were given. */
  end(): HeardFile {
    this.#file.end();
    return {
      frames: this.#frames,
      cutFrames: this.#cut,
      unread: this.#unread,
      linkTypes: [...this.#linkTypes],
      seconds: this.#last,
      facts: this.#facts(),
      lastRoot: this.#tree.lastRoot,
      stopped: this.#file.stopped,
      leftOut: this.#budget.leftOut,
    };
  }

  #facts(): HeardFacts {
    const found = {
      dhcp: this.#dhcp.facts(),
      dhcp6: this.#dhcp6.facts(),
      arp: this.#arp.facts(),
      stp: this.#tree.facts(),
      lldp: this.#lldp.facts(),
      eapol: this.#signIn.facts(),
      radius: this.#radius.facts(),
      icmpUnreachable: this.#unreachable.facts(),
    };
    const there = Object.fromEntries(Object.entries(found).filter(([, facts]) => facts !== undefined));
    return {
      tags: this.#tags.facts(),
      ...there,
      ...this.#neighbours.facts(),
      traffic: this.#traffic.facts(),
    };
  }

  #add(frame: CapturedFrame): void {
    this.#frames += 1;
    if (frame.wireLength > frame.octets.length) this.#cut += 1;
    if (frame.at !== null) this.#last = Math.max(this.#last, frame.at);
    const heading = headingOf(frame);
    if (heading === null) {
      this.#unread += 1;
      return;
    }
    this.#tags.add(heading);
    this.#traffic.add(frame, heading);
    this.#inside(heading);
  }

  #inside(heading: Heading): void {
    const { type, payload, tags, from } = heading;
    if (type === null) this.#tree.add(taggedOf(tags), from, payload);
    else if (type === TYPE.arp) this.#arp.add(taggedOf(tags), payload);
    else if (type === TYPE.lldp) this.#lldp.add(taggedOf(tags), heading);
    else if (type === TYPE.eapol) this.#signIn.add(taggedOf(tags), heading, payload);
    else {
      const carried = carriedIn(type, payload);
      if (carried !== null) this.#carried(heading, carried);
    }
  }

  #carried({ tags, from }: Heading, carried: Carried): void {
    const { protocol, payload } = carried;
    if (protocol === PROTOCOL.icmp6) this.#neighbours.add(taggedOf(tags), from, carried.src(), payload);
    if (protocol === PROTOCOL.icmp) this.#unreachable.add(taggedOf(tags), carried);
    if (protocol !== PROTOCOL.udp) return;
    const udp = udpIn(carried);
    if (udp === null) return;
    if (DHCP_PORTS.has(udp.to) || DHCP_PORTS.has(udp.from))
      this.#addDhcp(taggedOf(tags), from, carried, udp.payload);
    else if (DHCP6_PORTS.has(udp.to) || DHCP6_PORTS.has(udp.from))
      this.#dhcp6.add(taggedOf(tags), from, carried.src(), udp.payload);
    else if (RADIUS_PORTS.has(udp.to) || RADIUS_PORTS.has(udp.from))
      this.#radius.add(taggedOf(tags), carried, udp);
  }

  #addDhcp(tagged: Tagged, from: number, carried: Carried, body: Carried["payload"]): void {
    const message = dhcpMessage(tagged, from, { source: carried.src(), body });
    if (message !== null) this.#dhcp.add(message);
  }
}
