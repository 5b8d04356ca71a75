export { CATALOGUE, catalogueOf, type DeviceKind, portPowerMw } from "./kinds";
export { DEVICE_MODELS, type DeviceModel, modelsOf, type PortRun } from "./models";
