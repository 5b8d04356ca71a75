export { decide, endOf, sameEnd, wallBetween, type Decision, type Party } from "./decide";
export { doorsInOrder, wallCell, wallEnds, zonesInOrder, type WallCell } from "./grid";
export { SERVICES, serviceText } from "./services";
