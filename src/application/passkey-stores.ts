import type { Person } from "./stores";

/** A key that a browser or a device keeps (Web Authentication, W3C): what is kept here is its public half. */
export interface Passkey {
  readonly id: string;
  /** How the browser calls it: base64url. */
  readonly credential: string;
  readonly publicKey: Uint8Array<ArrayBuffer>;
  /** How often it was used, as it says itself; 0 for one that does not count. */
  readonly counter: number;
  /** The name of the host that it was made for: it is good nowhere else. */
  readonly host: string;
}
/** A key as its person sees it. */
export interface OwnPasskey {
  readonly id: string;
  readonly title: string;
  readonly host: string;
  readonly madeAt: string;
  readonly usedAt: string | null;
}

export interface PasskeyStore {
  readonly of: (person: string) => Promise<OwnPasskey[]>;
  /** The key of that name, with whose it is; null for none of somebody who is in. */
  readonly named: (credential: string) => Promise<{ readonly key: Passkey; readonly person: Person } | null>;
  /** False where it is known already, or the person has `most`. */
  readonly add: (person: string, key: Passkey & { readonly title: string }, most: number) => Promise<boolean>;
  readonly remove: (person: string, id: string) => Promise<boolean>;
  /** Notes a use; false where it was used further on already, which tells of a copy. */
  readonly use: (id: string, counter: number) => Promise<boolean>;
  /** Keeps what a browser was asked to sign, for five minutes; of very many the oldest go. */
  readonly addChallenge: (hash: string, person: string | null) => Promise<void>;
  /** Takes it; false where it was not asked of that person, is over or was taken. */
  readonly takeChallenge: (hash: string, person: string | null) => Promise<boolean>;
}

/** What a browser shall do: its options as they travel, and what it has to sign. */
export interface KeyRequest {
  readonly challenge: string;
  readonly options: object;
}
/** Where a browser is: the name of the host and the whole origin of the page. */
export interface At {
  readonly host: string;
  readonly origin: string;
}
type Takes = (challenge: string) => Promise<boolean>;

/** What a browser answers with, its parts as they travel. */
export type KeyAnswer = { readonly id: string } & Readonly<Record<string, unknown>>;

/** Web Authentication itself, passed in so that this stays free of libraries. */
export interface PasskeyTools {
  readonly forNew: (at: At, person: Person) => Promise<KeyRequest>;
  readonly forKnown: (at: At) => Promise<KeyRequest>;
  /** The key that was made; null where what was signed is not what was asked. */
  readonly made: (answer: KeyAnswer, at: At, takes: Takes) => Promise<Omit<Passkey, "id"> | null>;
  /** The counter that the key says now; null where what was signed is not what was asked. */
  readonly signed: (answer: KeyAnswer, at: At, key: Passkey, takes: Takes) => Promise<number | null>;
}
