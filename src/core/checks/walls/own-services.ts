import { nameOf, type OwnService, type Pin, type PlanEdits, type PlanIndex, type Service } from "../../plan";
import { circleFrom, partsText, removeServices, sameServices } from "../../planners";
import { catalogueOf, servicesCalled, servicesNamed } from "../../policy";
import type { Repair } from "../../repairs";
import { check, type Found } from "../check";

interface UnclearData {
  readonly service: string;
  readonly why:
    | { readonly is: "named" }
    | { readonly is: "unknown" | "circle"; readonly name: string }
    | { readonly is: "nothing" };
}

/** What stands in the way of a service being understood; null where nothing does. */
function whyUnclear(
  index: PlanIndex,
  service: OwnService,
  all: readonly OwnService[],
): UnclearData["why"] | null {
  const isTwice = all.some(({ id, name }) => name === service.name && id < service.id);
  if (isTwice || servicesNamed(service.name).length > 0) return { is: "named" };
  const known = new Set(catalogueOf(index.plan).map(({ name }) => name));
  const unknown = service.includes.find((name) => !known.has(name) && !all.some((own) => own.name === name));
  if (unknown !== undefined) return { is: "unknown", name: unknown };
  const circle = circleFrom(all, service);
  if (circle !== null) return { is: "circle", name: circle[1] ?? service.name };
  return servicesCalled(index.plan, service.name).length === 0 ? { is: "nothing" } : null;
}

const withoutName = (service: OwnService, name: string): Repair => ({
  label: `Take ${name} out of ${service.name}`,
  planner: "write-service",
  args: { service: service.id, without: name },
  edit: (edits) =>
    edits.patch("service", service.id, { includes: service.includes.filter((other) => other !== name) }),
});

const removal = ({ id, name }: OwnService): Repair => ({
  label: `Remove the service ${name}; walls keep their ports`,
  planner: "remove-services",
  args: { services: [id] },
  edit: (edits) => removeServices({ edits }, [id]),
});

function newName(index: PlanIndex, { id, name }: OwnService): Repair[] {
  const taken = new Set(
    [...catalogueOf(index.plan), ...index.plan.service.values()].map((service) => service.name),
  );
  const free = Array.from({ length: 200 }, (_, at) => `${name.slice(0, 20)} ${at + 2}`).find(
    (title) => !taken.has(title),
  );
  return free === undefined
    ? []
    : [
        {
          label: `Call it ${free}`,
          planner: "write-service",
          args: { service: id, name: free },
          edit: (edits) => edits.patch("service", id, { name: free }),
        },
      ];
}

export const serviceUnclear = check<UnclearData>({
  code: "service-unclear",
  severity: "warn",
  family: "walls",
  title: "A service of the site's own can't be understood",
  why: "Whoever writes its name into a wall gets something else than is meant, or nothing.",
  reads: ["service"],
  find: (index) => {
    const all = [...index.plan.service.values()];
    return all.flatMap((service): Found<UnclearData>[] => {
      const why = whyUnclear(index, service, all);
      return why === null
        ? []
        : [{ subjects: [{ kind: "service", id: service.id }], data: { service: service.id, why } }];
    });
  },
  describe: ({ service, why }, index) => {
    const name = nameOf(index, "service", service);
    switch (why.is) {
      case "named":
        return `${name} is the name of another service, too, and that one is taken.`;
      case "unknown":
        return `${name} takes in ${why.name}, and there is no such service.`;
      case "circle":
        return `${name} takes in itself, by ${why.name}.`;
      case "nothing":
        return `${name} stands for nothing: it has no ports and takes in no other service.`;
    }
  },
  repairs: ({ service: id, why }, index) => {
    const service = index.plan.service.get(id);
    if (service === undefined) return [];
    switch (why.is) {
      case "named":
        return [...newName(index, service), removal(service)];
      case "unknown":
      case "circle":
        return [withoutName(service, why.name)];
      case "nothing":
        return [removal(service)];
    }
  },
});

/** What lets services through or asks for them by name; a wish and a pin of a line are for one service each. */
type Naming = "wall" | "exception" | "wish" | "line" | "signIn";
const NAMING: readonly Naming[] = ["wall", "exception", "wish", "line", "signIn"];

interface DiffersData {
  readonly kind: Naming;
  readonly id: string;
  readonly service: string;
}

const namedSo = (services: readonly Service[], name: string): Service[] =>
  services.filter((service) => service.name === name);

const portsOf = (services: readonly Service[]): string => partsText(services).join(", ");

