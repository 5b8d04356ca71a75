import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { bramblewick } from "../../../demo/bramblewick";
import { dice } from "../testing/plants";
import { ipv4 } from "../address";
import { must } from "../kernel";
import { PlanIndex, type Plan, type ProbeAs, type ProbeGoal } from "../plan";
import { mixedSite } from "../testing/mixed-site";
import { plugs } from "./choices";
import { pluggedIn, probe } from "./probe";

const nobody = () => "";
/** What can be told of an outcome: repairs are compared by their words. */
const told = (outcome: unknown) =>
  JSON.stringify(outcome, (_key, value: unknown) => (typeof value === "bigint" ? `${value}n` : value));

const AS: readonly ProbeAs[] = [
  { as: "client" },
  { as: "behindPhone" },
  { as: "falseServer" },
  { as: "falseRouter" },
  { as: "spoofer", address: must(ipv4(0x0a18_1409), "an address") },
  { as: "kind", word: "printer" },
  { as: "kind", word: "nothing that anybody knows" },
];

function goalsOf({ plan }: PlanIndex): ProbeGoal[] {
  const [host] = plan.host.keys();
  const [device] = plan.device.keys();
  const [port] = plan.port.keys();
  const [forward] = plan.forward.keys();
  return [
    { to: "address" },
    { to: "internet", service: null },
    { to: "gateway", service: null },
    ...(host === undefined ? [] : [{ to: "host" as const, host, service: null }]),
    ...(device === undefined ? [] : [{ to: "device" as const, device, service: null }]),
    ...(port === undefined ? [] : [{ to: "port" as const, port, service: null }]),
    ...(forward === undefined ? [] : [{ to: "forward" as const, forward }]),
  ];
}

const SITES: readonly (readonly [string, () => Plan])[] = [
  ["the house", lockkeepersHouse],
  ["the practice", fennelStreet],
  ["the works", bramblewick],
  ...[1, 2, 3, 4].map((seed) => [`mixed site ${seed}`, () => mixedSite(dice(seed))] as const),
];

test.each(SITES)("who is plugged in once gets every answer as if plugged in anew: %s", (_name, made) => {
  const index = PlanIndex.of(made());
  const roll = dice(20261130);
  const goals = goalsOf(index);
  const from = plugs(index)
    .map((plug) => ({ plug, at: roll(1_000_000) }))
    .sort((a, b) => a.at - b.at)
    .slice(0, 10);
  for (const { plug } of from)
    for (const family of [4, 6] as const)
      for (const as of [must(AS[0], "a client"), must(AS[roll(AS.length)], "one")]) {
        const who = { from: plug.from, as, mac: null, family };
        const asks = pluggedIn(index, who, nobody);
        // Each twice, and the last one first: what was asked before must not show.
        for (const goal of [...goals.toReversed(), ...goals])
          expect(told(asks(goal))).toBe(told(probe(index, { ...who, goal }, nobody)));
      }
});
