export { laidBeside, type Laid } from "./laid";
export type { LaidLine } from "./line";
export { guessTap, TAP_WORDS, type Tap, type TapPosition } from "./tap";
export { NOT_THERE, wireLines, type WireLine } from "./wire";
