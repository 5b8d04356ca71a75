import { readFileSync } from "node:fs";
import { gunzipSync } from "node:zlib";
import { formatAddress, type Family } from "../address";
import { groupOfCase, listOfCase, universeOfCase, type CaseList, type CaseSite } from "../testing/rule-cases";
import { allowedBetween, type Allowed } from "./allowed";
import { ruleStates } from "./anomalies";
import { coverOfRule } from "./covers";
import { compareLists, type Difference } from "./equivalence";
import { conflictingPairs } from "./pairs";
import { groupsOf, spansOf, type Protocol, type ServiceSpan } from "./service-space";
import { merged } from "./spans";
import type { Side } from "../policy";
import { packetsIn } from "./universe";
import { closedList, compileWishes } from "./compile";
import { must } from "../kernel";
import { listSpace } from "./space";
import type { WitnessPacket } from "./witness";

const read = <T>(name: string): (CaseSite & T)[] => {
  const bytes = readFileSync(`tests/oracle/rules/${name}`);
  return JSON.parse((name.endsWith(".gz") ? gunzipSync(bytes) : bytes).toString("utf8")) as (CaseSite & T)[];
};

const servicesOf = (spans: readonly ServiceSpan[]) =>
  groupsOf(spans).map(({ protocol, ports }) => ({ proto: protocol, dports: ports }));
const sidesOf = ({ from, to, source, target }: WitnessPacket) => ({
  from,
  to,
  src: formatAddress(source),
  dst: formatAddress(target),
});

describe("anomalies", () => {
  interface Expected {
    readonly expect: {
      readonly rules: {
        index: number;
        neverMatches: boolean;
        removable: boolean;
        emptyMatch?: boolean;
      }[];
      readonly pairs: unknown;
    };
  }
  test.each(read<CaseList & Expected>("anomalies.json"))("$name", (of) => {
    const space = listSpace(universeOfCase(of), listOfCase(of));
    const rules = ruleStates(space).map(({ emptyMatch, neverMatches, removable }, index) => {
      const cover = coverOfRule(space, index);
      return {
        index,
        neverMatches,
        removable,
        ...(emptyMatch ? { emptyMatch } : {}),
        ...(cover ?? {}),
      };
    });
    expect(rules).toEqual(of.expect.rules);
    expect(conflictingPairs(space)).toEqual(of.expect.pairs);
  });
});

describe("equivalence", () => {
  interface Answer {
    readonly equal: boolean;
    readonly differing: string;
    readonly witness: unknown;
  }
  interface Expected {
    readonly a: CaseList;
    readonly b: CaseList;
    readonly expect: { universeSize: string; fate: Answer; permit: Answer };
  }
  const answerOf = ({ packets, witness }: Difference): Answer => ({
    equal: packets === 0n,
    differing: String(packets),
    witness:
      witness === null
        ? null
        : {
            ...sidesOf(witness),
            proto: witness.service.protocol,
            dport: witness.service.port,
            a: witness.a,
            b: witness.b,
          },
  });
  test.each(read<Expected>("equivalence.json"))("$name", (of) => {
    const { universeSize, fate, permit } = compareLists(
      universeOfCase(of),
      listOfCase(of.a),
      listOfCase(of.b),
    );
    expect(packetsIn(universeOfCase(of))).toBe(universeSize);
    expect({ universeSize: String(universeSize), fate: answerOf(fate), permit: answerOf(permit) }).toEqual(
      of.expect,
    );
  });
});

