export { deviceData, type DeviceData, type SheetPort } from "./device-data";
export { EXAMPLE_TEMPLATES } from "./examples";
export { deviceSteps, type SheetStep } from "./steps";
export { deviceJson, deviceTable } from "./tables";
export { yangData, yangText } from "./yang";
