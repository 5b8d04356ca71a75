export { accessListText, deviceAccessListText } from "./write";
export { isRuleData, readRuleData, ruleListsText } from "./read-text";
