import type { FullResult, Reporter, TestCase, TestResult } from "@playwright/test/reporter";

/** Prints one plain closing line, which the whole run adds up. */
export default class LineReporter implements Reporter {
  readonly #last = new Map<string, boolean>();

  onTestEnd(test: TestCase, result: TestResult): void {
    if (result.status !== "skipped") this.#last.set(test.id, result.status === test.expectedStatus);
  }

  onEnd(_result: FullResult): void {
    const results = [...this.#last.values()];
    console.log(
      `Playwright: ${results.filter(Boolean).length} passed, ` +
        `${results.filter((passed) => !passed).length} failed`,
    );
  }
}
