import { err, ok, type Result } from "@/core/kernel";
import type {
  Customer,
  LinkPurpose,
  Noted,
  PersonData,
  PersonLine,
  SitePlace,
  WaitingLink,
} from "./account-stores";
import type { Door } from "./accounts";
import { newLink } from "./enter";
import { CUSTOMER_TAKEN, LAST_OWNER, NO_SUCH_PLACE, NOT_ALLOWED, NOT_EMPTY, type AppError } from "./errors";
import { makePass, withdrawn, type SeenPass } from "./passes";
import { highest, isSameScope, reaches, type Grant, type Role, type Scope } from "./roles";
import type { Person } from "./stores";

// People, their roles and the folders of sites, as whoever owns something sees and changes them.

/** What a person owns: everything, or some customers' folders and sites. */
export interface Owned {
  readonly all: boolean;
  readonly customers: ReadonlySet<string>;
  readonly sites: ReadonlySet<string>;
}

async function placesOf({ people }: Door) {
  const [customers, sites] = await Promise.all([people.customers(), people.sites()]);
  return { customers, sites };
}
type Places = Awaited<ReturnType<typeof placesOf>>;

function ownedBy(grants: readonly Grant[], { customers, sites }: Places): Owned {
  const owned = grants.filter(({ role }) => role === "owner").map(({ on }) => on);
  const all = owned.some(({ kind }) => kind === "all");
  const has = (kind: Scope["kind"], id: string) => owned.some((on) => isSameScope(on, { kind, id } as Scope));
  const folders = new Set(customers.flatMap(({ id }) => (all || has("customer", id) ? [id] : [])));
  return {
    all,
    customers: folders,
    sites: new Set(
      sites.flatMap(({ id, customer }) =>
        all || has("site", id) || (customer !== null && folders.has(customer)) ? [id] : [],
      ),
    ),
  };
}

/** Whether a place lies within what is owned. */
function owns(owned: Owned, on: Scope): boolean {
  if (owned.all || on.kind === "all") return owned.all;
  return (on.kind === "customer" ? owned.customers : owned.sites).has(on.id);
}

export const ownedOf = async (door: Door, person: Person): Promise<Owned> =>
  ownedBy(await door.people.grantsOf(person.id), await placesOf(door));

/** Everything of it that whoever asks may see. */
export interface Overview {
  readonly ownsAll: boolean;
  readonly people: readonly PersonLine[];
  readonly customers: readonly Customer[];
  readonly sites: readonly SitePlace[];
  readonly invitations: readonly WaitingLink[];
  /** Tokens with which machines fetch exports. */
  readonly tokens: readonly SeenPass[];
}

/** People with a role on something that the person owns, and the places that these can be. */
export async function overview(door: Door, person: Person): Promise<Overview> {
  const places = await placesOf(door);
  const owned = ownedBy(await door.people.grantsOf(person.id), places);
  const lines = await door.people.people();
  const people = lines.flatMap((line) => {
    const grants = line.grants.filter(({ on }) => owns(owned, on));
    return owned.all || grants.length > 0 ? [{ ...line, grants }] : [];
  });
  return {
    ownsAll: owned.all,
    people,
    customers: places.customers.filter(({ id }) => owned.customers.has(id)),
    sites: places.sites
      .filter(({ id }) => owned.sites.has(id))
      .map((site) =>
        site.customer === null || owned.customers.has(site.customer) ? site : { ...site, customer: null },
      ),
    invitations: (await door.entries.invitations()).filter(
      ({ purpose }) => purpose.kind === "invite" && owns(owned, purpose.grant.on),
    ),
    tokens: (await door.passes.passes("machine", null)).filter((pass) => owns(owned, machinePlace(pass))),
  };
}

/** Where a token's machine may fetch. */
const machinePlace = ({ opens }: SeenPass): Scope =>
  opens.kind === "machine" ? opens.on : { kind: "site", id: opens.site };

