import { nameOf } from "../plan";
import {
  pasteSignIns as pasteSignInsInto,
  removeSignIns as removeSignInsIn,
  SIGN_IN_COLUMNS,
  type SignInColumn,
} from "../planners";
import { counted } from "../repairs";
import { command, type Pasted } from "./command";
import { pasted } from "./says";

const columnWord = (column: SignInColumn): string =>
  SIGN_IN_COLUMNS.find(([key]) => key === column)?.[1].toLowerCase() ?? column;

export const writeSignIn = command<{
  readonly profile: string | null;
  readonly column: SignInColumn;
  readonly text: string;
}>("write-sign-in", {
  says: ({ profile, column, text }, index) =>
    profile === null
      ? `Sign-in profile ${text}`
      : `Sign-in profile ${nameOf(index, "signIn", profile)}, ${columnWord(column)}: ${text || "nothing"}`,
  run: (context, { profile, column, text }) =>
    pasteSignInsInto(context, [[text]], column, profile === null ? [] : [profile]),
});

export const pasteSignIns = command<Pasted<SignInColumn>>("paste-sign-ins", {
  says: ({ rows }) => pasted(rows, "the sign-in profiles"),
  run: (context, { rows, from, onto }) => pasteSignInsInto(context, rows, from, onto),
  log: ({ rows, from }) => ({ rows: rows.length, from }),
});

export const removeSignIns = command<{ readonly profiles: readonly string[] }>("remove-sign-ins", {
  says: ({ profiles }, index) =>
    profiles.length === 1 && profiles[0] !== undefined
      ? `Removed the sign-in profile ${nameOf(index, "signIn", profiles[0])}`
      : `Removed ${counted(profiles.length, "sign-in profile", "sign-in profiles")}`,
  run: (context, { profiles }) => removeSignInsIn(context, profiles),
});
