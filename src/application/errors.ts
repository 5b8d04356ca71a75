import type { Clash } from "@/core/plan";
import type { LogEntry } from "./stores";

/** What accounts, roles and folders refuse. */
export interface Refusal {
  readonly code:
    | "bad-end"
    | "bad-passkey"
    | "passes-full"
    | "no-such-export"
    | "no-such-sheet"
    | "bad-link"
    | "bad-code"
    | "code-wanted"
    | "last-owner"
    | "name-taken"
    | "no-factor"
    | "no-such-place"
    | "not-allowed"
    | "not-empty"
    | "sign-in-first"
    | "too-many-tries"
    | "wrong-sign-in";
  readonly sentence: string;
}

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
  | Refusal
  | { readonly code: "nothing-to-undo"; readonly sentence: string }
  | { readonly code: "clash"; readonly sentence: string; readonly clashes: readonly Clash[] };

export const NOT_LISTENING: AppError = {
  code: "not-listening",
  sentence:
    "It listens on this machine only, without a certificate. Started with --listen 0.0.0.0 it is reached " +
    "from others, too.",
};

const refusal = (code: Refusal["code"], sentence: string): AppError => ({ code, sentence });

export const BAD_LINK = refusal(
  "bad-link",
  "This link has been used, is older than a day or is not complete. Whoever gave it to you can make another.",
);
export const WRONG_SIGN_IN = refusal("wrong-sign-in", "The name or the password is not right.");
export const CODE_WANTED = refusal("code-wanted", "Type the six digits that your second factor shows now.");
export const BAD_CODE = refusal(
  "bad-code",
  "That code is not right, or was used already. Wait for the next one, and look at the clock of your device.",
);
export const NAME_TAKEN = refusal(
  "name-taken",
  "Somebody has that name here. Take another, or let whoever invites you choose you by that name.",
);
export const NEED_NAME = refusal("sign-in-first", "This link wants a name and a password of your own.");
export const SIGN_IN_FIRST = refusal(
  "sign-in-first",
  "This link is for somebody who has an account. Sign in with it first, then open the link again.",
);
export const NO_FACTOR = refusal("no-factor", "This account has no second factor.");
export const BAD_END = refusal(
  "bad-end",
  "The last day has to be today or later, and no more than a year away.",
);
export const PASSES_FULL = refusal(
  "passes-full",
  "Five hundred links and tokens are open here already. Withdraw some first.",
);
export const NO_SUCH_EXPORT = refusal(
  "no-such-export",
  "There is no file of that name. Ask for the list of them without a name.",
);
export const NO_SUCH_SHEET = refusal(
  "no-such-sheet",
  "No sheet of this site that stands was issued as that. Load the page again.",
);
export const BAD_PASSKEY = refusal(
  "bad-passkey",
  "That passkey is not known here, or what it signed is not what was asked. Try again, or use the password.",
);
export const PASSKEYS_NEED_A_NAME = refusal(
  "bad-passkey",
  "A passkey belongs to a name, and this page was opened by an address in numbers. Open it by its name; on " +
    "this machine that is localhost.",
);
export const LAST_OWNER = refusal(
  "last-owner",
  "Nobody else owns everything here. Make somebody else an owner of all sites first.",
);
export const NOT_ALLOWED = refusal("not-allowed", "Your role does not allow that.");
export const NO_SUCH_PLACE = refusal(
  "no-such-place",
  "It is not there any more. Load the page again to see what is.",
);
export const NOT_EMPTY = refusal(
  "not-empty",
  "Sites still lie in this folder, maybe in the bin. Move them first.",
);
export const CUSTOMER_TAKEN = refusal("name-taken", "Another customer has that name.");
export const tooManyTries = (seconds: number): AppError =>
  refusal(
    "too-many-tries",
    `Too many tries went wrong. Wait ${seconds === 1 ? "a second" : `${seconds} seconds`}, then try again.`,
  );

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
