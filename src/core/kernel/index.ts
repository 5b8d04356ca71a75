export type { Brand } from "./brand";
export { BitSet } from "./bit-set";
export { Heap } from "./heap";
export { DisjointSet } from "./disjoint-set";
export { equal } from "./equal";
export { assertNever, must } from "./must";
export { ascending, byNaturalText, byText } from "./order";
export { err, ok, type Result } from "./result";
export { runsOf, runsWords } from "./runs";
