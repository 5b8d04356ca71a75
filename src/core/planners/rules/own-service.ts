import { equal } from "../../kernel";
import { MOST, type OwnService } from "../../plan";
import { SERVICES, servicesNamed } from "../../policy";
import { pasteInto, readCells, type RowCells } from "../paste-rows";
import type { EditContext, Refusal } from "../planner";
import { followServices, servicesByName } from "./follow-services";
import { partsText, readPart } from "./service-list-text";
import { pieces } from "./side-text";

/** What of a service of the site's own is written in a cell. */
export type ServiceColumn = "name" | "is" | "note";
export const SERVICE_COLUMNS: readonly (readonly [ServiceColumn, string])[] = [
  ["name", "Service"],
  ["is", "Is"],
  ["note", "Note"],
];

const NAME = /^[a-z0-9][a-z0-9 .-]{0,23}$/;
/** As many parts, and as many names, as a service takes in. */
const MOST_PARTS = 16;

/** What a row is read with: the services as they are now, and the names that the same rows bring. */
interface Reading {
  readonly own: readonly OwnService[];
  readonly coming: ReadonlySet<string>;
  readonly id: string | null;
}

function readName({ own, id }: Reading, text: string): Pick<OwnService, "name"> | string {
  const name = text.toLowerCase();
  if (!NAME.test(name))
    return `"${text}" can't name a service: 1 to 24 letters, digits, spaces, dots and hyphens.`;
  if (/^(tcp|udp|icmp|any|all|everything|open)\b/.test(name))
    return `"${text}" begins like ports or like everything; choose another name.`;
  if (servicesNamed(name).length > 0) return `${name} is in the catalogue already; choose another name.`;
  const other = own.find((other) => other.name === name && other.id !== id);
  return other === undefined ? { name } : `There is a service ${name} already.`;
}

/** "https, dns, tcp 8007" as names that it takes in and parts of its own. */
function readIs({ own, coming }: Reading, text: string): Pick<OwnService, "includes" | "parts"> | string {
  const names = new Set([...SERVICES, ...own].map(({ name }) => name).concat(...coming));
  const includes: string[] = [];
  const parts: OwnService["parts"] = [];
  let protocol = "";
  for (const piece of pieces(text)) {
    if (names.has(piece.toLowerCase())) {
      includes.push(piece.toLowerCase());
      continue;
    }
    const read = readPart(piece, protocol);
    if (read === null)
      return `"${piece}" is not a service: write a name such as https, or tcp 8007, udp 5000-5100, icmp.`;
    protocol = read.protocol;
    parts.push({ protocol: read.protocol, ports: read.ports });
  }
  if (includes.length + parts.length === 0) return "Write what it is: https, dns, tcp 8007, udp 5000-5100.";
  return includes.length > MOST_PARTS || parts.length > MOST_PARTS
    ? `A service takes in at most ${MOST_PARTS} names and ${MOST_PARTS} protocols with ports.`
    : { includes: [...new Set(includes)], parts };
}

/** The names by which a service comes back to itself; null where it doesn't. */
export function circleFrom(services: readonly OwnService[], start: OwnService): readonly string[] | null {
  const own = new Map(services.map((service) => [service.name, service]));
  const way: string[] = [];
  const comesBack = (name: string): boolean => {
    if (name === start.name && way.length > 0) return true;
    if (way.includes(name)) return false;
    way.push(name);
    if (own.get(name)?.includes.some(comesBack) === true) return true;
    way.pop();
    return false;
  };
  return comesBack(start.name) ? [...way, start.name] : null;
}

function readCell(reading: Reading, column: ServiceColumn, text: string): Partial<OwnService> | string {
  switch (column) {
    case "name":
      return readName(reading, text);
    case "is":
      return readIs(reading, text);
    case "note":
      return text.length > 120 ? "At most 120 characters here." : { note: text };
  }
}

/** What a cell says, as it is read. */
export function serviceCellText(service: OwnService, column: ServiceColumn): string {
  switch (column) {
    case "name":
      return service.name;
    case "is":
      return [...service.includes, ...partsText(service.parts)].join(", ");
    case "note":
      return service.note;
  }
}

