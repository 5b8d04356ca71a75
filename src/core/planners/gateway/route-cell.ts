import { formatAddress, formatPrefix, parseAddress, readPrefix, type Address } from "../../address";
import { USUAL_METRIC, type Device, type Route } from "../../plan";
import type { EditContext, Refusal } from "../planner";

/** What of a route is written in a cell. */
export type RouteColumn = "prefix" | "via" | "metric";
export const ROUTE_COLUMNS: readonly (readonly [RouteColumn, string])[] = [
  ["prefix", "For"],
  ["via", "By"],
  ["metric", "Metric"],
];
const MOST_ROUTES = 256;
const MOST_METRIC = 65_535;

const EVERYTHING: Readonly<Record<string, string>> = { default: "0.0.0.0/0", default6: "::/0" };

function readRouteCell(column: RouteColumn, text: string): Partial<Route> | string {
  const written = text.trim();
  if (column === "prefix") {
    const prefix = readPrefix(EVERYTHING[written.toLowerCase()] ?? written);
    return prefix === null
      ? `"${written}" is no subnet: write its first address and its length, like 10.24.96.0/20, or default.`
      : { prefix };
  }
  if (column === "metric") {
    if (written === "") return { metric: USUAL_METRIC };
    return /^\d{1,5}$/.test(written) && Number(written) <= MOST_METRIC
      ? { metric: Number(written) }
      : `"${written}" is no metric: write a whole number up to ${MOST_METRIC}; the lowest is taken first.`;
  }
  const via = parseAddress(written);
  return via === null ? `"${written}" is no address of a next hop such as 10.24.99.2.` : { via };
}

/** What a cell says, as it is read. */
export function routeCellText({ prefix, via, metric }: Route, column: RouteColumn): string {
  if (column === "metric") return `${metric}`;
  return column === "prefix" ? formatPrefix(prefix) : formatAddress(via);
}

/**
 * A route that only has its prefix so far leads to that prefix's first address, until its next hop is
 * written.
 */
const firstOf = ({ prefix }: Pick<Route, "prefix">): Address => prefix.network;

/** Writes a block of texts onto routes by their places; rows beyond `onto` are new routes. */
export function pasteRoutes(
  { edits, index }: EditContext,
  {
    device: id,
    rows,
    from,
    onto,
  }: {
    readonly device: string;
    readonly rows: readonly (readonly string[])[];
    readonly from: RouteColumn;
    readonly onto: readonly number[];
  },
): Refusal {
  const device = index.plan.device.get(id);
  if (device === undefined) return "That device is gone.";
  const routes: Route[] = [...device.routes];
  const columns = ROUTE_COLUMNS.map(([column]) => column);
  for (const [i, row] of rows.entries()) {
    let fields: Partial<Route> = {};
    for (const [at, text] of row.entries()) {
      const column = columns[columns.indexOf(from) + at];
      const read = column === undefined ? {} : readRouteCell(column, text);
      if (typeof read === "string") return rows.length === 1 ? read : `Row ${i + 1}: ${read}`;
      fields = { ...fields, ...read };
    }
    const refusal = place(routes, onto[i], fields);
    if (refusal !== null) return refusal;
  }
  edits.patch("device", id, { routes });
  return null;
}

function place(routes: Route[], at: number | undefined, fields: Partial<Route>): Refusal {
  const known = at === undefined ? undefined : routes[at];
  const { prefix, via, metric = USUAL_METRIC } = { ...known, ...fields };
  if (prefix === undefined) return "Begin a new route with the subnet that it is for.";
  const route = { prefix, via: via ?? firstOf({ prefix }), metric };
  if (typeof route.via !== typeof prefix.network)
    return "A route and its next hop are of one family: both IPv4, or both IPv6.";
  const twice = routes.findIndex((other, place) => place !== at && isSameWay(other, route));
  if (twice >= 0)
    return `There is a route for ${formatPrefix(prefix)} by ${formatAddress(route.via)} already.`;
  if (known === undefined && routes.length >= MOST_ROUTES)
    return `A device has at most ${MOST_ROUTES} routes.`;
  routes[known === undefined ? routes.length : (at ?? 0)] = route;
  return null;
}

const isSameWay = (a: Route, b: Route): boolean =>
  formatPrefix(a.prefix) === formatPrefix(b.prefix) && a.via === b.via;

/** Takes routes away, by their places. */
export function removeRoutes({ edits, index }: EditContext, id: string, places: readonly number[]): Refusal {
  const device: Device | undefined = index.plan.device.get(id);
  if (device === undefined) return "That device is gone.";
  edits.patch("device", id, { routes: device.routes.filter((_, at) => !places.includes(at)) });
  return null;
}
