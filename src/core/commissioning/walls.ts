import {
  afterEdits,
  isFilter,
  keepsState,
  PlanEdits,
  type PlanIndex,
  type ProbeGoal,
  type ProbePlace,
  type Service,
  type Wall,
  type WallEnd,
} from "../plan";
import { sameEnd, SERVICES, serviceText, wallBetween, wallEnds } from "../policy";
import { askingOn, type Asking } from "./asking";
import { MOST_TRIED, reachTest, type OnSite } from "./candidates";
import { wallFact, type WallDoes } from "./facts";
import type { Asker, SiteTest, Start } from "./tests";

/** What is asked for behind a wall, in words. */
interface Aim {
  readonly key: string;
  readonly words: string;
  readonly goal: (service: Service | null) => ProbeGoal;
}

/** Who is in an end of a wall, and what: as many as are tried. */
interface Side {
  readonly end: WallEnd;
  readonly starts: readonly Start[];
  readonly aims: readonly Aim[];
}
interface Ends {
  readonly from: Side;
  readonly to: Side;
}

/** As many devices behind a wall are asked until one shows what the wall does, and as many second laptops. */
const MOST_AIMS = 4;
/** From as many places of an end it is asked. */
const MOST_STARTS = 2;

const outside = (key: string, from: ProbePlace, at: string): Start => ({
  spot: { fact: "", key, from, place: "", at },
  entered: "",
  as: { as: "client" },
});

function zoneSide(index: PlanIndex, end: Extract<WallEnd, { at: "zone" }>, askers: readonly Asker[]): Side {
  const own = index.groups("segmentsByZone").get(end.zone) ?? [];
  const ids = new Set<string | null>(own.map(({ id }) => id));
  const inside = askers.filter(({ segment }) => ids.has(segment));
  const tunnels = own
    .filter(({ tunnel }) => tunnel !== null)
    .map(({ id, name }) =>
      outside(`tunnel ${id}`, { at: "tunnel", segment: id }, `Outside, by the tunnel ${name}`),
    );
  const hosts = own.flatMap(({ id }) =>
    index.hostsIn(id).filter(({ attachment }) => attachment.at !== "unplaced"),
  );
  const seconds = inside.flatMap(({ spot, as }): Aim[] => {
    const { from } = spot;
    if (from.at !== "port" || as.as !== "client") return [];
    return [
      {
        key: `port ${from.port}`,
        words: `a second laptop at ${spot.at}`,
        goal: (service) => ({ to: "port", port: from.port, service }),
      },
    ];
  });
  return {
    end,
    starts: [...inside, ...tunnels].slice(0, MOST_STARTS),
    aims: [
      ...hosts.slice(0, MOST_AIMS).map((host): Aim => ({
        key: `host ${host.id}`,
        words: host.name,
        goal: (service) => ({ to: "host", host: host.id, service }),
      })),
      ...seconds.slice(0, MOST_AIMS),
    ],
  };
}

/** An end of walls with who can ask from there, and what can be asked for there. */
function sideOf(index: PlanIndex, end: WallEnd, askers: readonly Asker[]): Side {
  if (end.at === "zone") return zoneSide(index, end, askers);
  const aim = (words: string, goal: Aim["goal"]): Aim => ({ key: end.at, words, goal });
  if (end.at === "gateway")
    return {
      end,
      starts: [],
      aims: [aim("the gateway's own pages", (service) => ({ to: "gateway", service }))],
    };
  return {
    end,
    starts: [...index.plan.line.values()]
      .map(({ id, name }) => outside(`line ${id}`, { at: "internet", line: id }, `Outside, by ${name}`))
      .slice(0, MOST_STARTS),
    aims: [aim("the internet", (service) => ({ to: "internet", service }))],
  };
}

/** What was asked across a wall. */
interface Tried {
  readonly test: SiteTest;
  readonly start: Start;
  readonly goal: ProbeGoal;
}

const overlaps = (a: Service, b: Service): boolean =>
  a.protocol === b.protocol &&
  (a.ports.length === 0 ||
    b.ports.length === 0 ||
    a.ports.some(([low, high]) => b.ports.some(([first, last]) => low <= last && first <= high)));

/** Services that a door does not name, for which it has to stay shut. */
const othersThan = (services: readonly Service[]): Service[] =>
  SERVICES.filter(
    (service) => service.protocol === "tcp" && !services.some((known) => overlaps(service, known)),
  );

/**
 * What is asked for across a wall. Where everything is let or kept out one question stands for all; at the
 * gateway itself, which answers everybody who asks for a name or an address, one for its pages.
 */
function servicesFor(index: PlanIndex, { from, to }: Ends, does: WallDoes): (Service | null)[] {
  const wall = wallBetween(index, from.end, to.end);
  if (wall?.door === "services") return does === "lets" ? [...wall.services] : othersThan(wall.services);
  return to.end.at === "gateway" ? othersThan([]) : [null];
}

