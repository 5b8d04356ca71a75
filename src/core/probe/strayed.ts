import { nameOf } from "../plan";
import type { ProbeRun } from "./run";
import { crossing } from "./hops";
import type { SwitchHop } from "./inspection";
import type { Lease } from "./lease";
import { misplaced } from "./misplaced";
import type { Started } from "./start";
import type { Cause } from "./step";

/** Where on the way a VLAN turned into another; null when it stayed the same. */
export function turned({ index }: ProbeRun, passings: readonly SwitchHop[]): Cause | null {
  const at = passings.findIndex(({ vid }, i) => i > 0 && vid !== passings[i - 1]?.vid);
  const [before, after] = [passings[at - 1], passings[at]];
  return before?.outPort === undefined || after?.inPort === undefined
    ? null
    : crossing(index, { near: before.outPort, far: after.inPort, vid: before.vid, joined: after.vid });
}

/**
 * Why something has the address of another segment than the one it belongs in: its port, its tag, its
 * wireless name, its sign-in, a VLAN that turns into another. Null when it does not.
 */
export function strayed(run: ProbeRun, started: Started, lease: Lease): Cause | null {
  const { host } = started;
  if (
    host === null ||
    host.segment === null ||
    lease.segment === host.segment ||
    lease.segment === null ||
    !lease.leased
  )
    return null;
  const wrong = misplaced(run, started) ?? lease.turnedAt;
  const [got, belongs] = [
    nameOf(run.index, "segment", lease.segment),
    nameOf(run.index, "segment", host.segment),
  ];
  return wrong === null
    ? {
        sentence: `${host.name} belongs in ${belongs} and gets an address of ${got}.`,
        subjects: [{ kind: "host", id: host.id }],
        repairs: [],
      }
    : { ...wrong, sentence: `${wrong.sentence} It gets an address of ${got}.` };
}
