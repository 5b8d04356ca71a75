import {
  asPrefix4,
  containsAddress,
  formatAddress,
  formatPrefix,
  ipv4,
  prefixOf,
  type Ipv4,
  type Prefix4,
} from "../../address";
import { must, type Dice } from "../../kernel";
import { counted } from "../../repairs";
import * as reads from "./answers";
import type { Sum } from "./sum";

export const asIpv4 = (value: number): Ipv4 => must(ipv4(value), `${value}`);

/** The network of an address. */
export const networkOf = (address: Ipv4, length: number): Prefix4 =>
  must(asPrefix4(prefixOf(address, length)), "a network");
/** So many addresses a network has, and the last of them. */
const countOf = ({ length }: Prefix4): number => 2 ** (32 - length);
const lastOf4 = (prefix: Prefix4): Ipv4 => asIpv4(prefix.network + countOf(prefix) - 1);
const maskOf = (length: number): Ipv4 => asIpv4(2 ** 32 - 2 ** (32 - length));
const maskText = (length: number): string => formatAddress(maskOf(length));

/** An address of the private blocks (RFC 1918). */
export function anAddress(roll: Dice): Ipv4 {
  const tail = roll(2 ** 16);
  const starts = [
    10 * 2 ** 24 + roll(256) * 2 ** 16,
    (172 * 256 + 16 + roll(16)) * 2 ** 16,
    (192 * 256 + 168) * 2 ** 16,
  ];
  return asIpv4(must(starts[roll(starts.length)], "a block") + tail);
}

/** An address with a length: from two addresses for devices to a /17. */
function aPrefix(roll: Dice): { readonly address: Ipv4; readonly prefix: Prefix4 } {
  const address = anAddress(roll);
  return { address, prefix: networkOf(address, 17 + roll(14)) };
}

/** The octet in which a length ends, by its place from 1, with its mask and how far its steps are apart. */
function octetOf(length: number): { readonly at: number; readonly mask: number; readonly step: number } {
  const at = Math.ceil(length / 8);
  const step = 2 ** (at * 8 - length);
  return { at, mask: 256 - step, step };
}

const octet = (address: Ipv4, at: number): number => Math.floor(address / 2 ** (32 - 8 * at)) % 256;

/** How the network of an address is worked out. */
function blockWords(address: Ipv4, { network, length }: Prefix4): string[] {
  const { at, mask, step } = octetOf(length);
  const from = octet(network, at);
  return [
    `/${length} ends in octet ${at}: its mask there is ${mask}, so networks go in steps of ` +
      `256 − ${mask} = ${step}.`,
    `Octet ${at} of ${formatAddress(address)} is ${octet(address, at)}: the step at or below it is ${from}, ` +
      `the next is ${from + step}.`,
  ];
}

export function networkSum(roll: Dice): Sum {
  const { address, prefix } = aPrefix(roll);
  const answer = formatPrefix(prefix);
  return {
    kind: "network",
    question: `Which network is ${formatAddress(address)}/${prefix.length} in?`,
    ...reads.network(answer),
    working: [...blockWords(address, prefix), `Everything behind it is 0: ${answer}.`],
  };
}

export function lastSum(roll: Dice): Sum {
  const { address, prefix } = aPrefix(roll);
  const last = lastOf4(prefix);
  return {
    kind: "last",
    question:
      `What is the last address, the broadcast address, of the network of ` +
      `${formatAddress(address)}/${prefix.length}?`,
    ...reads.address(last),
    working: [
      ...blockWords(address, prefix),
      `The last address is the one before the next network: ${formatAddress(last)}.`,
    ],
  };
}

export function hostsSum(roll: Dice): Sum {
  const length = 20 + roll(11);
  const all = 2 ** (32 - length);
  return {
    kind: "hosts",
    question: `How many devices, the gateway among them, fit into a /${length}?`,
    ...reads.number(all - 2),
    working: [
      `32 − ${length} = ${32 - length} bits are left for devices: 2^${32 - length} = ${all} addresses.`,
      `The first names the network, the last is the broadcast address: ${all} − 2 = ${all - 2}.`,
    ],
  };
}

