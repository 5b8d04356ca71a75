import { formatAddress, type Address } from "../address";
import type { Device, Interface, Line, Service } from "../plan";
import type { Party } from "../places";
import type { Packet } from "../policy";
import type { ProbeRun } from "./run";

/** What a router remembers of a packet it let through: as it came and as it left. */
export interface Flow {
  readonly device: string;
  /** The leg it came in by. */
  readonly leg: Interface;
  readonly came: Packet;
  readonly left: Packet;
}

/** One packet's way through the site. */
export interface Trip {
  readonly run: ProbeRun;
  /** What it is about in words, for the reason of a wall; null for an echo. */
  readonly service: Service | null;
  /** Whether the steps of the way are shown. */
  readonly shows: boolean;
  /** What the routers on the way remember; filled as the packet goes. */
  readonly flows: Flow[];
  /** What they remember of the question, when this is its answer; null for a question. */
  readonly answers: readonly Flow[] | null;
}

export const tripOf = (run: ProbeRun, service: Service | null, shows: boolean): Trip => ({
  run,
  service,
  shows,
  flows: [],
  answers: null,
});

/** The answer's way home, unseen. */
export const tripBack = (trip: Trip): Trip => ({ ...trip, shows: false, flows: [], answers: trip.flows });

/** Where a packet came out. */
export type Delivery =
  | { readonly at: "host"; readonly party: Party; readonly packet: Packet }
  | { readonly at: "device"; readonly device: Device; readonly leg: Interface; readonly packet: Packet }
  /** Into a tunnel, to its far end. */
  | { readonly at: "tunnel"; readonly device: Device; readonly leg: Interface; readonly packet: Packet }
  | { readonly at: "internet"; readonly device: Device; readonly line: Line; readonly packet: Packet };

/** A router and the leg that a packet is at. */
export interface AtLeg {
  readonly device: Device;
  readonly leg: Interface;
}

export const PROTOCOL_WORDS = { tcp: "TCP", udp: "UDP", icmp: "echo" } as const;

/** "TCP to 10.24.60.10 port 443", and its answer: what stands beside a frame. */
export function packetWords({ protocol, src, dst, sport, dport }: Packet, answers: boolean): string {
  const at = (address: Address, port: number | null) =>
    `${formatAddress(address)}${port === null ? "" : ` port ${port}`}`;
  return answers
    ? `${PROTOCOL_WORDS[protocol]}, the answer from ${at(src, sport)}`
    : `${PROTOCOL_WORDS[protocol]} to ${at(dst, dport)}`;
}
