import { must, equal } from "../kernel";
import type { Change } from "./change";
import { entityOf, type Plan } from "./plan";
import type { CollectionKind, Entity, EntityOf, Kind } from "./schema/kinds";

/**
 * Gathers a planner's edits and gives them as one change for each entity. Reads see what was written before.
 */
export class PlanEdits {
  readonly plan: Plan;
  readonly #written = new Map<string, { kind: Kind; entity: Entity | null }>();

  constructor(plan: Plan) {
    this.plan = plan;
  }

  get<K extends Kind>(kind: K, id: string): EntityOf<K> | undefined {
    const written = this.#written.get(id);
    if (written === undefined) return entityOf(this.plan, kind, id);
    return (written.entity ?? undefined) as EntityOf<K> | undefined;
  }

  /** The entity, which the caller knows to exist. */
  need<K extends Kind>(kind: K, id: string): EntityOf<K> {
    return must(this.get(kind, id), `${kind} ${id} is in the plan`);
  }

  put<K extends Kind>(kind: K, entity: EntityOf<K>): EntityOf<K> {
    this.#written.set(entity.id, { kind, entity });
    return entity;
  }

  patch<K extends Kind>(kind: K, id: string, fields: Partial<EntityOf<K>>): void {
    this.put(kind, { ...this.need(kind, id), ...fields });
  }

  remove(kind: Kind, id: string): void {
    this.#written.set(id, { kind, entity: null });
  }

  /** All entities of a kind as they stand after the edits. */
  all<K extends CollectionKind>(kind: K): EntityOf<K>[] {
    const base = [...(this.plan[kind] as ReadonlyMap<string, EntityOf<K>>).values()];
    const kept = base.flatMap((entity) => {
      const written = this.#written.get(entity.id);
      if (written === undefined) return [entity];
      return written.entity === null ? [] : [written.entity as EntityOf<K>];
    });
    const created = [...this.#written.values()].filter(
      (w) => w.kind === kind && w.entity !== null && entityOf(this.plan, kind, w.entity.id) === undefined,
    );
    return [...kept, ...created.map((w) => w.entity as EntityOf<K>)];
  }

  /** One change for each entity that is now different. */
  changes(): Change[] {
    return [...this.#written].flatMap(([id, { kind, entity }]) => {
      const before = entityOf(this.plan, kind, id) ?? null;
      return equal(before, entity) ? [] : [{ kind, id, before, after: entity } as Change];
    });
  }
}