interface IntentRow {
  readonly from: string;
  readonly to: string;
  readonly byFamily?: object;
}
const stateOf = ({ state, always, sometimes, witness }: Allowed) => ({
  state,
  ...(state === "services" ? { services: servicesOf(always) } : {}),
  ...(state === "mixed"
    ? {
        always: servicesOf(always),
        sometimes: servicesOf(sometimes),
        witness: witness && {
          proto: witness.accepted.service.protocol,
          dport: witness.accepted.service.port,
          accepted: sidesOf(witness.accepted),
          denied: sidesOf(witness.denied),
        },
      }
    : {}),
});
const rowsOf = (of: CaseSite & CaseList, wanted: readonly IntentRow[]) => {
  const space = listSpace(universeOfCase(of), listOfCase(of));
  const names = [...of.zones.map(({ id }) => id), "internet"];
  return names.flatMap((from) =>
    [...names, "router"].flatMap((to) => {
      const ask = (family?: Family) =>
        allowedBetween(space, groupOfCase(of, from), groupOfCase(of, to), family);
      const both = ask();
      if (both === null) return [];
      const byFamily = wanted.some((row) => row.byFamily !== undefined);
      const families = ([4, 6] as const).flatMap((family) => {
        const allowed = ask(family);
        return allowed === null ? [] : [[`ipv${family}`, stateOf(allowed)]];
      });
      return [
        {
          from,
          to,
          ...stateOf(both),
          ...(byFamily ? { byFamily: Object.fromEntries(families) as object } : {}),
        },
      ];
    }),
  );
};
const inOrder = (rows: readonly IntentRow[]) =>
  [...rows].sort((a, b) => (`${a.from} ${a.to}` < `${b.from} ${b.to}` ? -1 : 1));

describe("what a list really allows", () => {
  test.each(read<CaseList & { expect: IntentRow[] }>("intent.json"))("$name", (of) => {
    expect(inOrder(rowsOf(of, of.expect))).toEqual(inOrder(of.expect));
  });
});

describe("compiled lists let through what is wanted, and nothing else", () => {
  interface Pair {
    readonly from: string;
    readonly to: string;
    readonly state: "closed" | "open" | "services";
    readonly services?: readonly { proto: Protocol; dports: [number, number][] | null }[];
  }
  test.each(read<{ intent: Pair[]; referenceRules: number }>("compile.json"))("$name", (of) => {
    const universe = universeOfCase(of);
    const sides = (name: string) =>
      groupOfCase(of, name).networks.map((network): Side => ({ network, prefixes: null }));
    const wanted = ({ state, services = [] }: Pair): ServiceSpan[] => {
      if (state === "closed") return [];
      return state === "open"
        ? [...universe.services[4]]
        : merged(services.flatMap(({ proto, dports }) => spansOf(proto, dports)));
    };
    const rules = compileWishes(
      universe,
      of.intent.map((pair) => ({
        from: sides(pair.from),
        to: sides(pair.to),
        services: wanted(pair),
        serves: [`${pair.from}>${pair.to}`],
      })),
    );
    const space = listSpace(universe, closedList(rules));
    for (const pair of of.intent) {
      const is = must(allowedBetween(space, groupOfCase(of, pair.from), groupOfCase(of, pair.to)), "packets");
      expect({ pair, always: is.always, sometimes: is.sometimes }).toEqual({
        pair,
        always: wanted(pair),
        sometimes: wanted(pair),
      });
    }
    expect(ruleStates(space).filter(({ removable }) => removable)).toEqual([]);
    expect(rules.length).toBeLessThanOrEqual(of.referenceRules);
  });
});

describe("large lists", () => {
  interface Expected {
    readonly expect: {
      neverMatches: number[];
      removable: number[];
      emptyMatch: number[];
      intent: IntentRow[];
    };
  }
  test.each(read<CaseList & Expected>("scale.json.gz"))("$name", (of) => {
    const states = ruleStates(listSpace(universeOfCase(of), listOfCase(of)));
    const those = (key: "neverMatches" | "removable" | "emptyMatch") =>
      states.flatMap((state, index) => (state[key] ? [index] : []));
    expect(those("neverMatches")).toEqual(of.expect.neverMatches);
    expect(those("removable")).toEqual(of.expect.removable);
    expect(those("emptyMatch")).toEqual(of.expect.emptyMatch);
    expect(inOrder(rowsOf(of, of.expect.intent))).toEqual(inOrder(of.expect.intent));
  });
});
