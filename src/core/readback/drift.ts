import { describeChanges, type DescribedChange } from "../formats";
import { byNaturalText, equal } from "../kernel";
import { diff, type Change, type CollectionKind, type Device, type PlanIndex } from "../plan";
import { devicesInOrder } from "../sheets";
import { deviceOf } from "./drift-device";
import type { Knowledge } from "./knowledge";

/** One thing that is otherwise on a device than planned. */
export interface DriftRow {
  readonly device: Device;
  /** From what is on the device to what is planned, as far as that is known. */
  readonly change: Change;
  /** In words: "before" is on the device, "after" is planned; "new" is not on it, "removed" is not planned. */
  readonly said: DescribedChange;
}

/** A change without what nobody knows of the device; null where nothing of it is known. */
function knownPart(change: Change, knowledge: Knowledge): Change | null {
  const { before, after } = change;
  if (before === null || after === null) return knowledge.has(change, null) ? change : null;
  const [was, is] = [before, after] as unknown as Record<string, unknown>[];
  const now = Object.fromEntries(
    Object.entries(is ?? {}).map(([field, value]) => [
      field,
      knowledge.has(change, field) ? value : (was?.[field] ?? null),
    ]),
  );
  return equal(was, now) ? null : ({ ...change, after: now } as unknown as Change);
}

/** What is known to differ on the devices from the plan, device by device in the order of the work. */
export function driftBetween(asIs: PlanIndex, index: PlanIndex, knowledge: Knowledge): DriftRow[] {
  const changes = diff(asIs.plan, index.plan).flatMap((change) => knownPart(change, knowledge) ?? []);
  const said = describeChanges(asIs, index, changes);
  const place = new Map(devicesInOrder(index).map((device, at) => [device.id, { device, at }] as const));
  return changes
    .flatMap((change, at): (DriftRow & { readonly at: number })[] => {
      const own = place.get(deviceOf(change) ?? "");
      const words = said[at];
      return own === undefined || words === undefined
        ? []
        : [{ device: own.device, change, said: words, at: own.at }];
    })
    .sort((a, b) => a.at - b.at || byNaturalText(a.said.name, b.said.name))
    .map(({ device, change, said: words }) => ({ device, change, said: words }));
}

/** What is taken into the plan from a device: these fields of something that is planned. */
export interface Taken {
  readonly kind: CollectionKind;
  readonly id: string;
  readonly fields: Readonly<Record<string, unknown>>;
}

/** A row as the plan would take it over; null where it is not on the device, or is not planned. */
export function takenOf({ change: { kind, id, before, after } }: DriftRow): Taken | null {
  if (kind === "site" || before === null || after === null) return null;
  const planned = after as unknown as Record<string, unknown>;
  const fields = Object.fromEntries(
    Object.entries(before).filter(([name, value]) => !equal(planned[name], value)),
  );
  return { kind, id, fields };
}

/** The rows as a table, for a spreadsheet. */
export function driftTable(rows: readonly DriftRow[]): string[][] {
  return [
    ["device", "what", "setting", "on the device", "planned"],
    ...rows.flatMap(({ device, said }): string[][] => {
      if (said.what === "new") return [[device.name, said.name, "", "not there", "there"]];
      if (said.what === "removed") return [[device.name, said.name, "", "there", "not there"]];
      return said.fields.map(({ field, before, after }) => [device.name, said.name, field, before, after]);
    }),
  ];
}
