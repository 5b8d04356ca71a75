// Prints the plain closing line after Jest's own summary, which comes later than onRunComplete.
module.exports = class LineReporter {
  onRunComplete(_contexts, results) {
    const broken = results.numRuntimeErrorTestSuites;
    const skipped = results.numPendingTests > 0 ? `, ${results.numPendingTests} skipped` : "";
    const line = `Jest: ${results.numPassedTests} passed, ${results.numFailedTests + broken} failed${skipped}`;
    process.once("exit", () => console.log(line));
  }
};
