import { formatAddress, type Ipv4 } from "../../address";
import { must, runsWords, type Dice } from "../../kernel";
import * as reads from "./answers";
import { anAddress, asIpv4, networkOf } from "./subnets";
import type { Sum } from "./sum";

/** A pool within a /24: its ends. */
function aPool(roll: Dice): { readonly first: Ipv4; readonly last: Ipv4 } {
  const { network } = networkOf(anAddress(roll), 24);
  const from = 2 + roll(200);
  return { first: asIpv4(network + from), last: asIpv4(network + from + 5 + roll(254 - from - 5)) };
}

const numberOf = (address: Ipv4): number => address % 256;

export function poolSum(roll: Dice): Sum {
  const { first, last } = aPool(roll);
  const span = last - first + 1;
  const out = roll(3) === 0 ? 0 : 1 + roll(Math.min(12, span - 2));
  const from = asIpv4(first + 1 + roll(span - out));
  const left = span - out;
  const exclusion =
    out === 0 ? "" : `, without ${formatAddress(from)} to ${formatAddress(asIpv4(from + out - 1))}`;
  return {
    kind: "pool",
    question:
      `A pool goes from ${formatAddress(first)} to ${formatAddress(last)}${exclusion}. ` +
      "How many addresses can it give?",
    ...reads.number(left),
    working: [
      `Both ends count: ${numberOf(last)} − ${numberOf(first)} + 1 = ${span}.`,
      ...(out === 0
        ? []
        : [
            "What is left out counts the same way: " +
              `${numberOf(from) + out - 1} − ${numberOf(from)} + 1 = ${out}.`,
            `${span} − ${out} = ${left}.`,
          ]),
    ],
  };
}

export function poolEndSum(roll: Dice): Sum {
  const { first, last } = aPool(roll);
  const count = last - first + 1;
  return {
    kind: "poolEnd",
    question: `A pool begins at ${formatAddress(first)} and is to give ${count} addresses. Which is its last?`,
    ...reads.address(last),
    working: [
      `The first counts already: ${numberOf(first)} + ${count} − 1 = ${numberOf(last)}.`,
      `So the last is ${formatAddress(last)}.`,
    ],
  };
}

/** Ports of a switch as runs, as one speaks of them. */
function somePorts(roll: Dice, most: number): number[] {
  const ports: number[] = [];
  for (let at = 1 + roll(4); at <= most; at += 2 + roll(5)) {
    const run = 1 + roll(7);
    for (let i = 0; i < run && at <= most; i += 1, at += 1) ports.push(at);
  }
  return ports;
}

export function portsSum(roll: Dice): Sum {
  const all = must([8, 16, 24, 48][roll(4)], "a switch");
  const ports = somePorts(roll, all);
  const isLeft = roll(2) === 0;
  const words = runsWords(ports, String);
  const runs = words.split(", ").map((run) => run.split(" to ").map(Number));
  const counted = runs.map(([from = 0, to = from]) =>
    from === to ? `${from}: 1` : `${from} to ${to}: ${to} − ${from} + 1 = ${to - from + 1}`,
  );
  return {
    kind: "ports",
    question:
      `Of a switch with ${all} ports, these are in use: ${words}. ` +
      `How many are ${isLeft ? "free" : "in use"}?`,
    ...reads.number(isLeft ? all - ports.length : ports.length),
    working: [
      `Both ends of a run count. ${counted.join("; ")}.`,
      `Together ${ports.length}${isLeft ? `; ${all} − ${ports.length} = ${all - ports.length}` : ""}.`,
    ],
  };
}
