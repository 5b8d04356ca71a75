export { accessListText } from "./write";
export { isRuleData, readRuleData, ruleListsText } from "./read-text";
