import type { LogAnswer, PeopleAnswer, Role, Scope } from "@/http/contracts/answers";

/** What a role allows, for whoever gets or gives it. */
export const ROLE_MEANS: Readonly<Record<Role, string>> = {
  viewer: "Viewers read the plan, its record and its papers.",
  field:
    "Field people read the plan; on site they tick the runbook, run tests, write notes, remarks and photos.",
  editor: "Editors draw the plan, and do what field people do.",
  owner: "Owners do what editors do; they delete sites, invite people and read the log.",
};

/** A place in words. */
export function placeText(
  on: Scope,
  { customers, sites }: Pick<PeopleAnswer, "customers" | "sites">,
): string {
  if (on.kind === "all") return "all sites";
  const found = (on.kind === "customer" ? customers : sites).find(({ id }) => id === on.id);
  return found?.name ?? "a place that is gone";
}

/** A place as the value of a choice, and back. */
export const placeKey = (on: Scope): string => (on.kind === "all" ? "all" : `${on.kind} ${on.id}`);
export function placeOfKey(key: string): Scope {
  const [kind = "", id = ""] = key.split(" ");
  return kind === "customer" || kind === "site" ? { kind, id } : { kind: "all" };
}

/** What was done, after the name of whoever did it. */
export const DEED_WORDS: Readonly<Record<LogAnswer[number]["what"], string>> = {
  "signed-in": "signed in",
  refused: "could not sign in",
  "account-made": "made an account",
  "password-set": "set a password",
  "factor-on": "set up a second factor",
  "factor-off": "took the second factor away",
  "session-ended": "ended a session",
  invited: "invited",
  "invitation-withdrawn": "withdrew an invitation",
  "role-given": "gave a role",
  "role-taken": "got a role",
  "role-withdrawn": "withdrew a role",
  "taken-out": "took somebody out",
  "data-told": "saved what is kept of somebody",
  "passkey-added": "added a passkey",
  "passkey-removed": "removed a passkey",
  "link-made": "handed a sheet on by a link",
  "link-withdrawn": "withdrew a link",
  "link-opened": "opened a link",
  "token-made": "made a token",
  "token-withdrawn": "withdrew a token",
  fetched: "fetched",
  exported: "saved a file",
  "customer-made": "added a customer",
  "customer-renamed": "renamed a customer",
  "customer-removed": "removed a customer",
  "site-made": "began a site",
  "site-moved": "moved a site",
  "site-deleted": "deleted a site",
  "site-back": "brought a site back",
  "site-forgotten": "deleted a site for good",
};
