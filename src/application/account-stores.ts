import type { Grant, Role, Scope } from "./roles";
import type { Person } from "./stores";

/** What a one-time link does. */
export type LinkPurpose =
  /** Makes the account of the owner, as long as there is none. */
  | { readonly kind: "first" }
  /** Signs that person in, in another browser. */
  | { readonly kind: "own"; readonly person: string }
  /** Sets that person's password anew and takes the second factor away. */
  | { readonly kind: "reset"; readonly person: string }
  /** Gives a role to whoever opens it; `person` where it is for somebody who is known by name. */
  | {
      readonly kind: "invite";
      readonly person: string | null;
      readonly grant: Grant;
      readonly madeBy: string;
    };

/** A link that waits to be used. */
export interface WaitingLink {
  readonly id: string;
  readonly purpose: LinkPurpose;
  /** The name of the person whom it is for; null for whoever opens it. */
  readonly name: string | null;
  readonly endsAt: string;
}

/** A session as its person sees it. */
export interface OwnSession {
  readonly id: string;
  readonly madeAt: string;
  readonly usedAt: string;
  /** The address that it was begun from; empty where that is not known. */
  readonly cameFrom: string;
  readonly isThis: boolean;
}

/** Links and sessions. */
export interface EntryStore {
  /** Keeps a link for one use within a day; of many that wait the oldest go. */
  readonly addLink: (id: string, keyHash: string, purpose: LinkPurpose) => Promise<void>;
  /** What a link does, without using it up; null when it is unknown, used or older than a day. */
  readonly linkFor: (keyHash: string) => Promise<WaitingLink | null>;
  /** Uses a link up; false when that has been done already. */
  readonly useLink: (keyHash: string) => Promise<boolean>;
  /** Invitations that wait, the newest first. */
  readonly invitations: () => Promise<WaitingLink[]>;
  readonly withdraw: (id: string) => Promise<void>;
  readonly addSession: (session: {
    readonly id: string;
    readonly tokenHash: string;
    readonly person: string;
    readonly cameFrom: string;
  }) => Promise<void>;
  /**
   * Whose session it is, which is then used anew; null for one that is unknown, was not used for so many hours
   * or is older than a month.
   */
  readonly personOfSession: (tokenHash: string, idleHours: number) => Promise<Person | null>;
  readonly sessionsOf: (person: string, tokenHash: string) => Promise<OwnSession[]>;
  readonly endSession: (tokenHash: string) => Promise<void>;
  /** Ends one of a person's sessions by its id. */
  readonly endSessionOf: (person: string, id: string) => Promise<void>;
  /** Ends all of a person's sessions but one; null ends each. */
  readonly endSessionsOf: (person: string, except: string | null) => Promise<void>;
  /** What tells this database from others, on all its instances. */
  readonly mark: () => Promise<string>;
}

/** How an account proves who it is. */
export interface Credentials {
  readonly person: Person;
  readonly passwordHash: string | null;
  /** The secret of the second factor; null without one. */
  readonly factorSecret: string | null;
  /** The last step whose code was taken: none is taken twice. */
  readonly factorStep: number;
}

/** A second factor as it is set up: its secret, the step whose code was taken, its recovery codes. */
export interface Factor {
  readonly secret: string;
  readonly step: number;
  readonly codeHashes: readonly string[];
}

/** Accounts and what guards them. */
export interface AccountStore {
  readonly personNamed: (name: string, newId: string) => Promise<Person>;
  /** Of that name, and not taken out; null without such a person. */
  readonly credentialsNamed: (name: string) => Promise<Credentials | null>;
  readonly credentialsOf: (person: string) => Promise<Credentials | null>;
  /** Whether some account with a password owns everything. */
  readonly hasOwner: () => Promise<boolean>;
  readonly setPassword: (person: string, hash: string) => Promise<void>;
  /** Sets the secret of the second factor and its recovery codes; null takes both away. */
  readonly setFactor: (person: string, factor: Factor | null) => Promise<void>;
  /**
   * Takes a step of the second factor; false when it or a later one was taken already. One that lies beyond any
   * that can be now was taken while the clock was ahead, and counts no more.
   */
  readonly takeStep: (person: string, step: number) => Promise<boolean>;
  readonly takeRecoveryCode: (person: string, codeHash: string) => Promise<boolean>;
  readonly recoveryCodesLeft: (person: string) => Promise<number>;
  /**
   * Counts a try before it is made, under each key; the seconds to wait instead where one of them has to wait,
   * and then nothing is counted.
   */
  readonly beginTry: (
    keys: readonly { readonly hash: string; readonly waitAfter: (failed: number) => number }[],
  ) => Promise<number>;
  /** The try was good: what is counted under these keys is forgotten. */
  readonly forgetTries: (hashes: readonly string[]) => Promise<void>;
  readonly knowBrowser: (tokenHash: string, person: string) => Promise<void>;
  /** Whether whoever has that name has signed in there. */
  readonly isKnownBrowser: (tokenHash: string, name: string) => Promise<boolean>;
}

