import type { EntryStore, Person } from "./stores";

/** The hash function and randomness, passed in so that this stays free of Node. */
export interface EntryTools {
  readonly hash: (text: string) => string;
  readonly newToken: () => string;
  readonly newId: () => string;
}

/** Uses a one-time link up and opens a session; null when the link is unknown, used or older than a day. */
export async function enter(
  store: EntryStore,
  tools: EntryTools,
  key: string,
  name: string,
): Promise<{ token: string; person: Person } | null> {
  if (!(await store.useLink(tools.hash(key)))) return null;
  const person = await store.personNamed(name, tools.newId());
  const token = tools.newToken();
  await store.addSession(tools.hash(token), person.id);
  return { token, person };
}

/** A one-time link for another browser, made by somebody who is in: its key. */
export async function invite(store: EntryStore, tools: EntryTools): Promise<string> {
  const key = tools.newToken();
  await store.addLink(tools.hash(key));
  return key;
}

export const leave = (store: EntryStore, tools: EntryTools, token: string): Promise<void> =>
  store.endSession(tools.hash(token));

export const personOf = (store: EntryStore, tools: EntryTools, token: string): Promise<Person | null> =>
  store.personOfSession(tools.hash(token));
