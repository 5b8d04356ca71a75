import type { Failure } from "./kinds";
import type { RankedLoss } from "./summary";

/** What can fail, in words. */
export const FAILURE_WORDS: Readonly<Record<Failure["what"], string>> = {
  device: "device",
  cable: "cable",
  strand: "strand",
  feed: "supply",
  line: "line",
};

/** Failures as a table for a spreadsheet: what fails, and how many lose what. */
export const failureTable = (losses: readonly RankedLoss[]): string[][] => [
  ["what fails", "kind", "cut off", "lose the gateway", "lose the internet", "no DHCP server", "take over"],
  ...losses.map((loss) => [
    loss.name,
    FAILURE_WORDS[loss.failures[0]?.what ?? "device"],
    ...[loss.cutOff, loss.noGateway, loss.noInternet, loss.noAddress, loss.takeOver].map(({ length }) =>
      String(length),
    ),
  ]),
];