function* wallTests(site: OnSite, ends: Ends, does: WallDoes): Generator<Tried> {
  let left = MOST_TRIED;
  const fact = wallFact(ends.from.end, ends.to.end, does);
  for (const service of servicesFor(site.index, ends, does))
    for (const aim of ends.to.aims)
      for (const start of ends.from.starts) {
        if (left === 0) return;
        left -= 1;
        const by = service === null ? "" : ` by ${serviceText(service)}`;
        const goal = aim.goal(service);
        const test = reachTest(site, start, {
          id: `${fact} ${start.spot.key} ${aim.key} ${service?.name ?? ""}`,
          does: `Ask for ${aim.words}${by}`,
          goal,
          proves: [fact],
        });
        yield { test, start, goal };
      }
}

/** An open door that is only supposed; its id is one that no other has. */
const supposedDoor = (at: number, from: WallEnd, to: WallEnd): Wall => ({
  id: `00000000-0000-7000-8000-${at.toString(16).padStart(12, "0")}`,
  from,
  to,
  door: "open",
  services: [],
  reason: "",
  conduit: null,
});

/** The site with some walls set otherwise; null where that is no plan. */
function withDoors(index: PlanIndex, all: readonly Ends[], door: "open" | "closed"): PlanIndex | null {
  const edits = new PlanEdits(index.plan);
  for (const [at, { from, to }] of all.entries()) {
    const known = wallBetween(index, from.end, to.end);
    if (known === null && door === "open") edits.put("wall", supposedDoor(at, from.end, to.end));
    else if (known !== null && door === "open") edits.patch("wall", known.id, { door, services: [] });
    else if (known !== null) edits.remove("wall", known.id);
  }
  return afterEdits(index, edits);
}

/** Asks on the site as it would be if a wall were the opposite of what it is; null where that is no plan. */
type Opposite = (ends: Ends, does: WallDoes) => Asking | null;
const askingIfSite = (index: PlanIndex | null): Asking | null => (index === null ? null : askingOn(index));

/**
 * Where there is one filter, and it knows answers from questions, a wall between zones decides about what
 * starts in its own direction and about nothing else: then all can be turned at once. Else, and for what comes
 * in from outside, each by itself.
 */
function oppositeOf(index: PlanIndex, all: readonly Ends[]): Opposite {
  const door = (does: WallDoes) => (does === "lets" ? "closed" : "open");
  const filters = [...index.plan.device.values()].filter(isFilter);
  if (filters.length > 1 || !filters.every(keepsState))
    return (ends, does) => askingIfSite(withDoors(index, [ends], door(does)));
  const turned = {
    lets: askingIfSite(withDoors(index, all, "closed")),
    "keeps out": askingIfSite(withDoors(index, all, "open")),
  };
  return (ends, does) =>
    ends.from.end.at === "internet" ? askingIfSite(withDoors(index, [ends], door(does))) : turned[does];
}

/** A reading that a wall decides, or why there is none. */
type Found = { readonly test: SiteTest } | { readonly fact: string; readonly why: string };

const IDLE: Readonly<Record<WallDoes, string>> = {
  lets: "Something else lets it through as well: no reading tells.",
  "keeps out": "Nothing gets there anyway, with or without this wall: no reading tells.",
};

function whyNobody({ from, to }: Ends): string {
  if (from.starts.length === 0) return "A laptop gets to no port or name there, so nobody can ask.";
  if (to.aims.length === 0) return "Nothing is there that could answer.";
  return "Nothing that was tried comes out as the wall means it: see Findings.";
}

/**
 * A reading that the wall decides: it comes out as the wall means it, and would come out the other way if the
 * wall were the opposite. So what is silent anyway, or let through by something else, proves nothing.
 */
function decided(site: OnSite, ends: Ends, does: WallDoes, opposite: Opposite): Found {
  const is = does === "lets" ? "answer" : "silence";
  let otherwise: Asking | null = null;
  for (const { test, start, goal } of wallTests(site, ends, does)) {
    if (test.expected.is !== is) continue;
    otherwise ??= opposite(ends, does);
    if (otherwise === null) break;
    const turned = otherwise(start, goal).cause === null ? "answer" : "silence";
    if (turned !== is) return { test };
  }
  return {
    fact: wallFact(ends.from.end, ends.to.end, does),
    why: otherwise === null ? whyNobody(ends) : IDLE[does],
  };
}

/** Both directions of every wall, each tried from where somebody is to where something is. */
export function wallsTried(site: OnSite, askers: readonly Asker[]): Found[] {
  const { index } = site;
  const sides = wallEnds(index).map((end) => sideOf(index, end, askers));
  const all = sides.flatMap((from) =>
    sides.flatMap((to): Ends[] =>
      sameEnd(from.end, to.end) || from.end.at === "gateway" ? [] : [{ from, to }],
    ),
  );
  const opposite = oppositeOf(index, all);
  return all.flatMap((ends): Found[] => {
    const door = wallBetween(index, ends.from.end, ends.to.end)?.door ?? "closed";
    return [
      ...(door === "closed" ? [] : [decided(site, ends, "lets", opposite)]),
      ...(door === "open" ? [] : [decided(site, ends, "keeps out", opposite)]),
    ];
  });
}
