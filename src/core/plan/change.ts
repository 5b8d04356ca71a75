import { equal, err, ok, putInto, type Result } from "../kernel";
import { entityOf, type Plan } from "./plan";
import { amended } from "./amended";
import { inIdOrder, isInIdOrder } from "./id-order";
import { MOST } from "./limits";
import { REFERRERS, referencesOf } from "./references";
import { COLLECTION_KINDS, type CollectionKind, type EntityOf, type Kind } from "./schema/kinds";

/** Create (`before` null), delete (`after` null) or update in one form; the inverse is the swap. */
export type Change = {
  [K in Kind]: {
    readonly kind: K;
    readonly id: string;
    readonly before: EntityOf<K> | null;
    readonly after: EntityOf<K> | null;
  };
}[Kind];

/** Changes that belong together, with the name and arguments of the planner that made them: what was meant. */
export interface ChangeBatch {
  readonly id: string;
  readonly planner: string;
  readonly summary: string;
  readonly args: unknown;
  readonly changes: readonly Change[];
}

export type IntegrityError =
  | { readonly code: "changed-twice"; readonly kind: Kind; readonly id: string }
  | { readonly code: "stale-before"; readonly kind: Kind; readonly id: string }
  | { readonly code: "wrong-id"; readonly kind: Kind; readonly id: string }
  | { readonly code: "site-is-one"; readonly kind: "site"; readonly id: string }
  | {
      readonly code: "dangling-reference";
      readonly kind: Kind;
      readonly id: string;
      readonly field: string;
      readonly toKind: Kind;
      readonly to: string;
    }
  | {
      readonly code: "still-referenced";
      readonly kind: Kind;
      readonly id: string;
      readonly byKind: Kind;
      readonly by: string;
      readonly field: string;
    }
  | {
      readonly code: "port-linked-twice";
      readonly kind: "link";
      readonly id: string;
      readonly port: string;
      readonly other: string;
    }
  | { readonly code: "linked-to-itself"; readonly kind: "link"; readonly id: string }
  | { readonly code: "behind-itself"; readonly kind: "host"; readonly id: string }
  | {
      readonly code: "too-many";
      readonly kind: CollectionKind;
      readonly id: string;
      readonly count: number;
      readonly most: number;
    }
  | { readonly code: "id-of-another"; readonly kind: Kind; readonly id: string; readonly other: Kind };

/**
 * The plan after the changes, or the first reason why not. All changes take effect together, so their order
 * does not matter. Collections that no change touches stay the same objects; without changes the plan itself
 * comes back.
 */
export function applyChanges(plan: Plan, changes: readonly Change[]): Result<Plan, IntegrityError> {
  const whole = assemble(plan, changes);
  const error = whole.ok ? tooMany(plan, whole.value, changes) : null;
  return error === null ? whole : err(error);
}

/**
 * `applyChanges` for a plan that is only asked what would be: large collections in which entities are only
 * replaced are not copied. What comes back does not go into another thread.
 */
export function supposeChanges(plan: Plan, changes: readonly Change[]): Result<Plan, IntegrityError> {
  const whole = assemble(plan, changes, amended);
  const error = whole.ok ? tooMany(plan, whole.value, changes) : null;
  return error === null ? whole : err(error);
}

/** `applyChanges` without the limits: for what our own database holds, which has to open whatever it counts. */
export function assemble(
  plan: Plan,
  changes: readonly Change[],
  replace: Replace = () => null,
): Result<Plan, IntegrityError> {
  if (changes.length === 0) return ok(plan);
  const after = writeChanges(plan, changes, replace);
  if (!after.ok) return after;
  const error =
    idOfAnother(plan, changes) ??
    danglingReference(after.value, changes) ??
    stillReferenced(after.value, changes) ??
    wrongLink(after.value, changes) ??
    hostBehindItself(after.value, changes);
  return error === null ? after : err(error);
}

/** Why one change does not fit the plan as it is; null when it does. */
function misfit(plan: Plan, { kind, id, before, after }: Change): IntegrityError | null {
  const current = entityOf(plan, kind, id) ?? null;
  if (current !== before && !equal(current, before)) return { code: "stale-before", kind, id };
  return after !== null && after.id !== id ? { code: "wrong-id", kind, id } : null;
}

/** A plan in the order of its ids stays so: what a deletion's undo brings back does not come last. */
function keepOrder(
  plan: Plan,
  copies: Partial<Record<Kind, ReadonlyMap<string, unknown>>>,
  added: ReadonlySet<Kind>,
): void {
  for (const kind of added) {
    const copy = copies[kind];
    if (kind !== "site" && copy !== undefined && plan[kind].size > 0 && isInIdOrder(plan[kind]))
      copies[kind] = inIdOrder(copy);
  }
}

/** A collection with entities replaced, by id, without a copy of it; null where it is to be copied. */
type Replace = (
  all: ReadonlyMap<string, unknown>,
  replaced: ReadonlyMap<string, unknown>,
) => ReadonlyMap<string, unknown> | null;

/** A collection after the changes of its kind. */
function written(
  all: ReadonlyMap<string, unknown>,
  changes: readonly Change[],
  replace: Replace,
): ReadonlyMap<string, unknown> {
  const isReplaced = changes.every(({ before, after }) => before !== null && after !== null);
  const light = isReplaced ? replace(all, new Map(changes.map(({ id, after }) => [id, after]))) : null;
  if (light !== null) return light;
  const copy = new Map(all);
  for (const { id, after } of changes)
    if (after === null) copy.delete(id);
    else copy.set(id, after);
  return copy;
}

