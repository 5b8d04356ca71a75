import { err, ok, type Result } from "@/core/kernel";
import type { LinkPurpose, WaitingLink } from "./account-stores";
import { beginSession, type Door, type From, type SignedIn } from "./accounts";
import { BAD_LINK, NAME_TAKEN, NEED_NAME, SIGN_IN_FIRST, type AppError } from "./errors";
import { highest, isSameScope, type Grant } from "./roles";
import type { Person } from "./stores";

// What one-time links do: make the owner's account, sign in another browser, set a password anew, give a role.

/** Who opens a link: with a new account's name and password, or signed in already. */
export interface Opener {
  readonly key: string;
  readonly name: string | null;
  readonly password: string | null;
  readonly person: Person | null;
}

/** What a link does, without using it up; null for none that counts. */
export async function linkFor(door: Door, key: string): Promise<WaitingLink | null> {
  const link = await door.entries.linkFor(door.tools.hash(key));
  return link?.purpose.kind === "first" && (await door.accounts.hasOwner()) ? null : link;
}

/** Keeps a link for that and answers its key. */
export async function newLink({ entries, tools }: Door, purpose: LinkPurpose): Promise<string> {
  const key = tools.newToken();
  await entries.addLink(tools.newId(), tools.hash(key), purpose);
  return key;
}

/** Everything, as its owner. */
const OWNER: Grant = { on: { kind: "all" }, role: "owner" };

/** A person of that name who has no account yet; of an invitation only a name that nobody has. */
async function newcomer(door: Door, name: string, mayBeKnown: boolean): Promise<Person | null> {
  const id = door.tools.newId();
  const person = await door.accounts.personNamed(name, id);
  if (person.id === id) return person;
  const known = await door.accounts.credentialsOf(person.id);
  return mayBeKnown && known !== null && known.passwordHash === null ? person : null;
}

/** Gives a role; one that is higher there already stays. */
async function giveRole({ people }: Door, person: Person, { on, role }: Grant): Promise<void> {
  const there = (await people.grantsOf(person.id)).filter((grant) => isSameScope(grant.on, on));
  const most = highest([role, ...there.map((grant) => grant.role)]) ?? role;
  const place = on.kind === "all" ? {} : { [on.kind]: on.id };
  await people.grant(
    person.id,
    { on, role: most },
    { by: person, deed: { what: "role-taken", about: `${most}, by an invitation`, ...place } },
  );
}

/** An account's first password. */
async function makeAccount(door: Door, person: Person, password: string): Promise<void> {
  await door.accounts.setPassword(person.id, await door.tools.hashPassword(password));
  await door.deeds.add(person, { what: "account-made", about: "" });
}

type Entered = Result<SignedIn, AppError>;

type Found = Promise<Result<Person, AppError>>;
type Purpose<K extends LinkPurpose["kind"]> = Extract<LinkPurpose, { readonly kind: K }>;

/** Whoever makes an account by the name that they write. */
async function nameWriter(door: Door, { name, password }: Opener, mayBeKnown: boolean): Found {
  if (name === null || password === null) return err(NEED_NAME);
  const person = await newcomer(door, name, mayBeKnown);
  return person === null ? err(NAME_TAKEN) : ok(person);
}

/** Whom an invitation lets in: whoever is signed in, somebody known by name only, or somebody new. */
async function invited(door: Door, { person }: Purpose<"invite">, opener: Opener): Found {
  if (opener.person !== null && opener.password === null)
    return person === null || person === opener.person.id ? ok(opener.person) : err(SIGN_IN_FIRST);
  if (person === null) return nameWriter(door, opener, false);
  if (opener.password === null) return err(NEED_NAME);
  const known = await door.accounts.credentialsOf(person);
  return known?.passwordHash === null ? ok(known.person) : err(SIGN_IN_FIRST);
}

/** What is looked at before the link is used up, so that a refusal doesn't cost it. */
async function personFor(door: Door, { purpose, name }: WaitingLink, opener: Opener): Found {
  switch (purpose.kind) {
    case "first":
      return nameWriter(door, opener, true);
    case "invite":
      return invited(door, purpose, opener);
    case "own":
      return ok({ id: purpose.person, name: name ?? "" });
    case "reset":
      return opener.password === null ? err(NEED_NAME) : ok({ id: purpose.person, name: name ?? "" });
  }
}

/** What the link is for, once it is used up. */
async function fulfil(door: Door, { purpose }: WaitingLink, person: Person, opener: Opener): Promise<void> {
  if (purpose.kind === "own") return;
  if (purpose.kind === "reset") {
    await door.accounts.setPassword(person.id, await door.tools.hashPassword(opener.password ?? ""));
    await door.accounts.setFactor(person.id, null);
    for (const { id } of await door.passkeys.of(person.id)) await door.passkeys.remove(person.id, id);
    await door.entries.endSessionsOf(person.id, null);
    await door.deeds.add(person, { what: "password-set", about: "by a link of this machine" });
    return;
  }
  if (opener.person?.id !== person.id) await makeAccount(door, person, opener.password ?? "");
  await giveRole(door, person, purpose.kind === "first" ? OWNER : purpose.grant);
}

/** Uses a one-time link. */
export async function enter(door: Door, opener: Opener, from: From): Promise<Entered> {
  const link = await linkFor(door, opener.key);
  if (link === null) return err(BAD_LINK);
  const found = await personFor(door, link, opener);
  if (!found.ok) return found;
  if (!(await door.entries.useLink(door.tools.hash(opener.key)))) return err(BAD_LINK);
  await fulfil(door, link, found.value, opener);
  await door.deeds.add(found.value, { what: "signed-in", about: "by a link" });
  return ok(await beginSession(door, found.value, from));
}

export const leave = ({ entries, tools }: Door, token: string): Promise<void> =>
  entries.endSession(tools.hash(token));

/** Whose session that is; null where it is over, after so many hours unused at the latest. */
export const personOf = (
  { entries, tools }: Door,
  token: string,
  idleHours: number,
): Promise<Person | null> => entries.personOfSession(tools.hash(token), idleHours);
