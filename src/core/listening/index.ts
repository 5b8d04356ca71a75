export { laidBeside, type Laid } from "./laid";
export { gearNamed } from "./gear";
export { lineOf, noteOf, type LaidLine } from "./line";
export { guessTap, TAP_WORDS, type Tap, type TapPosition } from "./tap";
export { NOT_THERE, wireLines, type WireLine } from "./wire";
