import { v7 } from "uuid";
import type { Role, Scope } from "@/application/roles";
import { stores } from "@/composition";
import { ask, cookieOf } from "./handlers";

// Accounts for tests of the routes: made by invitations, as people make them.

export const PASSWORD = "several words do well";

/** Lets somebody new in with a role, and answers the cookie of the session and the person's id. */
export async function newAccount(
  name: string,
  on: Scope | null,
  role: Role = "viewer",
): Promise<{ cookie: string; id: string; name: string }> {
  const { accounts, entries, people, tools } = stores();
  const key = tools.newToken();
  const grant = { on: on ?? { kind: "site" as const, id: v7() }, role };
  const madeBy = v7();
  await entries.addLink(v7(), tools.hash(key), { kind: "invite", person: null, grant, madeBy });
  const { POST } = await import("@/app/api/enter/route");
  const answer = await ask(POST, { method: "POST", body: { key, name, password: PASSWORD } });
  expect([answer.status, name]).toEqual([200, name]);
  const { id } = await accounts.personNamed(name, v7());
  const deed = { what: "role-withdrawn", about: "of the test" } as const;
  if (on === null) await people.withdraw(id, grant.on, { by: { id, name }, deed });
  return { cookie: cookieOf(answer), id, name };
}

/** Signs in by name and password. */
export async function signIn(body: object, headers: Record<string, string> = {}): Promise<Response> {
  const { POST } = await import("@/app/api/sign-in/route");
  return ask(POST, { method: "POST", body, headers });
}
