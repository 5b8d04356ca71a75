export { CLASS_FACTS, classText, type Marks } from "./traffic-classes";
export { decide, endOf, type WallSide, sameEnd, wallBetween } from "./decide";
export { doorsInOrder, wallCell, wallEnds, zonesInOrder } from "./grid";
export { catalogueOf, servicesCalled } from "./own-services";
export { serviceNames, SERVICES, servicesNamed, serviceText } from "./services";
export {
  type FilterAction,
  type FilterList,
  type FilterRule,
  judge,
  type Network,
  type Side,
} from "./filter";
export {
  exceptionLets,
  exceptionRules,
  inHours,
  limitedExceptions,
  moments,
  momentWords,
  onItsDays,
  ruleOfException,
} from "./exceptions";
export { INTERNET, networkOfSegment } from "./networks";
export { answersTo, exceptionWhy, forwardHolds, WALL_RULES, type WallRule, wallRulesAt } from "./wall-rules";
export { FOUND_LISTS, type FoundList, type FoundRule } from "./found-list";
export { answerTo, type Packet } from "./packet";
