import {
  containsAddress,
  containsPrefix,
  formatAddress,
  formatPrefix,
  inRange,
  offsetIn,
  parseAddress,
  step,
  usableRange,
  type Address,
  type AddressRange,
  type Ipv4,
  type Ipv6,
  type Prefix,
} from "../../address";
import { ascending, grouped } from "../../kernel";
import type { PlanEdits, ProbeQuestion, Route, RuleSide, Scope, Segment } from "../../plan";
import type { Refusal } from "../planner";

/** One subnet of a segment that goes elsewhere; both of one family. */
export interface Move {
  readonly segment: string;
  readonly from: Prefix;
  readonly to: Prefix;
}

/** The same offset in the new subnet; null where it has no such usable address. */
function moved({ from, to }: Move, address: Address): Address | null {
  const there = step<Address>(to.network, offsetIn(from, address));
  return there !== null &&
    containsAddress(to, there) &&
    (to.length <= from.length || inRange(usableRange(to), there))
    ? there
    : null;
}

/** The ends of a range in the new subnet; what does not fit there is cut off, null when nothing is left. */
function movedRange(move: Move, range: AddressRange): AddressRange | null {
  const usable = usableRange(move.to);
  const first = moved(move, range.first);
  const last = moved(move, range.last) ?? usable.last;
  return first === null || first > last ? null : { first, last };
}

/** Looks up which move an address that is no segment's own (a name server, a time server) is part of. */
class MovesByAddress {
  readonly #sorted: readonly Move[];

  constructor(moves: readonly Move[]) {
    this.#sorted = [...moves].sort(
      (a, b) => a.from.family - b.from.family || ascending(a.from.network, b.from.network),
    );
  }

  of(address: Address): Move | undefined {
    let [low, high] = [0, this.#sorted.length - 1];
    while (low <= high) {
      const middle = Math.floor((low + high) / 2);
      const move = this.#sorted[middle];
      if (move === undefined) return undefined;
      if (containsAddress(move.from, address)) return move;
      const family = typeof address === "number" ? 4 : 6;
      if (move.from.family < family || (move.from.family === family && move.from.network < address))
        low = middle + 1;
      else high = middle - 1;
    }
    return undefined;
  }

  follow<A extends Address>(address: A): A {
    const move = this.of(address);
    return (move === undefined ? address : (moved(move, address) ?? address)) as A;
  }
}

/** An option's value with every address in it that moves. */
function followedText(moves: MovesByAddress, text: string): string {
  return text
    .split(/([\s,;]+)/)
    .map((part) => {
      const address = parseAddress(part);
      return address === null ? part : formatAddress(moves.follow(address));
    })
    .join("");
}

type MoveOf = (segment: string | null, address: Address) => Move | undefined;

const sameList = <T>(a: readonly T[], b: readonly T[]): boolean => a.every((value, i) => value === b[i]);

/**
 * Moves the addresses that legs and hosts have, and what they ask; refuses when one has no place in its new
 * subnet.
 */
function moveStations(edits: PlanEdits, elsewhere: MovesByAddress, moveOf: MoveOf): Refusal {
  let refusal: Refusal = null;
  const own = <A extends Address>(segment: string | null, name: string, address: A): A => {
    const move = moveOf(segment, address);
    if (move === undefined) return address;
    const there = moved(move, address);
    if (there === null)
      refusal ??=
        `${name} has ${formatAddress(address)}, and ${formatPrefix(move.to)} ` +
        "has no such place; move that address first or choose a larger subnet.";
    return (there ?? address) as A;
  };
  const follow = <A extends Address>(address: A | null): A | null =>
    address === null ? null : elsewhere.follow(address);
  for (const leg of edits.all("interface")) {
    const name = edits.get("device", leg.device)?.name ?? leg.name;
    const addresses4 = leg.addresses4.map((a: Ipv4) => own(leg.segment, name, a));
    const addresses6 = leg.addresses6.map((a: Ipv6) => own(leg.segment, name, a));
    const relayTo = follow(leg.relayTo);
    const before = [leg.relayTo, ...leg.addresses4, ...leg.addresses6];
    if (!sameList<unknown>([relayTo, ...addresses4, ...addresses6], before))
      edits.put("interface", { ...leg, addresses4, addresses6, relayTo });
  }
  for (const host of edits.all("host")) {
    const ipv4 = host.ipv4 === null ? null : own(host.segment, host.name, host.ipv4);
    const ipv6 = host.ipv6 === null ? null : own(host.segment, host.name, host.ipv6);
    const [gateway4, gateway6] = [follow(host.gateway4), follow(host.gateway6)];
    const dns = host.dns.map((a) => elsewhere.follow(a));
    const before = [host.ipv4, host.ipv6, host.gateway4, host.gateway6, ...host.dns];
    if (!sameList<unknown>([ipv4, ipv6, gateway4, gateway6, ...dns], before))
      edits.put("host", { ...host, ipv4, ipv6, gateway4, gateway6, dns });
  }
  return refusal;
}

/** A segment's own subnets and the servers it tells. */
function moveSegment(
  edits: PlanEdits,
  segment: Segment,
  mine: readonly Move[],
  elsewhere: MovesByAddress,
): void {
  const to = <P extends Prefix>(prefix: P): P =>
    (mine.find(
      ({ from }) =>
        from.family === prefix.family && from.network === prefix.network && from.length === prefix.length,
    )?.to ?? prefix) as P;
  const dns = segment.dns.map((a) => elsewhere.follow(a));
  const time = segment.time.map((a) => elsewhere.follow(a));
  if (mine.length === 0 && sameList(dns, segment.dns) && sameList(time, segment.time)) return;
  edits.put("segment", {
    ...segment,
    prefixes4: segment.prefixes4.map(to),
    prefixes6: segment.prefixes6.map(to),
    dns,
    time,
  });
}

