import { containsAddress } from "../address";
import { catalogueOf } from "../catalogue";
import {
  afterEdits,
  PlanEdits,
  type PlanIndex,
  type Host,
  type Line,
  type ProbeQuestion,
  type Wish,
} from "../plan";
import { setUpWay, VPN_NAME, type Way } from "../planners";
import { asClient, probe, type Outcome } from "../probe";
import { allLinesOf, linesInOrder } from "../routing";
import { isDelicate } from "./delicate";

/** How one way in fares by one line. */
export interface Tried {
  readonly line: Line;
  readonly verdict: "works" | "worksIf" | "cannot";
  /** Under which condition it works, or why it cannot; empty where it just works. */
  readonly says: string;
}

const trialIds = () => {
  let n = 0;
  return () => {
    n += 1;
    return `00000000-0000-7000-8000-${String(n).padStart(12, "0")}`;
  };
};

/** The plan with a way set up as the planner does it; a sentence where it can't be. */
function withWay(index: PlanIndex, wish: Wish, way: Way, line: Line): PlanIndex | string {
  const edits = new PlanEdits(index.plan);
  const refusal = setUpWay({ edits, ids: trialIds() }, { wish: wish.id, way, line: line.id });
  if (refusal !== null) return refusal;
  return afterEdits(index, edits) ?? "The plan does not take it.";
}

/** The packet that shows whether a way works, by one line; null where the way needs none. */
function question(trial: PlanIndex, wish: Wish, way: Way, line: Line): ProbeQuestion | string {
  const goal = { to: "host", host: wish.host, service: wish.service } as const;
  switch (way) {
    case "forward": {
      const forward = [...trial.plan.forward.values()].find(
        (forward) =>
          forward.host === wish.host &&
          forward.line === line.id &&
          forward.protocol === wish.service.protocol,
      );
      return forward === undefined
        ? "Nothing is forwarded."
        : asClient({ at: "internet", line: line.id }, { to: "forward", forward: forward.id });
    }
    case "ipv6":
      return { ...asClient({ at: "internet", line: line.id }, goal), family: 6 };
    case "push":
      return asClient(
        { at: "host", host: wish.host },
        { to: "internet", service: wish.service.protocol === "icmp" ? null : wish.service },
      );
    case "vpn": {
      const tunnel = [...trial.plan.segment.values()].find(
        ({ id, tunnel: own }) =>
          own?.kind === "users" && trial.interfacesIn(id).some((leg) => endsAt(trial, leg.device, line)),
      );
      return tunnel === undefined
        ? `No tunnel called ${VPN_NAME} ends where ${line.name} does.`
        : asClient({ at: "tunnel", segment: tunnel.id }, goal);
    }
  }
}

const endsAt = (index: PlanIndex, device: string, line: Line): boolean =>
  allLinesOf(index, device).some((own) => own.line.id === line.id);

/** The plan in which one line is the only one by which anything goes out and tunnels come in. */
function onlyBy(trial: PlanIndex, line: Line): PlanIndex {
  const edits = new PlanEdits(trial.plan);
  for (const own of edits.all("line"))
    edits.patch("line", own.id, { place: own.id === line.id ? 0 : 1, share: 0, pins: [] });
  for (const { id, tunnel } of edits.all("segment"))
    if (tunnel !== null) edits.patch("segment", id, { tunnel: { ...tunnel, line: line.id } });
  return afterEdits(trial, edits) ?? trial;
}

/** Whose box stands between and routes: what comes in has to be forwarded there first. */
const boxRoutes = ({ providerBox, boxForwards }: Line): boolean =>
  (providerBox === "routes" || providerBox === "cannotBridge") && !boxForwards;

