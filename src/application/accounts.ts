import { err, ok, type Result } from "@/core/kernel";
import type { AccountStore, Credentials, Deed, DeedStore, EntryStore, PeopleStore } from "./account-stores";
import { BAD_CODE, CODE_WANTED, NO_FACTOR, tooManyTries, WRONG_SIGN_IN, type AppError } from "./errors";
import type { Person } from "./stores";
import type { PassStore } from "./passes";
import type { PasskeyStore, PasskeyTools } from "./passkey-stores";
import { waitAfter, type TryKind } from "./waits";

/** Hash functions, randomness and codes, passed in so that this stays free of Node. */
export interface EntryTools {
  readonly hash: (text: string) => string;
  readonly newToken: () => string;
  readonly newId: () => string;
  readonly hashPassword: (password: string) => Promise<string>;
  /** Takes as long for a null hash, which nothing fits. */
  readonly isPassword: (hash: string | null, password: string) => Promise<boolean>;
  readonly newSecret: () => string;
  /** The step of time (RFC 6238) whose code that is, one to either side of now; null for a wrong code. */
  readonly stepOf: (secret: string, code: string) => number | null;
  readonly newRecoveryCode: () => string;
}
/** What everything about accounts stands on. */
export interface Door {
  readonly entries: EntryStore;
  readonly accounts: AccountStore;
  readonly people: PeopleStore;
  readonly deeds: DeedStore;
  readonly passes: PassStore;
  readonly passkeys: PasskeyStore;
  readonly keys: PasskeyTools;
  readonly tools: EntryTools;
}
/** Where somebody comes from: an address (empty where unknown), and the mark of a browser that is known. */
export interface From {
  readonly address: string;
  readonly browser: string | null;
}
export interface SignedIn {
  readonly token: string;
  readonly person: Person;
  /** The mark of this browser, by which it is known from now on. */
  readonly browser: string;
}

const RECOVERY_CODES = 10;

/** Begins a session. */
export async function beginSession(door: Door, person: Person, from: From): Promise<SignedIn> {
  const { entries, accounts, tools } = door;
  const token = tools.newToken();
  const browser = from.browser ?? tools.newToken();
  await entries.addSession({
    id: tools.newId(),
    tokenHash: tools.hash(token),
    person: person.id,
    cameFrom: from.address,
  });
  await accounts.knowBrowser(tools.hash(browser), person.id);
  return { token, person, browser };
}

/**
 * What a try is counted under. A browser in which that person has signed in before is counted by itself: who
 * guesses at the name elsewhere keeps nobody out of it.
 */
async function triesFor({ accounts, tools }: Door, name: string, from: From) {
  const key = (kind: TryKind, of: string) => ({
    hash: tools.hash(`${kind} ${of}`),
    waitAfter: (failed: number) => waitAfter(kind, failed),
  });
  const mark = from.browser === null ? null : tools.hash(from.browser);
  if (mark !== null && (await accounts.isKnownBrowser(mark, name)))
    return [key("browser", `${mark} ${name}`)];
  return [key("account", name), ...(from.address === "" ? [] : [key("address", from.address)])];
}

/** "abcd-efgh" as it was given, however it is written. */
const plainCode = (code: string): string => code.toLowerCase().replace(/[\s-]/g, "");
const recoveryHash = ({ tools }: Door, code: string): string => tools.hash(`recovery ${plainCode(code)}`);

/** Whether a second factor's code, or a recovery code, is right; it is used up then. */
async function takeCode(door: Door, { person, factorSecret }: Credentials, code: string): Promise<boolean> {
  if (factorSecret === null) return true;
  const step = /^\d{6}$/.test(plainCode(code)) ? door.tools.stepOf(factorSecret, plainCode(code)) : null;
  if (step !== null) return door.accounts.takeStep(person.id, step);
  return door.accounts.takeRecoveryCode(person.id, recoveryHash(door, code));
}

interface Asked {
  readonly name: string;
  readonly password: string;
  /** Null where none was given yet. */
  readonly code: string | null;
}

/** What was typed as a name that nobody has is kept nowhere: it may be a password. */
const refusedSignIn = (known: Credentials | null): Deed =>
  known === null
    ? { what: "refused", about: "a name that nobody has here" }
    : { what: "refused", subject: known.person.id, about: "" };

