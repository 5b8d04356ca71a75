export type { Brand } from "./brand";
export { grouped, putInto } from "./grouped";
export { Heap } from "./heap";
export { DisjointSet } from "./disjoint-set";
export { equal } from "./equal";
export { must } from "./must";
export { ascending, byNaturalText, byText } from "./order";
export { err, ok, type Result } from "./result";
export { runsWords } from "./runs";
