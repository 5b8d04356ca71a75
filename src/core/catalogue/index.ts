export { CATALOGUE, catalogueOf, portPowerMw } from "./kinds";
export { type DeviceKind } from "./kind";
export { DEVICE_MODELS, type DeviceModel, modelsOf, type PortRun } from "./models";
