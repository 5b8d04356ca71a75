import { byText, grouped } from "../kernel";
import type { OwnService, Plan, Service } from "../plan";
import { SERVICES, servicesNamed } from "./services";

type Part = OwnService["parts"][number];
type Ports = Service["ports"];

/** As many port ranges as one service takes. */
const MOST_RANGES = 16;

/** The site's own services by name; of two with one name the first by id. */
function ownByName({ service }: Pick<Plan, "service">): ReadonlyMap<string, OwnService> {
  const all = new Map<string, OwnService>();
  for (const own of [...service.values()].sort((a, b) => byText(a.id, b.id)))
    if (!all.has(own.name)) all.set(own.name, own);
  return all;
}

/** What a name stands for with all that it takes in; what comes a second time adds nothing. */
function partsCalled(name: string, own: ReadonlyMap<string, OwnService>, seen: Set<string>): readonly Part[] {
  if (seen.has(name)) return [];
  seen.add(name);
  const known = own.get(name);
  return known === undefined
    ? servicesNamed(name)
    : [...known.parts, ...known.includes.flatMap((inner) => partsCalled(inner, own, seen))];
}

/** Port ranges in ascending order, those that overlap or touch as one. */
function joinedPorts(all: readonly (readonly [number, number])[]): [number, number][] {
  const out: [number, number][] = [];
  for (const [low, high] of [...all].sort((a, b) => a[0] - b[0])) {
    const last = out.at(-1);
    if (last !== undefined && low <= last[1] + 1) last[1] = Math.max(last[1], high);
    else out.push([low, high]);
  }
  return out;
}

/** One service of a protocol, or several where its ranges are too many for one. */
function withPorts(name: string, protocol: Service["protocol"], parts: readonly Part[]): Service[] {
  const whole = parts.some(({ ports }) => ports.length === 0);
  const ports: Ports = whole ? [] : joinedPorts(parts.flatMap((part) => part.ports));
  const count = Math.max(1, Math.ceil(ports.length / MOST_RANGES));
  return Array.from({ length: count }, (_, at) => ({
    name,
    protocol,
    ports: ports.slice(at * MOST_RANGES, (at + 1) * MOST_RANGES),
  }));
}

const expanded = (name: string, own: ReadonlyMap<string, OwnService>): Service[] =>
  [...grouped(partsCalled(name, own, new Set()), ({ protocol }) => protocol)].flatMap(([protocol, parts]) =>
    withPorts(name, protocol, parts),
  );

/**
 * What a name stands for on a site: one of its own services with all that it takes in, one entry a protocol,
 * or one of the catalogue. Empty for a name that neither has.
 */
export function servicesCalled(plan: Pick<Plan, "service">, name: string): readonly Service[] {
  const known = servicesNamed(name);
  return known.length > 0 ? known : expanded(name, ownByName(plan));
}

/** All that has a name on a site: the catalogue, then the site's own services by name. */
export function catalogueOf(plan: Pick<Plan, "service">): readonly Service[] {
  if (plan.service.size === 0) return SERVICES;
  const own = ownByName(plan);
  return [
    ...SERVICES,
    ...[...own.keys()]
      .filter((name) => servicesNamed(name).length === 0)
      .sort(byText)
      .flatMap((name) => expanded(name, own)),
  ];
}
