export {
  classOfDevice,
  classOfHost,
  type Load,
  loadAt,
  POE_READS,
  poeStandard,
  powerBudget,
  type PowerBudget,
} from "./poe";
