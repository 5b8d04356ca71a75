// A device's data as a tree of JSON (RFC 7951), and the two ways in which it is written: a resource is replaced
// (RFC 8040 section 4.5), or what is said is merged into it (section 4.6.1).

export type Json = null | boolean | number | string | readonly Json[] | { readonly [name: string]: Json };
type Fields = { readonly [name: string]: Json };

const isFields = (value: Json | undefined): value is Fields =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** The keys of the lists in the modules that are used here. */
const KEYS: Readonly<Record<string, readonly string[]>> = {
  interface: ["name"],
  address: ["ip"],
  bridge: ["name"],
  component: ["name"],
  "vlan-registration-entry": ["database-id", "vids"],
  "port-map": ["port-ref"],
  vlan: ["vid"],
};

const keyOf = (list: string, value: Json): string =>
  JSON.stringify((KEYS[list] ?? []).map((name) => (isFields(value) ? (value[name] ?? null) : null)));

function mergedList(list: string, base: readonly Json[], more: readonly Json[]): Json[] {
  const found = new Map(base.map((item) => [keyOf(list, item), item]));
  for (const item of more) {
    const key = keyOf(list, item);
    const known = found.get(key);
    found.set(key, known === undefined ? item : merged(known, item, list));
  }
  return [...found.values()];
}

/** What is said, merged into what there is. */
function merged(base: Json, more: Json, list = ""): Json {
  if (Array.isArray(base) && Array.isArray(more) && KEYS[list] !== undefined)
    return mergedList(list, base as readonly Json[], more as readonly Json[]);
  if (!isFields(base) || !isFields(more)) return more;
  const all: Record<string, Json> = { ...base };
  for (const [name, value] of Object.entries(more)) {
    const known = all[name];
    all[name] = known === undefined ? value : merged(known, value, name);
  }
  return all;
}

/** A resource within the data: its top container, and within interfaces one entry by its name. */
export interface Place {
  readonly top: string;
  readonly entry: string | null;
}

const TOPS = ["ietf-interfaces:interfaces", "ieee802-dot1q-bridge:bridges"];

/** The resource that a path below ".../data" names; null for none that is here. */
export function placeOf(path: readonly string[]): Place | "all" | null {
  const [top, entry, more] = path;
  if (top === undefined) return "all";
  if (!TOPS.includes(top) || more !== undefined) return null;
  if (entry === undefined) return { top, entry: null };
  const [, name] = /^interface=(.+)$/.exec(entry) ?? [];
  return top === TOPS[0] && name !== undefined ? { top, entry: decodeURIComponent(name) } : null;
}

const entriesOf = (data: Fields): readonly Json[] => {
  const own = data["ietf-interfaces:interfaces"];
  const list = isFields(own) ? own.interface : undefined;
  return Array.isArray(list) ? (list as readonly Json[]) : [];
};

/** A resource as it is answered, in the container that names it; null where it is not there. */
export function resource(data: Json, place: Place | "all"): Json | null {
  if (!isFields(data)) return null;
  if (place === "all") return { "ietf-restconf:data": data };
  const { top, entry } = place;
  const own = data[top];
  if (own === undefined) return null;
  if (entry === null) return { [top]: own };
  const found = entriesOf(data).find((item) => isFields(item) && item.name === entry);
  return found === undefined ? null : { "ietf-interfaces:interface": [found] };
}

/** What a body says of a resource; null where it is about another. */
function said(body: Json, { top, entry }: Place): Json | null {
  if (!isFields(body)) return null;
  if (entry === null) return body[top] ?? null;
  const list = body["ietf-interfaces:interface"];
  const [sample] = Array.isArray(list) ? (list as readonly Json[]) : [];
  return isFields(sample) && sample.name === entry ? sample : null;
}

/** The data after a resource was written; null where the body is about something else. */
export function written(data: Json, place: Place | "all", body: Json, how: "replace" | "merge"): Json | null {
  if (!isFields(data)) return null;
  if (place === "all") {
    const all = isFields(body) ? body["ietf-restconf:data"] : undefined;
    if (!isFields(all)) return null;
    return how === "replace" ? all : merged(data, all);
  }
  const own = said(body, place);
  if (own === null) return null;
  const { top, entry } = place;
  if (entry === null) return { ...data, [top]: how === "replace" ? own : merged(data[top] ?? {}, own, top) };
  const others = entriesOf(data);
  const known = others.find((item) => isFields(item) && item.name === entry);
  const now = known === undefined || how === "replace" ? own : merged(known, own);
  const list = known === undefined ? [...others, now] : others.map((item) => (item === known ? now : item));
  return { ...data, [top]: { interface: list } };
}
