export {
  classOfDevice,
  classOfHost,
  loadAt,
  POE_READS,
  poeStandard,
  powerBudget,
  type PowerBudget,
} from "./poe";