export function maskSum(roll: Dice): Sum {
  const length = 17 + roll(14);
  const { at, mask, step } = octetOf(length);
  return {
    kind: "mask",
    question: `What is the mask of a /${length}?`,
    ...reads.address(maskOf(length)),
    working: [
      `${at - 1} octets are full: 255 each. ` +
        `Of octet ${at} ${counted(length - 8 * (at - 1), "bit is", "bits are")} set.`,
      `The ${8 * at - length} others are worth ${step}: 256 − ${step} = ${mask}.`,
      `Written out: ${maskText(length)}.`,
    ],
  };
}

export function lengthSum(roll: Dice): Sum {
  const length = 17 + roll(14);
  const { at, mask, step } = octetOf(length);
  const free = 8 * at - length;
  return {
    kind: "length",
    question: `Which length has the mask ${maskText(length)}?`,
    ...reads.length(length),
    working: [
      `${at - 1} octets are 255: ${8 * (at - 1)} bits.`,
      `${mask} in octet ${at}: 256 − ${mask} = ${step} = 2^${free}, so 8 − ${free} = ` +
        `${counted(8 - free, "bit", "bits")} more: /${length}.`,
    ],
  };
}

export function smallestSum(roll: Dice): Sum {
  const count = 3 + roll(900);
  const bits = Math.ceil(Math.log2(count + 2));
  return {
    kind: "smallest",
    question:
      `${count} devices, the gateway among them, need addresses. ` +
      "What is the length of the smallest network?",
    ...reads.length(32 - bits),
    working: [
      `Network and broadcast address come on top: ${count} + 2 = ${count + 2}.`,
      `2^${bits - 1} = ${2 ** (bits - 1)} is too few, 2^${bits} = ${2 ** bits} is enough: ` +
        `32 − ${bits} = /${32 - bits}.`,
    ],
  };
}

export function insideSum(roll: Dice): Sum {
  const { address, prefix } = aPrefix(roll);
  const near = (address + roll(2 * countOf(prefix)) - countOf(prefix)) % 2 ** 32;
  const other = asIpv4(Math.max(0, near));
  const isInside = containsAddress(prefix, other);
  return {
    kind: "inside",
    question:
      `A device is ${formatAddress(address)}/${prefix.length}. ` +
      `Does it reach ${formatAddress(other)} without its gateway?`,
    ...reads.yes(isInside),
    working: [
      ...blockWords(address, prefix),
      `Its network goes from ${formatAddress(prefix.network)} to ${formatAddress(lastOf4(prefix))}.`,
      `${formatAddress(other)} lies ` +
        (isInside ? "in it: it is asked for directly." : "outside: that goes to the gateway."),
    ],
  };
}

export function afterSum(roll: Dice): Sum {
  const { prefix } = aPrefix(roll);
  const next = networkOf(asIpv4((lastOf4(prefix) + 1) % 2 ** 32), prefix.length);
  return {
    kind: "after",
    question: `Which network of the same size comes right after ${formatPrefix(prefix)}?`,
    ...reads.network(formatPrefix(next)),
    working: [
      `A /${prefix.length} has 2^${32 - prefix.length} = ${countOf(prefix)} addresses; ` +
        `its last is ${formatAddress(lastOf4(prefix))}.`,
      `The next address begins the next network: ${formatPrefix(next)}.`,
    ],
  };
}

export function splitSum(roll: Dice): Sum {
  const from = 16 + roll(9);
  const to = from + 1 + roll(Math.min(6, 30 - from));
  return {
    kind: "split",
    question: `How many /${to} networks are in a /${from}?`,
    ...reads.number(2 ** (to - from)),
    working: [
      `${to} − ${from} = ${counted(to - from, "bit", "bits")} more: 2^${to - from} = ${2 ** (to - from)}.`,
    ],
  };
}

export function sixtySum(roll: Dice): Sum {
  const length = 44 + roll(20);
  return {
    kind: "sixty",
    question: `A site is given a /${length} of IPv6. How many segments, a /64 each, does it hold?`,
    ...reads.number(2 ** (64 - length)),
    working: [
      `64 − ${length} = ${counted(64 - length, "bit", "bits")}: 2^${64 - length} = ${2 ** (64 - length)}.`,
    ],
  };
}
