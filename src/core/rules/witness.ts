import type { Address, Family } from "../address";
import type { Block } from "./blocks";
import type { Cell } from "./space";
import { serviceAt, type ServicePoint } from "./service-space";
import type { Universe } from "./universe";

/** One packet. Of several the *smallest* is told: IPv4 first, then by source, destination and service. */
export interface WitnessPacket {
  readonly family: Family;
  readonly from: string;
  readonly to: string;
  readonly source: Address;
  readonly target: Address;
  readonly service: ServicePoint;
}

/** A candidate for the smallest packet: the first address of each class and the number of a service. */
export interface Candidate {
  readonly block: Block;
  readonly source: Address;
  readonly target: Address;
  readonly service: number;
}

export const candidateOf = (block: Block, { source, target }: Cell, service: number): Candidate => ({
  block,
  source: source.spans[0]?.first as Address,
  target: target.spans[0]?.first as Address,
  service,
});

const isBefore = (a: Candidate, b: Candidate): boolean => {
  if (a.block.family !== b.block.family) return a.block.family < b.block.family;
  if (a.source !== b.source) return a.source < b.source;
  if (a.target !== b.target) return a.target < b.target;
  return a.service < b.service;
};

/** The smaller of the two; the first where there is no second. */
export const smaller = (a: Candidate, b: Candidate | null): Candidate =>
  b === null || isBefore(a, b) ? a : b;

/** Which of some networks has an address. */
function networkWith({ stations }: Universe, networks: readonly string[], address: Address): string {
  const [first = ""] = networks;
  const isIn = (network: string) =>
    stations
      .get(network)
      ?.some((span) => typeof span.first === typeof address && span.first <= address && address <= span.last);
  return networks.length === 1 ? first : (networks.find(isIn) ?? first);
}

export const packetOf = (
  universe: Universe,
  { block, source, target, service }: Candidate,
): WitnessPacket => ({
  family: block.family,
  from: networkWith(universe, block.from, source),
  to: networkWith(universe, block.to, target),
  source,
  target,
  service: serviceAt(service),
});