/** What an invitation says of itself; null for a link of another kind. */
export async function invitationOf(door: Door, purpose: LinkPurpose) {
  if (purpose.kind !== "invite") return null;
  const { grant, madeBy } = purpose;
  const by = (await door.accounts.credentialsOf(madeBy))?.person.name ?? "Somebody";
  const place = grant.on.kind === "all" ? null : placeName(await placesOf(door), grant.on);
  return { by, role: grant.role, place };
}

/** What can be done with people and folders. */
export type PeopleOrder =
  | { readonly do: "grant"; readonly person: string; readonly on: Scope; readonly role: Role }
  | { readonly do: "withdraw"; readonly person: string; readonly on: Scope }
  | { readonly do: "invite"; readonly person: string | null; readonly on: Scope; readonly role: Role }
  | { readonly do: "withdrawInvitation"; readonly id: string }
  | { readonly do: "makeToken"; readonly title: string; readonly on: Scope; readonly lastDay: string }
  | { readonly do: "withdrawToken"; readonly id: string }
  | { readonly do: "takeOut"; readonly person: string; readonly forgetName: boolean }
  | { readonly do: "putCustomer"; readonly id: string; readonly name: string }
  | { readonly do: "removeCustomer"; readonly id: string }
  | { readonly do: "moveSite"; readonly site: string; readonly customer: string | null };

/** What an order answers: the key of a link that it made, if it made one. */
type Done = Result<{ readonly key: string | null }, AppError>;
const DONE: Done = ok({ key: null });

interface Asking {
  readonly door: Door;
  readonly by: Person;
  readonly owned: Owned;
  readonly places: Places;
}

/** A place in words, by its name. */
function placeName({ customers, sites }: Places, on: Scope): string | null {
  if (on.kind === "all") return "all sites";
  return (on.kind === "customer" ? customers : sites).find(({ id }) => id === on.id)?.name ?? null;
}
const ofPlace = (on: Scope) => (on.kind === "all" ? {} : { [on.kind]: on.id });

/** The line that the log gets of it. */
const noted = ({ by }: Asking, deed: Noted["deed"]): Noted => ({ by, deed });

/** Somebody whom the asker sees; null for nobody. */
async function personSeen({ door, owned }: Asking, id: string): Promise<PersonLine | null> {
  const found = (await door.people.people()).find((line) => line.id === id) ?? null;
  return found !== null && (owned.all || found.grants.some(({ on }) => owns(owned, on))) ? found : null;
}

type OrderOf<K extends PeopleOrder["do"]> = Extract<PeopleOrder, { readonly do: K }>;

/** The person and the place of an order about a role, or why it can't be. */
async function roleOrder(asking: Asking, order: OrderOf<"grant" | "withdraw">) {
  const place = placeName(asking.places, order.on);
  if (!owns(asking.owned, order.on)) return err(place === null ? NO_SUCH_PLACE : NOT_ALLOWED);
  const person = await personSeen(asking, order.person);
  if (person === null || place === null) return err(NO_SUCH_PLACE);
  return ok({ person, place });
}

async function grantRole(asking: Asking, order: OrderOf<"grant">): Promise<Done> {
  const found = await roleOrder(asking, order);
  if (!found.ok) return found;
  const { person, place } = found.value;
  const about = `${order.role}, ${place}`;
  const deed = { what: "role-given", subject: person.id, about, ...ofPlace(order.on) } as const;
  return (await asking.door.people.grant(person.id, order, noted(asking, deed))) ? DONE : err(LAST_OWNER);
}

async function withdrawRole(asking: Asking, order: OrderOf<"withdraw">): Promise<Done> {
  const found = await roleOrder(asking, order);
  if (!found.ok) return found;
  const { person, place } = found.value;
  const deed = { what: "role-withdrawn", subject: person.id, about: place, ...ofPlace(order.on) } as const;
  const isDone = await asking.door.people.withdraw(person.id, order.on, noted(asking, deed));
  return isDone ? DONE : err(LAST_OWNER);
}