/** Signs somebody in. A wrong name and a wrong password are answered alike, after the same work. */
export async function signIn(door: Door, asked: Asked, from: From): Promise<Result<SignedIn, AppError>> {
  const { accounts, deeds, tools } = door;
  const keys = await triesFor(door, asked.name, from);
  const wait = await accounts.beginTry(keys);
  if (wait > 0) return err(tooManyTries(wait));
  const known = await accounts.credentialsNamed(asked.name);
  const isRight = await tools.isPassword(known?.passwordHash ?? null, asked.password);
  if (known === null || !isRight) {
    await deeds.add(null, refusedSignIn(known));
    return err(WRONG_SIGN_IN);
  }
  if (known.factorSecret !== null) {
    if (asked.code === null) return err(CODE_WANTED);
    if (!(await takeCode(door, known, asked.code))) {
      await deeds.add(null, refusedSignIn(known));
      return err(BAD_CODE);
    }
  }
  await accounts.forgetTries(keys.map(({ hash }) => hash));
  await deeds.add(known.person, { what: "signed-in", about: from.address });
  return ok(await beginSession(door, known.person, from));
}

/** Asks for the password once more before something grave; guesses are counted as at the door. */
export async function proven(
  door: Door,
  person: Person,
  password: string,
): Promise<Result<Credentials, AppError>> {
  const key = {
    hash: door.tools.hash(`again ${person.id}`),
    waitAfter: (failed: number) => waitAfter("account", failed),
  };
  const wait = await door.accounts.beginTry([key]);
  if (wait > 0) return err(tooManyTries(wait));
  const known = await door.accounts.credentialsOf(person.id);
  const isRight = await door.tools.isPassword(known?.passwordHash ?? null, password);
  if (known === null || !isRight) return err(WRONG_SIGN_IN);
  await door.accounts.forgetTries([key.hash]);
  return ok(known);
}

/** A new password; every other session ends. */
export async function changePassword(
  door: Door,
  person: Person,
  asked: { readonly old: string; readonly password: string; readonly token: string },
): Promise<Result<null, AppError>> {
  const own = await proven(door, person, asked.old);
  if (!own.ok) return own;
  await door.accounts.setPassword(person.id, await door.tools.hashPassword(asked.password));
  await door.entries.endSessionsOf(person.id, door.tools.hash(asked.token));
  await door.deeds.add(person, { what: "password-set", about: "" });
  return ok(null);
}

/** Sets up the second factor from a secret that the person's device has; answers the recovery codes. */
export async function setFactor(
  door: Door,
  person: Person,
  asked: { readonly password: string; readonly secret: string; readonly code: string },
): Promise<Result<readonly string[], AppError>> {
  const own = await proven(door, person, asked.password);
  if (!own.ok) return own;
  const step = door.tools.stepOf(asked.secret, plainCode(asked.code));
  if (step === null) return err(BAD_CODE);
  const codes = Array.from({ length: RECOVERY_CODES }, () => door.tools.newRecoveryCode());
  await door.accounts.setFactor(person.id, {
    secret: asked.secret,
    step,
    codeHashes: codes.map((code) => recoveryHash(door, code)),
  });
  await door.deeds.add(person, { what: "factor-on", about: "" });
  return ok(codes);
}

/** Takes the second factor away. */
export async function dropFactor(
  door: Door,
  person: Person,
  password: string,
): Promise<Result<null, AppError>> {
  const own = await proven(door, person, password);
  if (!own.ok) return own;
  if (own.value.factorSecret === null) return err(NO_FACTOR);
  await door.accounts.setFactor(person.id, null);
  await door.deeds.add(person, { what: "factor-off", about: "" });
  return ok(null);
}

/** Ends one of a person's sessions, or with null all but this one. */
export async function endSessions(
  door: Door,
  person: Person,
  id: string | null,
  token: string,
): Promise<void> {
  if (id === null) await door.entries.endSessionsOf(person.id, door.tools.hash(token));
  else await door.entries.endSessionOf(person.id, id);
  await door.deeds.add(person, { what: "session-ended", about: id === null ? "all others" : "" });
}
