import { formatAddress, formatPrefix, usableRange, type Address, type Family } from "../../address";
import { byNaturalText, byText, grouped } from "../../kernel";
import {
  nameOf,
  prefixesOf,
  USUAL_METRIC,
  type Device,
  type Interface,
  type PlanIndex,
  type Route,
  type Segment,
} from "../../plan";
import {
  addressesOf,
  addressIn,
  followFrom,
  forwardsPackets,
  OUTSIDE,
  routeFrom,
  type Followed,
} from "../../routing";
import { listed, type Repair } from "../../repairs";
import { check } from "../check";
import { withoutRoute } from "./route-repair";

interface CircleData {
  readonly devices: readonly string[];
  /** What goes round, as text: a subnet, or the internet. */
  readonly what: string;
  /** The routes that lead round, by their devices. */
  readonly by: readonly { readonly device: string; readonly route: Route }[];
}

/** What a router sends on by routes of its own: the subnets, and what stands for the internet. */
const aimsOf = ({ routes }: Device): readonly (readonly [what: string, to: Address])[] => [
  ...routes
    .filter(({ prefix }) => prefix.length > 0)
    .map(({ prefix }) => [formatPrefix(prefix), usableRange(prefix).first] as const),
  ["the internet", OUTSIDE[4]],
  ["the internet by IPv6", OUTSIDE[6]],
];

/** The routers of a circle, from the one that is met twice on. */
function circleOf({ hops, at }: Followed): { readonly device: Device; readonly next: Interface | null }[] {
  return hops.slice(hops.findIndex(({ device }) => device.id === at.id));
}

function circles(index: PlanIndex): CircleData[] {
  const found = new Map<string, CircleData>();
  for (const device of index.plan.device.values())
    for (const [what, to] of forwardsPackets(device) ? aimsOf(device) : []) {
      const followed = followFrom(index, device, to);
      const round = followed.end === "circle" ? circleOf(followed) : [];
      const devices = round.map((hop) => hop.device.id).sort(byText);
      const key = `${devices.join()} ${what}`;
      if (round.length === 0 || found.has(key)) continue;
      const by = round.flatMap((hop) => {
        const route = routeFrom(index, hop.device, to)?.route ?? null;
        return route === null ? [] : [{ device: hop.device.id, route }];
      });
      found.set(key, { devices, what, by });
    }
  return [...found.values()];
}

export const routesInCircle = check<CircleData>({
  code: "routes-in-circle",
  severity: "stop",
  family: "gateway",
  title: "Routers hand packets round in a circle",
  why:
    "Each takes another for the way on, so that a packet goes round until its hops are used up " +
    "(RFC 1812 section 5.3.1).",
  reads: ["device", "interface", "segment", "line", "port"],
  find: (index) =>
    circles(index).map((data) => ({
      subjects: data.devices.map((id) => ({ kind: "device" as const, id })),
      data,
      apart: data.what,
    })),
  describe: ({ devices, what }, index) => {
    const names = devices.map((id) => nameOf(index, "device", id)).sort(byNaturalText);
    return names.length === 1
      ? `What ${names[0]} gets for ${what} it hands to itself.`
      : `What is for ${what} goes round between ${names.join(" and ")}, each of which hands it to the next.`;
  },
  repairs: ({ by }, index) => by.map(({ device, route }) => withoutRoute(index, device, route)),
});

interface BackData {
  /** The router at which the answers go wrong. */
  readonly router: string;
  /** The segments that ask, and the one whose answers are lost. */
  readonly asks: readonly string[];
  readonly answers: string;
  readonly end: Followed["end"];
  readonly line: string | null;
  /** The next hop that would lead back; null where it can't be told. */
  readonly via: Address | null;
  readonly family: Family;
}

/** A way from one router to another, and whose address a packet carries at its end. */
interface There {
  readonly from: Device;
  readonly to: Device;
  readonly answers: Segment;
  readonly way: Followed;
}

interface Homes {
  readonly device: Device;
  readonly leg: Interface;
  readonly segment: Segment;
}

/** Every segment with the router that is its gateway, in the order of their names. */
const homesOf = (index: PlanIndex): Homes[] =>
  [...index.plan.segment.values()]
    .sort((a, b) => byNaturalText(a.name, b.name) || byText(a.id, b.id))
    .flatMap((segment) => {
      const leg = index.gatewayOf(segment);
      const device = index.plan.device.get(leg?.device ?? "");
      return leg === undefined || device === undefined ? [] : [{ device, leg, segment }];
    });

