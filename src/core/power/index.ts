export {
  classOfDevice,
  classOfHost,
  loadAt,
  POE_READS,
  poeStandard,
  powerBudget,
  watts,
  type PowerBudget,
} from "./poe";