async function inviteTo(asking: Asking, { on, role, person }: OrderOf<"invite">): Promise<Done> {
  const { door, by, owned, places } = asking;
  const place = placeName(places, on);
  if (!owns(owned, on) || place === null) return err(NO_SUCH_PLACE);
  const known = person === null ? null : await personSeen(asking, person);
  if (person !== null && known === null) return err(NO_SUCH_PLACE);
  const grant = { on, role };
  const key = await newLink(door, { kind: "invite", person, grant, madeBy: by.id });
  const whom = known === null ? {} : { subject: known.id };
  await door.deeds.add(by, { what: "invited", ...whom, about: `${role}, ${place}`, ...ofPlace(on) });
  return ok({ key });
}

async function withdrawInvitation(asking: Asking, { id }: OrderOf<"withdrawInvitation">): Promise<Done> {
  const { door, by, owned } = asking;
  const link = (await door.entries.invitations()).find((waiting) => waiting.id === id);
  if (link?.purpose.kind !== "invite" || !owns(owned, link.purpose.grant.on)) return err(NO_SUCH_PLACE);
  await door.entries.withdraw(id);
  const { on, role } = link.purpose.grant;
  await door.deeds.add(by, { what: "invitation-withdrawn", about: role, ...ofPlace(on) });
  return DONE;
}

async function makeToken(
  { door, by, owned, places }: Asking,
  { title, on, lastDay }: OrderOf<"makeToken">,
): Promise<Done> {
  const place = placeName(places, on);
  if (!owns(owned, on) || place === null) return err(NO_SUCH_PLACE);
  const deed = { what: "token-made", about: `${title}: ${place}`, ...ofPlace(on) } as const;
  return makePass(door, by, {
    ...{ title, lastDay, deed, now: Date.now() },
    opens: { kind: "machine", on },
  });
}

async function withdrawToken({ door, by, owned }: Asking, { id }: OrderOf<"withdrawToken">): Promise<Done> {
  const found = (await door.passes.passes("machine", null)).find((pass) => pass.id === id);
  if (found === undefined || !owns(owned, machinePlace(found))) return err(NO_SUCH_PLACE);
  await door.passes.withdraw(id, { by, deed: withdrawn(found) });
  return DONE;
}

async function takeOut(asking: Asking, { person, forgetName }: OrderOf<"takeOut">): Promise<Done> {
  const { door, owned } = asking;
  if (!owned.all) return err(NOT_ALLOWED);
  const line = await personSeen(asking, person);
  if (line === null) return err(NO_SUCH_PLACE);
  const newName = forgetName ? `Somebody ${person.slice(-12)}` : null;
  const deed = { what: "taken-out", subject: person, about: "" } as const;
  return (await door.people.takeOut(person, newName, noted(asking, deed))) ? DONE : err(LAST_OWNER);
}

async function putCustomer(asking: Asking, { id, name }: OrderOf<"putCustomer">): Promise<Done> {
  const { door, owned, places } = asking;
  const before = places.customers.find((customer) => customer.id === id);
  if (before === undefined ? !owned.all : !owned.customers.has(id)) return err(NOT_ALLOWED);
  const deed =
    before === undefined
      ? ({ what: "customer-made", about: name, customer: id } as const)
      : ({ what: "customer-renamed", about: `${before.name}, now ${name}`, customer: id } as const);
  return (await door.people.putCustomer({ id, name }, noted(asking, deed))) ? DONE : err(CUSTOMER_TAKEN);
}

async function removeCustomer(asking: Asking, { id }: OrderOf<"removeCustomer">): Promise<Done> {
  const { door, owned, places } = asking;
  const name = places.customers.find((customer) => customer.id === id)?.name;
  if (name === undefined || !owned.customers.has(id)) return err(NO_SUCH_PLACE);
  if (!owned.all) return err(NOT_ALLOWED);
  const deed = { what: "customer-removed", about: name, customer: id } as const;
  return (await door.people.removeCustomer(id, noted(asking, deed))) ? DONE : err(NOT_EMPTY);
}

