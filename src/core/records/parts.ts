import { afterEdits, diff, nameOf, PlanEdits, type Change, type Plan, type PlanIndex } from "../plan";
import { editsOf, foundState, operationWords, type Edit, type Operation } from "../runbook";

const OUTCOME: Readonly<Record<Edit["do"], string>> = { put: "", set: "", remove: "taken away: " };

/** Each edit of an operation in words, so that one can say which of them did take. */
export function partsOf(index: PlanIndex, asIs: PlanIndex, operation: Operation): string[] {
  return operation.edits.map((edit) => {
    const id = edit.do === "put" ? edit.entity.id : edit.id;
    const known = index.plan[edit.kind].has(id) ? index : asIs;
    const part = { ...operation, edits: [edit], ports: operation.ports.filter((port) => port.id === id) };
    const values = edit.do === "remove" ? [] : operationWords(index, part).values;
    return [
      `${OUTCOME[edit.do]}${nameOf(known, edit.kind, id)}`,
      ...values.map(([name, value]) => `${name} ${value}`),
    ].join(", ");
  });
}

/**
 * What an operation, or only these of its edits, makes different on the devices; null where a part can't be so
 * without another.
 */
export function changesOf(
  asIs: PlanIndex,
  operation: Operation,
  parts: ReadonlySet<number> | null = null,
): Change[] | null {
  const edits = operation.edits.filter((_, at) => parts === null || parts.has(at));
  const made = editsOf(new PlanEdits(asIs.plan), { ...operation, edits });
  return afterEdits(asIs, made) === null ? null : made.changes();
}

/** Subnets and VLANs that only gear out of the box has are no thing that anybody enters. */
const isMadeUp = ({ kind, before, after }: Change): boolean =>
  (kind === "segment" || kind === "vlan" || kind === "zone") && (before === null || after === null);

/** What leads from gear out of the box to a state of the site. */
export const changesFrom = (box: PlanIndex, state: PlanIndex): Change[] =>
  diff(box.plan, state.plan).filter((change) => !isMadeUp(change));

/** What leads from gear out of the box to what an earlier plan says; null where one of them is no state. */
export function changesOfFound(index: PlanIndex, before: Plan): Change[] | null {
  const [box, found] = [foundState(index, null), foundState(index, before)];
  return box === null || found === null ? null : changesFrom(box, found);
}
