import "server-only";
import type { Role } from "@/application/roles";

/**
 * Who may use a route: anybody who names us rightly, whoever is signed in (the use case then answers with what
 * is theirs), or whoever has that role or a higher one on the site of the address.
 */
export type Needs = "anybody" | "signed-in" | Role;

/**
 * Every route there is, and who may use it: the one table of it. Of changes to a plan field people may make
 * those that touch notes only; the use cases look at that.
 */
export const ACCESS = {
  "GET /healthz": "anybody",
  "GET /readyz": "anybody",
  "POST /api/enter": "anybody",
  "DELETE /api/enter": "signed-in",
  "POST /api/sign-in": "anybody",
  "POST /api/passkey": "anybody",
  "GET /api/account": "signed-in",
  "POST /api/account": "signed-in",
  "POST /api/invitations": "signed-in",
  "GET /api/certificate": "signed-in",
  "GET /api/people": "signed-in",
  "POST /api/people": "signed-in",
  "GET /api/people/[person]/data": "signed-in",
  "GET /api/log": "signed-in",
  "GET /api/drills": "signed-in",
  "POST /api/drills": "signed-in",
  "GET /api/sites": "signed-in",
  "POST /api/sites": "signed-in",
  "POST /api/bin": "signed-in",
  "DELETE /api/sites/[site]": "owner",
  "GET /api/sites/[site]/plan": "viewer",
  "GET /api/sites/[site]/batches": "viewer",
  "POST /api/sites/[site]/batches": "field",
  "POST /api/sites/[site]/undo": "field",
  "POST /api/sites/[site]/redo": "field",
  "GET /api/sites/[site]/events": "viewer",
  "POST /api/sites/[site]/presence": "viewer",
  "GET /api/sites/[site]/history": "viewer",
  "GET /api/sites/[site]/touched": "viewer",
  "GET /api/sites/[site]/soundness": "viewer",
  "GET /api/sites/[site]/record": "viewer",
  "POST /api/sites/[site]/record": "field",
  "POST /api/sites/[site]/photos": "field",
  "GET /api/sites/[site]/photos/[photo]": "viewer",
  "GET /api/sites/[site]/stand-ins": "viewer",
  "POST /api/sites/[site]/stand-ins": "field",
  "GET /api/sites/[site]/links": "editor",
  "POST /api/sites/[site]/links": "editor",
  "GET /api/sites/[site]/exports": "viewer",
  "POST /api/sites/[site]/exports": "viewer",
  "GET /api/sites/[site]/exports/[file]": "viewer",
  "GET /api/sites/[site]/read-device": "viewer",
  "POST /api/sites/[site]/read-device": "editor",
} as const satisfies Record<string, Needs>;

/** Those that a machine may use as well, with a token for the site in place of a session. */
export const FOR_MACHINES = [
  "GET /api/sites/[site]/exports",
  "GET /api/sites/[site]/exports/[file]",
] as const satisfies readonly (keyof typeof ACCESS)[];
export type MachineKey = (typeof FOR_MACHINES)[number];

export type RouteKey = keyof typeof ACCESS;
export type RouteFor<N extends Needs> = {
  [K in RouteKey]: (typeof ACCESS)[K] extends N ? K : never;
}[RouteKey];
