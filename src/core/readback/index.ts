export { deviceOf, driftBetween, driftTable, takenOf, type DriftRow, type Taken } from "./drift";
export { keepReading, knownState, type Known } from "./keep";
export { readDevice } from "./read-device";
export { afterYang, requestFor, type DeviceRequest } from "./request";
