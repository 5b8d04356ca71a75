import { must } from "../kernel";
import { afterEdits, PlanEdits, PlanIndex, type Plan, type Port } from "../plan";
import {
  aDevice,
  aDomain,
  aHost,
  aLink,
  anInterface,
  aPort,
  aSegment,
  aVlan,
  aZone,
  planWith,
  testId,
} from "./build-plan";
import type { Dice } from "./plants";
import { ip, net as prefix, v } from "./written";

// Two or three switches one after the other, with their addresses in one segment or another, as they are
// planned and as they are found: small enough for every order of work to be tried.

const VIDS = [10, 20] as const;

type Membership = Pick<Port, "pvid" | "untagged" | "tagged" | "admit">;

const access = (number: number): Membership => ({
  pvid: v(number),
  untagged: [v(number)],
  tagged: [],
  admit: "all",
});
const trunk = (untagged: number | null, tagged: readonly number[]): Membership => ({
  pvid: untagged === null ? null : v(untagged),
  untagged: untagged === null ? [] : [v(untagged)],
  tagged: tagged.filter((vid) => vid !== untagged).map(v),
  admit: untagged === null ? "tagged" : "all",
});

/** How a switch is set: its ways to others, its two ports for people, and where it is managed. */
interface Setting {
  readonly trunks: Membership;
  readonly first: Membership;
  readonly second: Membership;
  readonly managed: (typeof VIDS)[number];
}

const pick = <T>(roll: Dice, list: readonly T[]): T => must(list[roll(list.length)], "one of them");

const aTrunk = (roll: Dice): Membership =>
  pick(roll, [
    trunk(null, VIDS),
    trunk(10, VIDS),
    trunk(20, VIDS),
    trunk(10, []),
    trunk(20, []),
    trunk(null, [20]),
  ]);

const aSetting = (roll: Dice): Setting => ({
  trunks: aTrunk(roll),
  first: access(pick(roll, VIDS)),
  second: pick(roll, [access(10), access(20), { ...access(20), pvid: null, untagged: [] }]),
  managed: pick(roll, VIDS),
});

const siteOf = (settings: readonly Setting[]): Plan => {
  const domain = aDomain();
  const segments = VIDS.map((number) =>
    aSegment({
      name: `Net ${number}`,
      vlan: aVlan({ vid: v(number) }).id,
      prefixes4: [prefix(`10.0.${number}.0/24`)],
      management: number === 10,
    }),
  );
  const names = settings.map((_, i) => `S${i + 1}`);
  const port = (device: string, label: string, membership: Membership): Port =>
    aPort({ device: testId("device", device), label, ...membership });
  const ports = settings.flatMap(({ trunks, first, second }, i) => {
    const name = must(names[i], "a name");
    return [
      ...(i > 0 ? [port(name, "1", trunks)] : []),
      ...(i < settings.length - 1 ? [port(name, "2", trunks)] : []),
      port(name, "3", first),
      port(name, "4", second),
    ];
  });
  const at = (device: string, label: string) => testId("port", `${testId("device", device)} ${label}`);
  return planWith({
    domain: [domain],
    zone: [aZone()],
    vlan: VIDS.map((number) => aVlan({ vid: v(number) })),
    segment: segments,
    device: names.map((name) => aDevice({ name, domain: domain.id })),
    port: ports,
    link: names
      .slice(1)
      .map((name, i) => aLink({ a: at(must(names[i], "the one before"), "2"), b: at(name, "1") })),
    interface: settings.map(({ managed }, i) =>
      anInterface({
        device: testId("device", must(names[i], "a name")),
        name: "Managed",
        segment: testId("segment", `Net ${managed}`),
        addresses4: [ip(`10.0.${managed}.${i + 1}`)],
      }),
    ),
    host: [
      aHost({
        name: "PC",
        segment: testId("segment", "Net 20"),
        attachment: { at: "port", port: at("S1", "3") },
      }),
    ],
  });
};

/** A site as it is found and as it is planned, which differ in some of what is set. */
export function smallSite(roll: Dice): { readonly before: Plan; readonly plan: Plan } {
  const count = 2 + roll(2);
  const was = Array.from({ length: count }, () => aSetting(roll));
  // One way of doing things for all, as people plan it, or each switch for itself.
  const same = aSetting(roll);
  const own = roll(3) === 0;
  const planned = was.map((setting): Setting => {
    const wanted = own ? aSetting(roll) : same;
    return {
      trunks: roll(4) === 0 ? setting.trunks : wanted.trunks,
      first: roll(2) === 0 ? setting.first : wanted.first,
      second: roll(2) === 0 ? setting.second : wanted.second,
      managed: roll(4) === 0 ? setting.managed : wanted.managed,
    };
  });
  return { before: siteOf(was), plan: siteOf(planned) };
}

/**
 * A plan as people leave it: some ports in other VLANs, an address moved, a VLAN gone from a way between
 * gear.
 */
export function disturbed(plan: Plan, roll: Dice, faults: number): Plan {
  const edits = new PlanEdits(plan);
  const ports = [...plan.port.values()].filter(({ tagged, untagged }) => tagged.length + untagged.length > 0);
  for (let fault = 0; fault < faults; fault += 1) {
    const { id } = pick(roll, ports);
    const port = edits.need("port", id);
    const vids = [...new Set([...plan.vlan.values()].map((vlan) => vlan.vid))];
    if (port.tagged.length > 0 && roll(2) === 0)
      edits.patch("port", id, { tagged: port.tagged.filter((_, at) => at !== roll(port.tagged.length)) });
    else edits.patch("port", id, access(pick(roll, vids)));
  }
  return must(afterEdits(PlanIndex.of(plan), edits), "it can be edited so").plan;
}
