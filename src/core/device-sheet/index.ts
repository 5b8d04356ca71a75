export { dataWithoutRules, deviceData } from "./device-data";
export { guardText } from "./port-steps";
export { baselineOn } from "./sheet-baseline";
export type { DeviceData } from "./sheet-types";
export { EXAMPLE_TEMPLATES } from "./examples";
export { deviceSteps } from "./steps";
export { type SheetStep } from "./step";
export { deviceJson, deviceTable } from "./tables";
export { yangData, yangText } from "./yang";