/** The services that something of the plan names. */
function servicesIn({ plan }: PlanIndex, kind: Naming, id: string): readonly Service[] {
  if (kind === "wish") return [plan.wish.get(id)?.service ?? []].flat();
  if (kind === "line")
    return (plan.line.get(id)?.pins ?? []).flatMap((pin) => (pin.what === "service" ? [pin.service] : []));
  if (kind === "signIn") return plan.signIn.get(id)?.before ?? [];
  return plan[kind].get(id)?.services ?? [];
}

/** What the site's own services stand for, by their names. */
const ownIn = (index: PlanIndex): ReadonlyMap<string, readonly Service[]> =>
  new Map(
    [...index.plan.service.values()].map(({ name }) => [name, servicesCalled(index.plan, name)] as const),
  );

/** Writes other services in place of those of a name. */
function replaceNamed(edits: PlanEdits, { kind, id, service }: DiffersData, by: readonly Service[]): void {
  const [answering] = by;
  if (kind === "wall" || kind === "exception") {
    const others = edits.need(kind, id).services.filter(({ name }) => name !== service);
    edits.patch(kind, id, { services: [...others, ...by] });
  } else if (kind === "signIn") {
    const others = edits.need("signIn", id).before.filter(({ name }) => name !== service);
    edits.patch("signIn", id, { before: [...others, ...by] });
  } else if (kind === "wish" && answering !== undefined) edits.patch("wish", id, { service: answering });
  else if (kind === "line" && answering !== undefined) {
    const isIt = (pin: Pin) => pin.what === "service" && pin.service.name === service;
    const pins = edits.need("line", id).pins.map((pin) => (isIt(pin) ? { ...pin, service: answering } : pin));
    edits.patch("line", id, { pins });
  }
}

/** The same service under its ports, where its name stands for several. */
const byPorts = (service: Service): Service => ({ ...service, name: portsOf([service]).slice(0, 24).trim() });

function differsRepair(index: PlanIndex, data: DiffersData): Repair {
  const { kind, id, service } = data;
  const meant = servicesCalled(index.plan, service);
  const isForOne = kind === "wish" || kind === "line";
  const now = namedSo(servicesIn(index, kind, id), service);
  const by = isForOne && meant.length > 1 ? now.map(byPorts) : meant;
  const said = portsOf(by);
  const where = nameOf(index, kind, id);
  const labels = {
    wall: `Let ${said} through there for ${service}`,
    exception: `Let ${said} through there for ${service}`,
    wish: meant.length > 1 ? `Call it ${said} in ${where}` : `Let ${where} ask for ${said}`,
    signIn: `Let ${said} through before a sign-in for ${service}`,
    line: meant.length > 1 ? `Call it ${said} in the pin` : `Pin ${said} there`,
  } as const;
  return {
    label: labels[kind],
    planner: "set-services",
    args: { id, service },
    edit: (edits) => replaceNamed(edits, data, by),
  };
}

export const serviceDiffers = check<DiffersData>({
  code: "service-differs",
  severity: "warn",
  family: "walls",
  title: "A service is named somewhere and is something else there",
  why: "The name is what people read, and the ports are what passes.",
  reads: ["service", "wall", "exception", "wish", "line", "signIn"],
  find: (index) => {
    const own = ownIn(index);
    return own.size === 0
      ? []
      : NAMING.flatMap((kind) =>
          [...index.plan[kind].keys()].flatMap((id) => {
            const services = servicesIn(index, kind, id);
            return [...new Set(services.map(({ name }) => name))].flatMap((name): Found<DiffersData>[] => {
              const meant = own.get(name) ?? [];
              return meant.length === 0 || sameServices(namedSo(services, name), meant)
                ? []
                : [{ subjects: [{ kind, id }], data: { kind, id, service: name }, apart: name }];
            });
          }),
        );
  },
  describe: ({ kind, id, service }, index) => {
    const name = nameOf(index, kind, id);
    const ports = portsOf(namedSo(servicesIn(index, kind, id), service));
    const now = {
      wall: `Through ${name} ${service} passes as ${ports}`,
      exception: `Through ${name} ${service} passes as ${ports}`,
      wish: `${name} asks for ${service} as ${ports}`,
      line: `${name} carries ${service} as ${ports}`,
      signIn: `Before a sign-in ${name} lets ${service} pass as ${ports}`,
    } as const;
    return `${now[kind]}; the service is ${portsOf(servicesCalled(index.plan, service))}.`;
  },
  repairs: (data, index) => [differsRepair(index, data)],
});
