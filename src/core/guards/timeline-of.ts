import { profileOf, type Host, type PlanIndex, type Port } from "../plan";
import { runOn, serverReached, speaksSignIn } from "../probe";
import { patience, quicker, timeline, type Timeline } from "./timeline";
import { planIn, type Situation } from "./who-gets-in";

/** From link up to network for one planned at a port, beside what it waits for and what could be. */
export interface TimeAt {
  readonly is: Timeline;
  /** By fewer and shorter questions; null where that makes no difference. */
  readonly couldBe: Timeline | null;
  /** How long it asks for an address; null where it never rests. */
  readonly waits: number | null;
}

/** How many servers of a profile a switch asks in vain before one answers; all of them where none does. */
function silentServers(index: PlanIndex, port: Port): number {
  const device = index.plan.device.get(port.device);
  const profile = profileOf(index, port);
  if (device === undefined || profile === undefined) return 0;
  const reached = serverReached(
    runOn(index, () => ""),
    device,
    profile,
  );
  return "server" in reached ? profile.servers.indexOf(reached.server.id) : profile.servers.length;
}

/** The times of a host at a port, in a situation; null where the port has no profile. */
export function timeAt(index: PlanIndex, port: Port, host: Host, situation: Situation): TimeAt | null {
  const profile = profileOf(index, port);
  if (profile === undefined) return null;
  const silent = silentServers(planIn(index, situation, profile), port);
  const asked = { speaks: speaksSignIn(host), isKnown: host.mac !== null, silent };
  const is = timeline({ profile, ...asked });
  const couldBe = timeline({ profile: quicker(profile), ...asked });
  const isQuicker = is.ready !== null && couldBe.ready !== null && couldBe.ready < is.ready;
  return { is, couldBe: isQuicker ? couldBe : null, waits: patience(host) };
}
