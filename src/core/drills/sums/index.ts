import { dice, must, type Dice } from "../../kernel";
import { poolEndSum, poolSum, portsSum } from "./counts";
import {
  afterSum,
  hostsSum,
  insideSum,
  lastSum,
  lengthSum,
  maskSum,
  networkSum,
  sixtySum,
  smallestSum,
  splitSum,
} from "./subnets";
import { SUM_KINDS, type Sum, type SumKind } from "./sum";

export { SUM_KINDS, type Sum, type SumKind };

const MAKERS: Readonly<Record<SumKind, (roll: Dice) => Sum>> = {
  network: networkSum,
  last: lastSum,
  hosts: hostsSum,
  mask: maskSum,
  length: lengthSum,
  smallest: smallestSum,
  inside: insideSum,
  after: afterSum,
  split: splitSum,
  pool: poolSum,
  poolEnd: poolEndSum,
  ports: portsSum,
  sixty: sixtySum,
};
const KINDS = Object.keys(SUM_KINDS) as SumKind[];

/** A sum, of one kind or of any: the same each time for the same seed. */
export function makeSum(kind: SumKind | null, seed: number): Sum {
  // The first number of neighbouring seeds is nearly the same.
  const roll = dice(1 + (((seed + 1) * 7919) % 2_000_000_000));
  roll(2);
  const any = must(KINDS[roll(KINDS.length)], "a kind");
  return MAKERS[kind ?? any](roll);
}