/**
 * Moves subnets, and with them by the same offset every gateway and other leg, pool, exclusion, reservation
 * and static address in them, and every name server, time server, relay target, a host's own gateway,
 * route, exception, source of a forward or wish, kept probe and option value that points at one of these.
 * The rules that stand on a device stay: they are what it has. Two segments may change places. An address
 * in use for which the new subnet has no place refuses the whole; a pool is cut to what fits. Backwards, with
 * the ends of each move swapped, leads to the plan that was, as long as nothing was cut.
 */
export function renumber(edits: PlanEdits, moves: readonly Move[]): Refusal {
  const bySegment = grouped(moves, (move) => move.segment);
  const elsewhere = new MovesByAddress(moves);
  const moveOf: MoveOf = (segment, address) =>
    segment === null
      ? undefined
      : bySegment.get(segment)?.find((move) => containsAddress(move.from, address));
  const refusal = moveStations(edits, elsewhere, moveOf);
  if (refusal !== null) return refusal;
  for (const scope of edits.all("scope")) {
    const next = movedScope(scope, elsewhere, (address) => moveOf(scope.segment, address));
    if (next !== scope) edits.put("scope", next);
  }
  for (const segment of edits.all("segment"))
    moveSegment(edits, segment, bySegment.get(segment.id) ?? [], elsewhere);
  for (const device of edits.all("device")) {
    const routes = device.routes.map((route) => movedRoute(route, moves, elsewhere));
    if (!sameList(routes, device.routes)) edits.put("device", { ...device, routes });
  }
  moveWho(edits, moves);
  for (const expectation of edits.all("expectation")) {
    const next = movedQuestion(expectation.question, elsewhere);
    if (next !== expectation.question) edits.put("expectation", { ...expectation, question: next });
  }
  const site = edits.need("site", edits.plan.site.id);
  const servers = site.conventions.dnsServers.map((a) => elsewhere.follow(a));
  if (!sameList(servers, site.conventions.dnsServers))
    edits.put("site", { ...site, conventions: { ...site.conventions, dnsServers: servers } });
  return null;
}

/** A subnet that moves, or a part of one, where it is then; itself where it stays. */
function movedPrefix(prefix: Prefix, moves: readonly Move[]): Prefix {
  const move = moves.find(({ from }) => containsPrefix(from, prefix));
  if (move === undefined) return prefix;
  if (move.from.length === prefix.length) return move.to;
  const network = step<Address>(move.to.network, offsetIn(move.from, prefix.network));
  return network !== null && prefix.length >= move.to.length && containsAddress(move.to, network)
    ? ({ ...prefix, network } as Prefix)
    : prefix;
}

/** Moves those whom exceptions, forwards and wishes name by a prefix. */
function moveWho(edits: PlanEdits, moves: readonly Move[]): void {
  const all = (prefixes: readonly Prefix[]) => prefixes.map((prefix) => movedPrefix(prefix, moves));
  const side = (end: RuleSide): RuleSide => {
    const prefix = end.at === "prefix" ? movedPrefix(end.prefix, moves) : null;
    return end.at !== "prefix" || prefix === null || prefix === end.prefix ? end : { ...end, prefix };
  };
  for (const exception of edits.all("exception")) {
    const [from, to] = [side(exception.from), side(exception.to)];
    if (from !== exception.from || to !== exception.to) edits.put("exception", { ...exception, from, to });
  }
  for (const forward of edits.all("forward")) {
    const sources = all(forward.sources);
    if (!sameList(sources, forward.sources)) edits.put("forward", { ...forward, sources });
  }
  for (const wish of edits.all("wish")) {
    const from = all(wish.from);
    if (!sameList(from, wish.from)) edits.put("wish", { ...wish, from });
  }
}

/** A route to a subnet that moves, or to a part of one, follows it; so does the router that it leads by. */
function movedRoute(route: Route, moves: readonly Move[], elsewhere: MovesByAddress): Route {
  const prefix = movedPrefix(route.prefix, moves);
  const via = elsewhere.follow(route.via);
  return prefix === route.prefix && via === route.via ? route : { ...route, prefix, via };
}

/** A kept probe that comes with an address of its own asks with the same one in the new subnet. */
function movedQuestion(question: ProbeQuestion, elsewhere: MovesByAddress): ProbeQuestion {
  const { as } = question;
  if (as.as === "spoofer") {
    const address = elsewhere.follow(as.address);
    return address === as.address ? question : { ...question, as: { ...as, address } };
  }
  if (as.as !== "typed") return question;
  const address = elsewhere.follow(as.address);
  const gateway = as.gateway === null ? null : elsewhere.follow(as.gateway);
  return address === as.address && gateway === as.gateway
    ? question
    : { ...question, as: { ...as, address, gateway } };
}

function movedScope(
  scope: Scope,
  elsewhere: MovesByAddress,
  moveOf: (address: Address) => Move | undefined,
): Scope {
  const range = (addressRange: AddressRange): AddressRange[] => {
    const move = moveOf(addressRange.first) ?? moveOf(addressRange.last);
    const there = move === undefined ? addressRange : movedRange(move, addressRange);
    return there === null ? [] : [there];
  };
  const options = scope.options.map((option) => ({
    ...option,
    value: followedText(elsewhere, option.value),
  }));
  const touched = [...scope.pools, ...scope.exclusions].some(
    (range) => moveOf(range.first) !== undefined || moveOf(range.last) !== undefined,
  );
  if (!touched && options.every((option, i) => option.value === scope.options[i]?.value)) return scope;
  return {
    ...scope,
    pools: scope.pools.flatMap(range),
    exclusions: scope.exclusions.flatMap(range),
    options,
  };
}
