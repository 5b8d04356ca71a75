export { crossingsOf } from "./crossings";
export { type Fact, rolesOf } from "./facts";
export { ASPECTS, judge, otherAspects, type Judged } from "./judge";
export { memberText } from "./shown";
export { leaseExpected } from "./leases";
export { portOfRole, isDark } from "./candidates";
export { testSheet, type TestSheet } from "./sheet";
export { type Expected, type SiteTest } from "./tests";
export { expectedLines, expectedText } from "./words";
