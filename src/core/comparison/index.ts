export { compareStates, comparedTable, firstLines, toldChanges, type ComparedGroup } from "./compare";
export { drawnTogether, type DrawnMark, type DrawnTogether } from "./on-drawing";
export { findingsApart, type FindingsApart } from "./findings-apart";
export { tableApartTable, tablesApart, type CellApart, type RowApart, type TableApart } from "./in-tables";
export { STATE_FORM, stateText } from "./state-text";
