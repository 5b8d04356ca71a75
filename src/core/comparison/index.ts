export { compareStates, comparedTable, type ComparedGroup, type ComparedLine } from "./compare";
export { findingsApart, type FindingsApart } from "./findings-apart";
export { stateText } from "./state-text";
