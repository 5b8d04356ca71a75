export {
  classOfDevice,
  classOfHost,
  loadAt,
  POE_READS,
  poeStandard,
  powerBudget,
  type Load,
  type PowerBudget,
} from "./poe";