/** What has to hold although the packet gets through. */
function conditions(
  index: PlanIndex,
  host: Host,
  wish: Wish,
  { way, line }: { readonly way: Way; readonly line: Line },
): string[] {
  const open = way === "forward" || way === "ipv6";
  return [
    way !== "push" && line.addressing !== "fixed" && line.dynamicName.name === "" && way !== "ipv6"
      ? "a name follows the line, whose address may move"
      : "",
    way === "ipv6" && mayMove(host, line)
      ? `a name follows ${host.name}, whose prefix the provider may change`
      : "",
    open && wish.from.length === 0 && isDelicate(host, wish.service.ports)
      ? `you accept that anybody on the internet can try ${host.name}`
      : "",
    way === "push" ? pushes(index, host, wish) : "",
  ].filter((words) => words !== "");
}

/** Whether a host's address lies in a prefix that need not be there tomorrow. */
const mayMove = ({ ipv6 }: Host, { delegated: { prefix, keeps } }: Line): boolean =>
  !keeps && prefix !== null && ipv6 !== null && containsAddress(prefix, ipv6);

/** What pushing out takes: a server that is trusted, and a device that may speak to the internet at all. */
function pushes(index: PlanIndex, host: Host, wish: Wish): string {
  const kind = catalogueOf(index.plan).find(({ base }) => base === host.kind);
  const kept =
    kind?.internet === "never"
      ? `, and ${host.name}, whose kind is kept off the internet, may speak to it`
      : "";
  return `the server that it speaks to by ${wish.service.name} is trusted${kept}`;
}

/** A box that routes keeps what comes in by IPv4, until it is told to send it on. */
function behindBox(line: Line, way: Way): string | null {
  if (!boxRoutes(line) || (way !== "forward" && way !== "vpn")) return null;
  return `the provider's box on ${line.name} sends it on as well (double NAT)`;
}

/** The line as it would be if the provider's box sent everything on. */
const withoutBox = (index: PlanIndex, line: Line): PlanIndex => {
  const edits = new PlanEdits(index.plan);
  edits.patch("line", line.id, { providerBox: "bridges" });
  return afterEdits(index, edits) ?? index;
};

const ask = (index: PlanIndex, asked: ProbeQuestion): Outcome => probe(index, asked, trialIds());

/** One way in by one line, set up on a trial and tried with a packet. */
export function tryWay(index: PlanIndex, wish: Wish, way: Way, line: Line): Tried {
  const host = index.plan.host.get(wish.host);
  if (host === undefined) return { line, verdict: "cannot", says: "What it leads to is gone." };
  const box = line.carrierNat === "yes" ? null : behindBox(line, way);
  const made = withWay(box === null ? index : withoutBox(index, line), wish, way, line);
  if (typeof made === "string") return { line, verdict: "cannot", says: made };
  const trial = onlyBy(made, line);
  const asked = question(trial, wish, way, line);
  if (typeof asked === "string") return { line, verdict: "cannot", says: asked };
  const { cause } = ask(trial, asked);
  if (cause !== null) return { line, verdict: "cannot", says: cause.sentence };
  const ifs = [...(box === null ? [] : [box]), ...conditions(index, host, wish, { way, line })];
  return ifs.length === 0
    ? { line, verdict: "works", says: "" }
    : { line, verdict: "worksIf", says: `${ifs.join("; ")}.` };
}

const RANK = { works: 0, worksIf: 1, cannot: 2 } as const;

/** One way in by all lines, the best first; among equals by the order of failover. */
export const tryLines = (index: PlanIndex, wish: Wish, way: Way): Tried[] =>
  linesInOrder(index.plan.line.values())
    .map((line) => tryWay(index, wish, way, line))
    .sort((a, b) => RANK[a.verdict] - RANK[b.verdict]);

/**
 * The way that was chosen for a wish in the plan as it stands, with nothing set up: by the line by which it
 * fares best. Null while none is chosen, and on a site without lines.
 */
export function asItIs(index: PlanIndex, wish: Wish): Tried | null {
  const { way } = wish;
  if (way === "open") return null;
  const tries = linesInOrder(index.plan.line.values()).map((line): Tried => {
    const asked = question(index, wish, way, line);
    const says = typeof asked === "string" ? asked : (ask(index, asked).cause?.sentence ?? "");
    return { line, verdict: says === "" ? "works" : "cannot", says };
  });
  return tries.find(({ verdict }) => verdict === "works") ?? tries[0] ?? null;
}
