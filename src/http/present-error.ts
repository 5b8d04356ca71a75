import type { AppError } from "@/application/errors";
import { encodeClash } from "@/core/formats";
import { presentEntry } from "./present-entry";

/** What a refusal carries beside its sentence: what came between, the clashes, the faults of a file. */
export function presentError(error: AppError): object {
  switch (error.code) {
    case "stale-revision":
      return { revision: error.revision, between: error.between.map(presentEntry) };
    case "clash":
      return { clashes: error.clashes.map(encodeClash) };
    case "bad-file":
      return { faults: error.faults };
    case "broken-plan":
      return { place: error.place };
    default:
      return {};
  }
}
