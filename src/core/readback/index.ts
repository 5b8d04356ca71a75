export { deviceOf } from "./drift-device";
export { driftBetween, driftTable, takenOf, type DriftRow, type Taken } from "./drift";
export { keepReading, type Known } from "./keep";
export { knowledgeOf, type Knowledge } from "./knowledge";
export { readNeighbours, type NeighboursRead } from "./neighbour-table";
export { deviceLookedAt, pageSeen } from "./page";
export { missingVlans, readDevice, readWords } from "./read-device";
export { seenIn, type Reading } from "./reading";
export { afterYang, requestFor, type DeviceRequest } from "./request";
