import { parseAddress, type AddressRange } from "../address";
import { must } from "../kernel";
import type { FilterAction } from "../policy";
import { merged, ruleListOf, spansOf, type NetworkGroup, type RuleList, type Universe } from "../rules";
import { prefix as net } from "./written";

/** A rule as the recorded cases write it. */
export interface CaseRule {
  readonly from: string;
  readonly to: string;
  readonly src: readonly string[] | null;
  readonly dst: readonly string[] | null;
  readonly proto: "tcp" | "udp" | "icmp" | "any";
  readonly dports: readonly (readonly [number, number])[] | null;
  readonly action: FilterAction;
}
export interface CaseList {
  readonly rules: readonly CaseRule[];
  readonly defaultForward: FilterAction;
  readonly defaultInput: FilterAction;
}
/** What every recorded case about a rule list has: the site and the packets there are. */
export interface CaseSite {
  readonly name: string;
  readonly zones: readonly { readonly id: string; readonly segments: readonly string[] }[];
  readonly segments: readonly {
    readonly id: string;
    readonly prefix?: string | null;
    readonly prefix6?: string | null;
  }[];
  readonly universe: {
    readonly stations: Readonly<Record<string, readonly (readonly [string, string])[]>>;
    readonly router: readonly string[];
  };
}

const ip = (text: string) => must(parseAddress(text), text);

/** The recorded cases know TCP and UDP with ports 1 to 65535, and ICMP. */
const SERVICES = merged([
  ...spansOf("tcp", [[1, 65_535]]),
  ...spansOf("udp", [[1, 65_535]]),
  ...spansOf("icmp", null),
]);

export const universeOfCase = ({ universe: { stations, router } }: CaseSite): Universe => ({
  stations: new Map(
    Object.entries(stations).map(([network, ranges]) => [
      network,
      ranges.map(([first, last]): AddressRange => ({ first: ip(first), last: ip(last) })),
    ]),
  ),
  router: router.map(ip),
  services: { 4: SERVICES, 6: SERVICES },
});

export const listOfCase = ({ rules, defaultForward, defaultInput }: CaseList): RuleList =>
  ruleListOf({
    rules: rules.map(({ from, to, src, dst, proto, dports, action }) => ({
      from: [{ network: from, prefixes: src?.map(net) ?? null }],
      to: [{ network: to, prefixes: dst?.map(net) ?? null }],
      services: [{ protocol: proto, ports: dports }],
      action,
    })),
    forwardDefault: defaultForward,
    inputDefault: defaultInput,
  });

/** A zone, the internet or the router, as the cases name them. */
export const groupOfCase = ({ zones }: CaseSite, name: string): NetworkGroup => ({
  name,
  networks: zones.find(({ id }) => id === name)?.segments ?? [name],
});
