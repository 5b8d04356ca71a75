import type { FullResult, Reporter, TestCase, TestResult } from "@playwright/test/reporter";
import { failure } from "./failure.mjs";

/** Prints one plain closing line, which the whole run adds up, and what failed once more below it. */
export default class LineReporter implements Reporter {
  readonly #last = new Map<TestCase, TestResult>();

  onTestEnd(test: TestCase, result: TestResult): void {
    if (result.status !== "skipped") this.#last.set(test, result);
  }

  onEnd(_result: FullResult): void {
    const failed = [...this.#last].filter(([test, { status }]) => status !== test.expectedStatus);
    console.log(
      [
        `Playwright: ${this.#last.size - failed.length} passed, ${failed.length} failed`,
        ...failed.map(([{ location, title }, { errors }]) =>
          failure(location.file, title, errors.map(({ message }) => message ?? "").join("\n")),
        ),
      ].join("\n"),
    );
  }
}
