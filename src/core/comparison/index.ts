export { compareStates, comparedTable, firstLines, type ComparedGroup } from "./compare";
export { findingsApart, type FindingsApart } from "./findings-apart";
export { STATE_FORM, stateText } from "./state-text";