/** Whoever owns all of it alone: another folder has other people, so a site may not slip from theirs. */
async function moveSite(asking: Asking, { site, customer }: OrderOf<"moveSite">): Promise<Done> {
  const { door, owned, places } = asking;
  const [from, to] = [places.sites.find(({ id }) => id === site), placeOf(places, customer)];
  if (from === undefined || !owned.sites.has(site) || to === null) return err(NO_SUCH_PLACE);
  if (!owned.all) return err(NOT_ALLOWED);
  const deed = { what: "site-moved", about: `${from.name}, to ${to}`, site } as const;
  const isMoved = await door.people.putIntoFolder(
    site,
    customer,
    noted(asking, customer === null ? deed : { ...deed, customer }),
  );
  return isMoved ? DONE : err(NO_SUCH_PLACE);
}
const placeOf = ({ customers }: Places, customer: string | null): string | null =>
  customer === null ? "no customer" : (customers.find(({ id }) => id === customer)?.name ?? null);

function carryOut(asking: Asking, order: PeopleOrder): Promise<Done> {
  switch (order.do) {
    case "grant":
      return grantRole(asking, order);
    case "withdraw":
      return withdrawRole(asking, order);
    case "invite":
      return inviteTo(asking, order);
    case "withdrawInvitation":
      return withdrawInvitation(asking, order);
    case "makeToken":
      return makeToken(asking, order);
    case "withdrawToken":
      return withdrawToken(asking, order);
    case "takeOut":
      return takeOut(asking, order);
    case "putCustomer":
      return putCustomer(asking, order);
    case "removeCustomer":
      return removeCustomer(asking, order);
    case "moveSite":
      return moveSite(asking, order);
  }
}

/** Does something with people or folders, as far as whoever asks owns them. */
export async function changePeople(door: Door, by: Person, order: PeopleOrder): Promise<Done> {
  const places = await placesOf(door);
  return carryOut({ door, by, owned: ownedBy(await door.people.grantsOf(by.id), places), places }, order);
}

/** What a person may do on a site; null for somebody who has nothing to do there, or without such a site. */
export const roleOn = async ({ people }: Door, person: Person, site: string): Promise<Role | null> =>
  highest(await people.rolesOnSite(person.id, site));

/** Where somebody may begin a site: in some customers' folders, and maybe outside of all. */
export interface Folders {
  readonly outside: boolean;
  readonly customers: readonly Customer[];
}
export async function foldersOf({ people }: Door, person: Person): Promise<Folders> {
  const [customers, grants] = await Promise.all([people.customers(), people.grantsOf(person.id)]);
  const edited = grants.filter(({ role }) => reaches(role, "editor")).map(({ on }) => on);
  const outside = edited.some(({ kind }) => kind === "all");
  return {
    outside,
    customers: customers.filter(
      ({ id }) => outside || edited.some((on) => isSameScope(on, { kind: "customer", id })),
    ),
  };
}
/** Whether a person may begin a site in a folder; null is outside of all folders. */
export async function mayBegin(door: Door, person: Person, customer: string | null): Promise<boolean> {
  const { outside, customers } = await foldersOf(door, person);
  return customer === null ? outside : customers.some(({ id }) => id === customer);
}

/** All that is kept of somebody: for themselves, and for whoever owns everything. */
export async function personData(
  door: Door,
  by: Person,
  person: string,
): Promise<Result<PersonData, AppError>> {
  const owned = await ownedOf(door, by);
  if (person !== by.id && !owned.all) return err(NOT_ALLOWED);
  const data = await door.people.dataOf(person);
  if (data === null) return err(NO_SUCH_PLACE);
  await door.deeds.add(by, { what: "data-told", subject: person, about: "" });
  return ok(data);
}
