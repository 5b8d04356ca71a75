import type { Clash } from "@/core/plan";
import type { LogEntry } from "./stores";

/** Why a use case did not do what was asked; the sentence is for the person. */
export type AppError =
  | { readonly code: "no-such-site" | "in-bin" | "not-in-bin"; readonly sentence: string }
  | {
      readonly code: "stale-revision";
      readonly sentence: string;
      readonly revision: number;
      readonly between: readonly LogEntry[];
    }
  | { readonly code: "revision-ahead"; readonly sentence: string }
  | { readonly code: "broken-plan"; readonly sentence: string; readonly place: string }
  | {
      readonly code: "bad-file";
      readonly sentence: string;
      readonly faults: readonly { readonly place: string; readonly sentence: string }[];
    }
  | {
      readonly code:
        | "record-full"
        | "photos-full"
        | "no-photo"
        | "no-such-photo"
        | "no-stand-ins"
        | "device-not-read"
        | "not-listening";
      readonly sentence: string;
    }
  | { readonly code: "nothing-to-undo"; readonly sentence: string }
  | { readonly code: "clash"; readonly sentence: string; readonly clashes: readonly Clash[] };

export const NOT_LISTENING: AppError = {
  code: "not-listening",
  sentence:
    "It listens on this machine only, without a certificate. Started with --listen 0.0.0.0 it is reached " +
    "from others, too.",
};

export const NO_SUCH_SITE: AppError = {
  code: "no-such-site",
  sentence: "There is no such site; it may have been deleted. Go back to the list of sites.",
};

export const IN_BIN: AppError = {
  code: "in-bin",
  sentence: "This site was deleted and lies in the bin: bring it back there, or begin another.",
};
export const NOT_IN_BIN: AppError = {
  code: "not-in-bin",
  sentence: "It is not in the bin any more: somebody has brought it back, or its days were over.",
};
