import { byText, equal, grouped } from "../../kernel";
import { MOST_SERVICES, nameOf, type Pin, type PlanEdits, type PlanIndex, type Service } from "../../plan";
import { servicesCalled } from "../../policy";
import type { EditContext, Refusal } from "../planner";

type ByName = ReadonlyMap<string, readonly Service[]>;

/** What each of the site's own services stands for, as it is in the edits now. */
export function servicesByName(edits: PlanEdits): ByName {
  const plan = { service: new Map(edits.all("service").map((own) => [own.id, own])) };
  return new Map([...plan.service.values()].map(({ name }) => [name, servicesCalled(plan, name)]));
}

const inOrder = (services: readonly Service[]): Service[] =>
  [...services].sort(
    (a, b) => byText(a.protocol, b.protocol) || (a.ports[0]?.[0] ?? 0) - (b.ports[0]?.[0] ?? 0),
  );

/** Whether some services say the same, in whatever order. */
export const sameServices = (a: readonly Service[], b: readonly Service[]): boolean =>
  equal(inOrder(a), inOrder(b));

/**
 * A list with each name's services put anew at the place of the first of them, where they were just what the
 * name stood for; null where nothing changes.
 */
function followed(
  services: readonly Service[],
  before: ByName,
  now: (name: string) => readonly Service[] | null,
): Service[] | null {
  const named = grouped(services, ({ name }) => name);
  let changes = false;
  const out = [...named].flatMap(([name, some]) => {
    const [was, becomes] = [before.get(name), now(name)];
    if (was === undefined || becomes === null || !sameServices(some, was) || sameServices(some, becomes))
      return some;
    changes = true;
    return [...becomes];
  });
  return changes ? out : null;
}

/** Where a service is used by its name, in words: "2 walls, 1 exception and 3 rules"; "" for nowhere. */
export function serviceUses({ plan }: PlanIndex, name: string): string {
  const has = (services: readonly Service[]) => services.some((service) => service.name === name);
  const counts: readonly (readonly [number, string, string])[] = [
    [[...plan.wall.values()].filter(({ services }) => has(services)).length, "wall", "walls"],
    [[...plan.exception.values()].filter(({ services }) => has(services)).length, "exception", "exceptions"],
    [[...plan.rule.values()].filter(({ services }) => has(services)).length, "rule", "rules"],
    [
      [...plan.service.values()].filter(({ includes }) => includes.includes(name)).length,
      "service",
      "services",
    ],
    [[...plan.wish.values()].filter(({ service }) => has([service])).length, "wish", "wishes"],
    [
      [...plan.signIn.values()].filter(({ before }) => has(before)).length,
      "sign-in profile",
      "sign-in profiles",
    ],
  ];
  return counts
    .filter(([count]) => count > 0)
    .map(([count, one, many]) => `${count} ${count === 1 ? one : many}`)
    .join(", ");
}

const tooMany = (name: string, services: readonly Service[]): string =>
  `${name} would be of ${services.length} services, and takes ${MOST_SERVICES}; take some out of it first.`;

/** Writes what services stand for now wherever they stood for what they were; `renamed` is new names by old. */
export function followServices(
  { edits, index }: Pick<EditContext, "edits" | "index">,
  before: ByName,
  renamed: ReadonlyMap<string, string>,
): Refusal {
  const after = servicesByName(edits);
  const now = (name: string) => after.get(renamed.get(name) ?? name) ?? null;
  for (const kind of ["wall", "exception"] as const)
    for (const { id, services } of edits.all(kind)) {
      const next = followed(services, before, now);
      if (next !== null && next.length > MOST_SERVICES) return tooMany(nameOf(index, kind, id), next);
      if (next !== null) edits.patch(kind, id, { services: next });
    }
  for (const { id, before: passes } of edits.all("signIn")) {
    const next = followed(passes, before, now);
    if (next !== null && next.length > MOST_SERVICES) return tooMany(nameOf(index, "signIn", id), next);
    if (next !== null) edits.patch("signIn", id, { before: next });
  }
  // A wish and a pin are for one service: one that has become several stays as it was.
  const single = (service: Service): Service => {
    const next = followed([service], before, now);
    return next?.length === 1 && next[0] !== undefined ? next[0] : service;
  };
  for (const { id, service } of edits.all("wish")) {
    const next = single(service);
    if (next !== service) edits.patch("wish", id, { service: next });
  }
  const pinned = (pin: Pin): Pin => (pin.what === "service" ? { ...pin, service: single(pin.service) } : pin);
  for (const { id, pins } of edits.all("line")) {
    const next = pins.map(pinned);
    if (!equal(next, pins)) edits.patch("line", id, { pins: next });
  }
  return null;
}
