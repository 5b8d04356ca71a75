import type { Change, CollectionKind, EntityOf, Kind, PlanIndex } from "../plan";
import type { Repair, Subject } from "../repairs";

export type Severity = "stop" | "warn" | "note";
/** The view where a finding is at home. */
export type Family =
  "survey" | "segments" | "addresses" | "hardware" | "ports" | "wireless" | "gateway" | "guards" | "walls";
export interface Found<D> {
  readonly subjects: readonly Subject[];
  readonly data: D;
  /** What tells it from others about the same subjects, where there can be several. */
  readonly apart?: string;
}

export interface Check<D> {
  readonly code: string;
  readonly severity: Severity;
  readonly family: Family;
  /** One line for a list of all checks. */
  readonly title: string;
  readonly why: string;
  readonly reads: readonly Kind[];
  readonly find: (index: PlanIndex) => readonly Found<D>[];
  readonly describe: (data: D, index: PlanIndex) => string;
  /** The recommended one first; empty when only a person can decide. */
  readonly repairs: (data: D, index: PlanIndex) => readonly Repair[];
}

/**
 * A check that looks at one entity at a time, so that an edit re-runs it for those few only. `touched` names
 * the entities whose findings a change may alter, or "all".
 */
export interface LocalCheck<D, K extends CollectionKind> extends Omit<Check<D>, "find"> {
  readonly of: K;
  readonly findAt: (index: PlanIndex, entity: EntityOf<K>) => readonly Found<D>[];
  readonly touched: (index: PlanIndex, change: Change) => readonly string[] | "all";
  /**
   * Where to look when everything is checked, for a check that most entities have nothing to do with; all of
   * them without it.
   */
  readonly candidates?: (index: PlanIndex) => Iterable<EntityOf<K>>;
}

export interface Finding {
  readonly code: string;
  readonly severity: Severity;
  readonly family: Family;
  readonly subjects: readonly Subject[];
  /** The same finding keeps its key from edit to edit. */
  readonly key: string;
  readonly data: unknown;
  /** The entity a local check found it at; null for checks that look at the whole plan. */
  readonly anchor: string | null;
}

/** A check with its data type closed over, so that checks of all kinds fit one list. */
export interface AnyCheck {
  readonly code: string;
  readonly severity: Severity;
  readonly family: Family;
  readonly title: string;
  readonly why: string;
  readonly reads: readonly Kind[];
  readonly run: (index: PlanIndex) => readonly Finding[];
  /** What `run` would give, from what it gave before the changes. */
  readonly rerun: (
    previous: readonly Finding[],
    index: PlanIndex,
    changes: readonly Change[],
  ) => readonly Finding[];
  readonly describe: (finding: Finding, index: PlanIndex) => string;
  readonly repairs: (finding: Finding, index: PlanIndex) => readonly Repair[];
}

const findingOf = <D>(
  { code, severity, family }: Pick<Check<D>, "code" | "severity" | "family">,
  { subjects, data, apart }: Found<D>,
  anchor: string | null,
): Finding => ({
  code,
  severity,
  family,
  subjects,
  data,
  anchor,
  key: [code, ...subjects.map((s) => s.id), ...(apart === undefined ? [] : [apart])].join(" "),
});

const wording = <D>({
  code,
  severity,
  family,
  title,
  why,
  reads,
  describe,
  repairs,
}: Omit<Check<D>, "find">) => ({
  code,
  severity,
  family,
  title,
  why,
  reads,
  describe: (finding: Finding, index: PlanIndex) => describe(finding.data as D, index),
  repairs: (finding: Finding, index: PlanIndex) => repairs(finding.data as D, index),
});

export function check<D>(definition: Check<D>): AnyCheck {
  const run = (index: PlanIndex) => definition.find(index).map((found) => findingOf(definition, found, null));
  return { ...wording(definition), run, rerun: (_previous, index) => run(index) };
}

/** Beyond this many touched entities looking at all of them is no slower. */
const MANY = 2000;

export function localCheck<D, K extends CollectionKind>(definition: LocalCheck<D, K>): AnyCheck {
  const at = (index: PlanIndex, entity: EntityOf<K>) =>
    definition.findAt(index, entity).map((found) => findingOf(definition, found, entity.id));
  const entities = (index: PlanIndex) => index.plan[definition.of] as ReadonlyMap<string, EntityOf<K>>;
  const run = (index: PlanIndex): Finding[] => {
    const findings: Finding[] = [];
    for (const entity of definition.candidates?.(index) ?? entities(index).values()) {
      const found = definition.findAt(index, entity);
      // Nearly always nothing: not even an empty list is made of it.
      if (found.length > 0) findings.push(...found.map((each) => findingOf(definition, each, entity.id)));
    }
    return findings;
  };
  return {
    ...wording(definition),
    run,
    rerun: (previous, index, changes) => {
      const touched = new Set<string>();
      for (const change of changes) {
        if (!definition.reads.includes(change.kind)) continue;
        const ids = change.kind === definition.of ? [change.id] : [];
        const more = definition.touched(index, change);
        if (more === "all" || touched.size > MANY) return run(index);
        for (const id of [...ids, ...more]) touched.add(id);
      }
      const kept = previous.filter((finding) => finding.anchor === null || !touched.has(finding.anchor));
      const fresh = [...touched].flatMap((id) => {
        const entity = entities(index).get(id);
        return entity === undefined ? [] : at(index, entity);
      });
      return kept.length === previous.length && fresh.length === 0 ? previous : [...kept, ...fresh];
    },
  };
}
