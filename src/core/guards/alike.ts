import type { Address } from "../address";
import { leasedTo } from "../dhcp";
import { classify } from "../fabric";
import { holdsAddress, type Device, type Host, type PlanIndex, type Port, type Scope } from "../plan";
import { evenDomain, portStateFor, runOn, type Outcome, type PortState, type ProbeRun } from "../probe";
import { TREE } from "../spanning-tree";

// Most ports of a site are alike: what a DHCP server answers to one of them it answers to all in the same
// VLAN. It is asked for one of each kind; how the port itself decides is asked for each.

const nobody = () => "";

/** Somebody at a port: a host of the register, or null for something that nobody knows. */
export interface AtPort {
  readonly device: Device;
  readonly port: Port;
  readonly host: Host | null;
}

/** What is known of somebody without asking: how the port decides, and the address that comes of it. */
export interface Told {
  readonly state: PortState;
  /** Null where the port stays closed, or nothing is left to give. */
  readonly lease: { readonly segment: string; readonly address: Address } | null;
  /** Why there is nothing to give; null where there is, or the port stays closed. */
  readonly stopped: string | null;
}

/** What one of a kind was given. */
interface Given {
  readonly scope: Scope | null;
  readonly segment: string;
  readonly address: Address;
}

/** A scope that had nothing left for one of a kind, and how that was said. */
interface UsedUp {
  readonly scope: Scope;
  readonly sentence: string;
}

/** What was given to one of each kind, so that the others need not be asked for. */
export class Alike {
  readonly #index: PlanIndex;
  readonly #given: Map<string, Given>;
  readonly #usedUp: Map<string, UsedUp>;
  /** How ports decide leaves nothing behind in it: one run serves them all. */
  readonly #run: ProbeRun;
  /** By device and VLAN ID, where somebody put into it is. */
  readonly #where = new Map<string, string>();

  /** `same` is of a plan that differs in nothing that an address comes of: what it noted holds here, too. */
  constructor(index: PlanIndex, same: Alike | null = null) {
    this.#index = index;
    this.#run = runOn(index, nobody);
    this.#given = same === null ? new Map() : same.#given;
    this.#usedUp = same === null ? new Map() : same.#usedUp;
  }

  /**
   * How the port decides, for somebody who is alone at it and whom nothing else there could stop; null for
   * anybody else.
   */
  #stateOf({ device, port, host }: AtPort): PortState | null {
    const index = this.#index;
    const tag = host?.tag ?? null;
    const alone = index.hostsAt(port.id);
    const isSimple =
      index.linkAt(port.id) === undefined &&
      alone.length <= 1 &&
      (host === null || alone[0]?.id === host.id) &&
      host?.attachment.at !== "behind" &&
      classify(port, tag) !== null &&
      !index.derived(TREE).shut.has(port.id);
    return isSimple ? portStateFor(this.#run, device, port, { host, speaksItself: false, tag }) : null;
  }

  /** What those who are given the same have in common; null where somebody is to be asked for by itself. */
  #keyOf({ device, port, host }: AtPort, state: PortState): string | null {
    if (state.state === "limited" || state.state === "closed") return null;
    const vid = state.vid ?? classify(port, host?.tag ?? null);
    if (vid === null || (state.vid !== null && (host?.tag ?? null) !== null)) return null;
    const who = host === null ? "nobody" : `${host.manner} ${host.segment ?? ""} ${host.tag ?? ""}`;
    const { guards } = port;
    const where = this.#whereIn(device.id, vid);
    return `${where} ${vid} ${String(guards.dhcpTrust)} ${String(guards.isolated)} ${who}`;
  }

  /** The broadcast domain, where it does not matter at which of its switches somebody is; else the switch. */
  #whereIn(device: string, vid: number): string {
    const key = `${device} ${vid}`;
    const known = this.#where.get(key);
    if (known !== undefined) return known;
    const where = String(evenDomain(this.#index, device, vid) ?? device);
    this.#where.set(key, where);
    return where;
  }

  /** What somebody comes to, from what one like it came to; null where it has to be asked. */
  tell(at: AtPort): Told | null {
    const state = this.#stateOf(at);
    if (state === null) return null;
    if (state.state === "closed") return { state, lease: null, stopped: null };
    const key = this.#keyOf(at, state);
    const given = this.#given.get(key ?? "");
    const address = given === undefined ? null : this.#addressOf(at.host, given);
    if (given !== undefined && address !== null)
      return { state, lease: { segment: given.segment, address }, stopped: null };
    const usedUp = this.#usedUp.get(key ?? "");
    return usedUp !== undefined && at.host !== null && this.#hasNone(at.host, usedUp.scope)
      ? { state, lease: null, stopped: usedUp.sentence }
      : null;
  }

  /** Whether a scope has no address for a host. */
  #hasNone({ id }: Host, scope: Scope): boolean {
    return !leasedTo(this.#index, scope).has(id);
  }

  /** The address that a host has where one like it has its own; null where that is not certain. */
  #addressOf(host: Host | null, { scope, segment, address }: Given): Address | null {
    if (host === null) return address;
    if (host.manner === "typed") {
      const home = this.#index.plan.segment.get(segment);
      const own = host.ipv4;
      return own === null || home === undefined || !holdsAddress(home, own) ? null : own;
    }
    return scope === null ? null : (leasedTo(this.#index, scope).get(host.id) ?? null);
  }

  /** Notes what somebody came to who was asked for, so that those like it are told. */
  note(at: AtPort, outcome: Outcome): void {
    const [given, usedUp] = [this.#leaseOf(at.host, outcome), this.#usedUpBy(at.host, outcome)];
    const state = given === null && usedUp === null ? null : this.#stateOf(at);
    const key = state === null ? null : this.#keyOf(at, state);
    if (key === null) return;
    if (given !== null && !this.#given.has(key)) this.#given.set(key, given);
    if (usedUp !== null) this.#usedUp.set(key, usedUp);
  }

  /** The scope of a host's own segment that has nothing left for it, where that is all that stops it. */
  #usedUpBy(host: Host | null, { cause, lease }: Outcome): UsedUp | null {
    const [about] = cause?.subjects ?? [];
    const scope = about?.kind === "scope" ? this.#index.plan.scope.get(about.id) : undefined;
    if (host?.manner !== "dynamic" || cause === null || lease !== null || scope === undefined) return null;
    return scope.segment === host.segment && this.#hasNone(host, scope) && !cause.sentence.includes(host.name)
      ? { scope, sentence: cause.sentence }
      : null;
  }

  #leaseOf(host: Host | null, { cause, advice, lease }: Outcome): Given | null {
    if (cause !== null || advice !== null || lease === null || lease.segment === null) return null;
    if (host !== null && host.segment !== lease.segment) return null;
    const scope = this.#index
      .scopesOf(lease.segment)
      .find(
        (scope) =>
          scope.family === 4 && host !== null && leasedTo(this.#index, scope).get(host.id) === lease.address,
      );
    return { scope: scope ?? null, segment: lease.segment, address: lease.address };
  }
}