export interface Customer {
  readonly id: string;
  readonly name: string;
}
/** Somebody who has an account or is known by name, with all roles. */
export interface PersonLine {
  readonly id: string;
  readonly name: string;
  readonly hasAccount: boolean;
  readonly hasFactor: boolean;
  readonly seenAt: string | null;
  readonly grants: readonly Grant[];
}
/** What is kept of a person, for whoever has a right to it. */
export interface PersonData {
  readonly id: string;
  readonly name: string;
  readonly hasPassword: boolean;
  readonly hasFactor: boolean;
  readonly roles: readonly Grant[];
  /** Each as the database has it, by its columns: never a hash, a secret or a key. */
  readonly sessions: readonly object[];
  readonly passkeys: readonly object[];
  readonly links: readonly object[];
  readonly log: readonly object[];
  readonly changes: readonly object[];
  readonly record: readonly object[];
  readonly drills: readonly object[];
}
export interface SitePlace {
  readonly id: string;
  readonly name: string;
  readonly customer: string | null;
}

/** Who does something, and the words for it in the log: both are written in one transaction. */
export interface Noted {
  readonly by: Person;
  readonly deed: Deed;
}

/** People, their roles, and the folders of sites. */
export interface PeopleStore {
  /** The roles of a person that hold on a site, in the bin or not; empty without such a site. */
  readonly rolesOnSite: (person: string, site: string) => Promise<Role[]>;
  readonly grantsOf: (person: string) => Promise<Grant[]>;
  readonly people: () => Promise<PersonLine[]>;
  /**
   * With less than ownership, or none, the invitations that the person has open end as well. This and the next
   * two answer false, and do nothing, where nobody with a password would own everything any more.
   */
  readonly grant: (person: string, grant: Grant, noted: Noted) => Promise<boolean>;
  readonly withdraw: (person: string, on: Scope, noted: Noted) => Promise<boolean>;
  /**
   * Takes the account away: no password, no session, no role, no link; what was drawn stays. With another name
   * in place of theirs, nobody comes in by the old one again.
   */
  readonly takeOut: (person: string, newName: string | null, noted: Noted) => Promise<boolean>;
  /** All that is kept of a person; null for nobody. */
  readonly dataOf: (person: string) => Promise<PersonData | null>;
  readonly customers: () => Promise<Customer[]>;
  readonly customerOf: (id: string) => Promise<Customer | null>;
  /** False when another customer has that name. */
  readonly putCustomer: (customer: Customer, noted: Noted) => Promise<boolean>;
  /** False while it has sites, in the bin or not. */
  readonly removeCustomer: (id: string, noted: Noted) => Promise<boolean>;
  readonly sites: () => Promise<SitePlace[]>;
  /** False without such a site or customer. */
  readonly putIntoFolder: (site: string, customer: string | null, noted: Noted) => Promise<boolean>;
}

/** What is written down of who did what. */
export type DeedKind =
  | "signed-in"
  | "refused"
  | "account-made"
  | "password-set"
  | "factor-on"
  | "factor-off"
  | "session-ended"
  | "invited"
  | "invitation-withdrawn"
  | "role-given"
  | "role-taken"
  | "role-withdrawn"
  | "taken-out"
  | "data-told"
  | "passkey-added"
  | "passkey-removed"
  | "link-made"
  | "link-withdrawn"
  | "link-opened"
  | "token-made"
  | "token-withdrawn"
  | "fetched"
  | "exported"
  | "customer-made"
  | "customer-renamed"
  | "customer-removed"
  | "site-made"
  | "site-moved"
  | "site-deleted"
  | "site-back"
  | "site-forgotten";

export interface Deed {
  readonly what: DeedKind;
  /** Whom it was done to, by id: names of people are never written into the log. */
  readonly subject?: string;
  /** In words, with the names of then: "viewer, Fennel Street". */
  readonly about: string;
  readonly site?: string;
  readonly customer?: string;
}
export interface DeedLine {
  readonly number: number;
  readonly at: string;
  /** Null for a stranger. */
  readonly by: string | null;
  readonly what: DeedKind;
  /** The name of whoever it was done to. */
  readonly subject: string | null;
  readonly about: string;
}
export interface DeedStore {
  readonly add: (by: Person | null, deed: Deed) => Promise<void>;
  /** The newest lines before a number; null for all places, else what happened in these. */
  readonly before: (
    number: number,
    where: { readonly sites: readonly string[]; readonly customers: readonly string[] } | null,
    limit: number,
  ) => Promise<DeedLine[]>;
}
