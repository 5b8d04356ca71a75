import { err, ok, type Result } from "@/core/kernel";
import { beginSession, proven, type Door, type From, type SignedIn } from "./accounts";
import { BAD_PASSKEY, NO_SUCH_PLACE, PASSKEYS_NEED_A_NAME, type AppError } from "./errors";
import type { At, KeyAnswer } from "./passkey-stores";
import type { Person } from "./stores";

// Keys in place of passwords: a browser signs what it was asked once, with a key that stays on the device and
// asks its person first. That is two factors in one: what somebody has, and what they know or are.

const MOST_PASSKEYS = 20;

/** Addresses in numbers hold no keys (Web Authentication, section 5.1.3: a relying party is a domain). */
const isName = ({ host }: At): boolean => !/^[\d.]+$|^\[|:/.test(host);

/** Begins a new key: the password is asked for once more. */
export async function beginPasskey(
  door: Door,
  person: Person,
  { password, at }: { readonly password: string; readonly at: At },
): Promise<Result<object, AppError>> {
  if (!isName(at)) return err(PASSKEYS_NEED_A_NAME);
  const own = await proven(door, person, password);
  if (!own.ok) return own;
  const { challenge, options } = await door.keys.forNew(at, person);
  await door.passkeys.addChallenge(door.tools.hash(challenge), person.id);
  return ok(options);
}

/** Keeps the key that a browser made for what was begun. */
export async function addPasskey(
  door: Door,
  person: Person,
  { title, answer, at }: { readonly title: string; readonly answer: KeyAnswer; readonly at: At },
): Promise<Result<null, AppError>> {
  const takes = (challenge: string) => door.passkeys.takeChallenge(door.tools.hash(challenge), person.id);
  const made = await door.keys.made(answer, at, takes);
  if (made === null) return err(BAD_PASSKEY);
  const isAdded = await door.passkeys.add(
    person.id,
    { ...made, id: door.tools.newId(), title },
    MOST_PASSKEYS,
  );
  if (!isAdded) return err(BAD_PASSKEY);
  await door.deeds.add(person, { what: "passkey-added", about: title });
  return ok(null);
}

export async function removePasskey(door: Door, person: Person, id: string): Promise<Result<null, AppError>> {
  const found = (await door.passkeys.of(person.id)).find((key) => key.id === id);
  if (found === undefined || !(await door.passkeys.remove(person.id, id))) return err(NO_SUCH_PLACE);
  await door.deeds.add(person, { what: "passkey-removed", about: found.title });
  return ok(null);
}

/** What a browser at the door shall sign, with whatever key it has for us. */
export async function askForPasskey(door: Door, at: At): Promise<Result<object, AppError>> {
  if (!isName(at)) return err(PASSKEYS_NEED_A_NAME);
  const { challenge, options } = await door.keys.forKnown(at);
  await door.passkeys.addChallenge(door.tools.hash(challenge), null);
  return ok(options);
}

/** Signs in whoever has the key. An unknown key and a wrong signature are answered alike. */
export async function signInByPasskey(
  door: Door,
  { answer, at }: { readonly answer: KeyAnswer; readonly at: At },
  from: From,
): Promise<Result<SignedIn, AppError>> {
  const known = await door.passkeys.named(answer.id);
  if (known === null) return err(BAD_PASSKEY);
  const takes = (challenge: string) => door.passkeys.takeChallenge(door.tools.hash(challenge), null);
  const counter = await door.keys.signed(answer, at, known.key, takes);
  if (counter === null || !(await door.passkeys.use(known.key.id, counter))) {
    await door.deeds.add(null, { what: "refused", subject: known.person.id, about: "by a passkey" });
    return err(BAD_PASSKEY);
  }
  await door.deeds.add(known.person, { what: "signed-in", about: `by a passkey, ${from.address}` });
  return ok(await beginSession(door, known.person, from));
}