/** One way from each router to each other one that it leads to over routers in between. */
function waysBetween(index: PlanIndex, homes: readonly Homes[], family: Family): There[] {
  const routers = [...new Set(homes.map(({ device }) => device))];
  return routers.flatMap((from) => {
    const known = new Map<string, There>();
    for (const { device: to, leg, segment } of homes) {
      const address = addressIn(segment, leg, family);
      if (to.id === from.id || known.has(to.id) || address === null) continue;
      const way = followFrom(index, from, address);
      if (way.end === "inside" && way.hops.at(-1)?.leg.segment === segment.id && way.hops.length > 1)
        known.set(to.id, { from, to, answers: segment, way });
    }
    return [...known.values()];
  });
}

/** The address of the router before the one that has no way back: where that would have to hand it. */
function viaOf({ way }: There, lost: Device, family: Family): Address | null {
  const place = way.hops.findIndex(({ device }) => device.id === lost.id);
  const before = way.hops[place - 1];
  return before === undefined ? null : (addressesOf(before.leg, family)[0] ?? null);
}

/** What becomes of answers to a segment, from the router at the far end on; null where they come back. */
function lostOnTheWay(
  index: PlanIndex,
  there: There,
  { segment, leg }: Homes,
  family: Family,
): Followed | null {
  const address = addressIn(segment, leg, family);
  const back = address === null ? null : followFrom(index, there.to, address);
  return back?.end === "inside" && back.hops.at(-1)?.leg.segment === segment.id ? null : back;
}

function lostAnswers(index: PlanIndex, family: Family): BackData[] {
  const homes = homesOf(index);
  const byRouter = grouped(homes, ({ device }) => device.id);
  const found = new Map<string, BackData>();
  for (const there of byRouter.size < 2 ? [] : waysBetween(index, homes, family)) {
    const { source } = there.way;
    const askers =
      source === null
        ? (byRouter.get(there.from.id) ?? [])
        : homes.filter(({ segment }) => segment.id === source.id);
    for (const asker of askers) {
      const back = lostOnTheWay(index, there, asker, family);
      if (back === null) continue;
      const key = `${back.at.id} ${there.from.id} ${back.end}`;
      const asks = new Set([...(found.get(key)?.asks ?? []), asker.segment.id]);
      found.set(key, {
        router: back.at.id,
        answers: there.answers.id,
        end: back.end,
        line: back.line?.id ?? null,
        via: viaOf(there, back.at, family),
        family,
        ...found.get(key),
        asks: [...asks],
      });
    }
  }
  return [...found.values()];
}

function routeBack(index: PlanIndex, { router, asks, via, family }: BackData): Repair[] {
  const prefixes = asks.flatMap((id) => {
    const segment = index.plan.segment.get(id);
    return segment === undefined ? [] : prefixesOf(segment, family).slice(0, 1);
  });
  const [first] = prefixes;
  if (first === undefined || via === null) return [];
  const what = prefixes.length === 1 ? `a route for ${formatPrefix(first)}` : `${prefixes.length} routes`;
  return [
    {
      label: `Give ${nameOf(index, "device", router)} ${what} by ${formatAddress(via)}`,
      planner: "add-routes",
      args: { device: router, prefixes: prefixes.map(formatPrefix), via: formatAddress(via) },
      edit: (edits) => {
        const { routes } = edits.need("device", router);
        const back = prefixes.map((prefix): Route => ({ prefix, via, metric: USUAL_METRIC }));
        edits.patch("device", router, { routes: [...routes, ...back] });
      },
    },
  ];
}

const WRONG: Readonly<Record<Followed["end"], string>> = {
  lost: "has no way to it",
  circle: "hands them round in a circle",
  inside: "takes them to another segment with the same addresses",
  line: "sends them out",
};

export const noWayBack = check<BackData>({
  code: "no-way-back",
  severity: "stop",
  family: "gateway",
  title: "Questions arrive and their answers don't come back",
  why: "A route leads one way only: the routers at the other end need one back, or nothing is ever answered.",
  reads: ["device", "interface", "segment", "line", "port"],
  find: (index) =>
    ([4, 6] as const)
      .flatMap((family) => lostAnswers(index, family))
      .map((data) => ({
        subjects: [
          { kind: "device" as const, id: data.router },
          ...data.asks.map((id) => ({ kind: "segment" as const, id })),
        ],
        data,
        apart: `IPv${data.family}`,
      })),
  describe: (data, index) => {
    const by = data.line === null ? "" : ` by ${nameOf(index, "line", data.line)}`;
    const asks = data.asks.map((id) => nameOf(index, "segment", id));
    return (
      `What ${listed(asks)} ${asks.length === 1 ? "asks" : "ask"} arrives in ` +
      `${nameOf(index, "segment", data.answers)}, ` +
      `but the answers don't come back: ${nameOf(index, "device", data.router)} ${WRONG[data.end]}${by}.`
    );
  },
  repairs: (data, index) => routeBack(index, data),
});
