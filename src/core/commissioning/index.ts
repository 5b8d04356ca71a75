export { type Fact } from "./facts";
export { judge, type Judged } from "./judge";
export { testSheet, type TestSheet } from "./sheet";
export { type Expected, type SiteTest } from "./tests";
export { expectedLines, expectedText } from "./words";
