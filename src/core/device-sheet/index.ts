export { deviceData } from "./device-data";
export type { DeviceData } from "./sheet-types";
export { EXAMPLE_TEMPLATES } from "./examples";
export { deviceSteps, type SheetStep } from "./steps";
export { deviceJson, deviceTable } from "./tables";
export { yangData, yangText } from "./yang";