function writeChanges(
  plan: Plan,
  changes: readonly Change[],
  replace: Replace,
): Result<Plan, IntegrityError> {
  const seen = new Set<string>();
  const byKind = new Map<CollectionKind, Change[]>();
  const added = new Set<Kind>();
  let site = plan.site;
  for (const change of changes) {
    const { kind, id, before, after } = change;
    if (seen.has(id)) return err({ code: "changed-twice", kind, id });
    seen.add(id);
    const fault = misfit(plan, change);
    if (fault !== null) return err(fault);
    if (kind === "site") {
      if (after === null) return err({ code: "site-is-one", kind, id });
      site = after;
      continue;
    }
    putInto(byKind, kind, change);
    if (before === null) added.add(kind);
  }
  const copies: Partial<Record<Kind, ReadonlyMap<string, unknown>>> = {};
  for (const [kind, own] of byKind) copies[kind] = written(plan[kind], own, replace);
  keepOrder(plan, copies, added);
  return ok({ ...plan, ...copies, site } as Plan);
}

/** A count that the changes raise above its limit. A plan that is beyond already may be changed and mended. */
function tooMany(before: Plan, after: Plan, changes: readonly Change[]): IntegrityError | null {
  for (const { kind, id } of changes) {
    if (kind === "site") continue;
    const count = after[kind].size;
    if (count > MOST[kind] && count > before[kind].size)
      return { code: "too-many", kind, id, count, most: MOST[kind] };
  }
  return null;
}

/** An id that an entity of another kind has already: a file with it could not be taken in again. */
function idOfAnother(before: Plan, changes: readonly Change[]): IntegrityError | null {
  const added = changes.filter((change) => change.before === null);
  const present = COLLECTION_KINDS.filter((kind) => before[kind].size > 0);
  for (const { kind, id } of added) {
    const other =
      id === before.site.id ? "site" : present.find((collectionKind) => before[collectionKind].has(id));
    if (other !== undefined) return { code: "id-of-another", kind, id, other };
  }
  return null;
}

function danglingReference(plan: Plan, changes: readonly Change[]): IntegrityError | null {
  for (const { kind, id, after } of changes) {
    if (after === null) continue;
    for (const reference of referencesOf(kind, after)) {
      if (entityOf(plan, reference.kind, reference.id) !== undefined) continue;
      return {
        code: "dangling-reference",
        kind,
        id,
        field: reference.field,
        toKind: reference.kind,
        to: reference.id,
      };
    }
  }
  return null;
}

function stillReferenced(plan: Plan, changes: readonly Change[]): IntegrityError | null {
  const gone = new Map(
    changes.filter((change) => change.after === null).map((change) => [change.id, change.kind]),
  );
  if (gone.size === 0) return null;
  const kinds = new Set([...gone.values()].flatMap((kind) => REFERRERS[kind]));
  for (const byKind of kinds) {
    for (const entity of (plan[byKind] as ReadonlyMap<string, EntityOf<CollectionKind>>).values()) {
      const broken = referencesOf(byKind, entity).find(
        (reference) => gone.get(reference.id) === reference.kind,
      );
      if (broken !== undefined) {
        return {
          code: "still-referenced",
          kind: broken.kind,
          id: broken.id,
          byKind,
          by: entity.id,
          field: broken.field,
        };
      }
    }
  }
  return null;
}

function wrongLink(plan: Plan, changes: readonly Change[]): IntegrityError | null {
  const concerned = changes.some((change) => change.kind === "link" && change.after !== null);
  return concerned ? linkFault(plan) : null;
}

/** A link to itself, or a port with two links; null when there is none in the plan. */
export function linkFault(plan: Plan): IntegrityError | null {
  const linkAt = new Map<string, string>();
  for (const link of plan.link.values()) {
    if (link.a === link.b) return { code: "linked-to-itself", kind: "link", id: link.id };
    for (const port of [link.a, link.b]) {
      const other = linkAt.get(port);
      if (other !== undefined) return { code: "port-linked-twice", kind: "link", id: link.id, port, other };
      linkAt.set(port, link.id);
    }
  }
  return null;
}

function hostBehindItself(plan: Plan, changes: readonly Change[]): IntegrityError | null {
  for (const { kind, id, after } of changes)
    if (kind === "host" && after !== null && isBehindItself(plan, after))
      return { code: "behind-itself", kind: "host", id };
  return null;
}

/** Whether the way from host to host leads in a circle. */
export function isBehindItself(plan: Plan, start: EntityOf<"host">): boolean {
  if (start.attachment.at !== "behind") return false;
  const passed = new Set<string>();
  for (
    let host: EntityOf<"host"> | undefined = start;
    host?.attachment.at === "behind";
    host = plan.host.get(host.attachment.host)
  ) {
    if (passed.has(host.id)) return true;
    passed.add(host.id);
  }
  return false;
}

const invertOne = (change: Change): Change =>
  ({ ...change, before: change.after, after: change.before }) as Change;

/** The changes that lead back: apply, then apply the inverse, is the plan that was. */
export const invert = (changes: readonly Change[]): Change[] => changes.map(invertOne).reverse();
