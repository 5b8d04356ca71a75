import { failure } from "./failure.mjs";

// Prints the plain closing line after Jest's own summary, which comes later than onRunComplete, and what failed
// once more below it.
export default class LineReporter {
  onRunComplete(_contexts, results) {
    const broken = results.numRuntimeErrorTestSuites;
    const skipped = results.numPendingTests > 0 ? `, ${results.numPendingTests} skipped` : "";
    const line = `Jest: ${results.numPassedTests} passed, ${results.numFailedTests + broken} failed${skipped}`;
    const failed = results.testResults.flatMap(({ testFilePath, testExecError, testResults }) => [
      ...(testExecError ? [failure(testFilePath, "does not run", testExecError.message ?? "")] : []),
      ...testResults
        .filter(({ status }) => status === "failed")
        .map(({ fullName, failureMessages }) => failure(testFilePath, fullName, failureMessages.join("\n"))),
    ]);
    process.once("exit", () => console.log([line, ...failed].join("\n")));
  }
}
