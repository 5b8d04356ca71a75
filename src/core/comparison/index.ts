export { compareStates, comparedTable, firstLines, type ComparedGroup } from "./compare";
export { findingsApart, type FindingsApart } from "./findings-apart";
export { stateText } from "./state-text";