function writeRow(
  context: EditContext,
  reading: Omit<Reading, "own">,
  cells: RowCells<ServiceColumn>,
): Refusal {
  const { edits, ids } = context;
  const { id } = reading;
  const fields = readCells<ServiceColumn, OwnService>(cells, id === null, (column, text) =>
    readCell({ ...reading, own: edits.all("service") }, column, text),
  );
  if (typeof fields === "string") return fields;
  const known = id === null ? null : edits.need("service", id);
  const { name, parts } = fields;
  if (known === null && (name === undefined || parts === undefined))
    return "A new service needs its name and what it is: write or paste both in one row.";
  if (known === null && edits.all("service").length >= MOST.service)
    return `A site has at most ${MOST.service} services of its own.`;
  const whole: OwnService = {
    name: "",
    parts: [],
    includes: [],
    note: "",
    ...known,
    ...fields,
    id: known?.id ?? ids(),
  };
  return putService(context, known, whole);
}

/** Writes a service, and what it now stands for wherever it is used. */
function putService(context: EditContext, known: OwnService | null, whole: OwnService): Refusal {
  const { edits } = context;
  const others = edits.all("service").filter(({ id }) => id !== whole.id);
  if (others.some(({ name }) => name === whole.name)) return `There is a service ${whole.name} already.`;
  const renamed = new Map(known === null || known.name === whole.name ? [] : [[known.name, whole.name]]);
  const circle = circleFrom([...others, whole], whole);
  if (circle !== null) return `${whole.name} would take in itself: ${circle.join(" takes in ")}.`;
  const before = servicesByName(edits);
  edits.put("service", whole);
  for (const { id, includes } of others)
    if (includes.some((name) => renamed.has(name)))
      edits.patch("service", id, { includes: includes.map((name) => renamed.get(name) ?? name) });
  return followServices(context, before, renamed);
}

/** Writes a block of texts onto services; rows beyond `onto` are new, and need a name and what they are. */
export const pasteServices = (
  context: EditContext,
  rows: readonly (readonly string[])[],
  from: ServiceColumn,
  onto: readonly string[],
): Refusal => {
  // A row may take in what a later one brings.
  const coming = new Set(from === "name" ? rows.map(([name = ""]) => name.trim().toLowerCase()) : []);
  return pasteInto(SERVICE_COLUMNS, { rows, from, onto }, (id, cells) =>
    writeRow(context, { id, coming }, cells),
  );
};

/**
 * Removes services of the site's own. Walls, exceptions and rules keep the ports that they stood for, and a
 * service that took one in keeps its parts as its own.
 */
export function removeServices({ edits }: Pick<EditContext, "edits">, ids: readonly string[]): Refusal {
  const gone = new Set(ids.map((id) => edits.need("service", id).id));
  const byName = new Map(edits.all("service").map((service) => [service.name, service]));
  const partsOf = (name: string, seen: ReadonlySet<string>): Pick<OwnService, "includes" | "parts"> => {
    const service = byName.get(name);
    if (service === undefined || !gone.has(service.id) || seen.has(name))
      return { includes: [name], parts: [] };
    const inner = service.includes.map((included) => partsOf(included, new Set([...seen, name])));
    return {
      includes: inner.flatMap(({ includes }) => includes),
      parts: [...service.parts, ...inner.flatMap(({ parts }) => parts)],
    };
  };
  for (const service of edits.all("service")) {
    if (gone.has(service.id)) continue;
    const inner = service.includes.map((name) => partsOf(name, new Set()));
    const includes = [...new Set(inner.flatMap((service) => service.includes))];
    const parts = [...service.parts, ...inner.flatMap((service) => service.parts)];
    if (equal(includes, service.includes)) continue;
    if (parts.length > MOST_PARTS || includes.length > MOST_PARTS)
      return `${service.name} would be of more than ${MOST_PARTS} parts without it; change that one first.`;
    edits.patch("service", service.id, { includes, parts });
  }
  for (const id of gone) edits.remove("service", id);
  return null;
}
