import { formatAddress, formatPrefix, type Address, type Prefix } from "../address";
import { nameOf, type Change, type EntityOf, type PlanIndex } from "../plan";

const KINDS = { segment: "subnet", interface: "gear", host: "device", scope: "pool" } as const;
type Listed = keyof typeof KINDS;

/** What has addresses in an entity, by what it is: texts that stand for one another before and after. */
function addressesIn(kind: Listed, entity: EntityOf<Listed>): string[] {
  const plain = (list: readonly Address[]) => list.map(formatAddress);
  switch (kind) {
    case "segment": {
      const { prefixes4, prefixes6 } = entity as EntityOf<"segment">;
      return ([...prefixes4, ...prefixes6] as Prefix[]).map(formatPrefix);
    }
    case "interface": {
      const { addresses4, addresses6 } = entity as EntityOf<"interface">;
      return plain([...addresses4, ...addresses6]);
    }
    case "host": {
      const { ipv4, ipv6 } = entity as EntityOf<"host">;
      return plain([ipv4, ipv6].filter((address) => address !== null));
    }
    case "scope":
      return (entity as EntityOf<"scope">).pools.map(
        ({ first, last }) => `${formatAddress(first)} to ${formatAddress(last)}`,
      );
  }
}

/**
 * Old and new of every address that a batch moves, heads first: what has to be changed on the devices, and on
 * which.
 */
export function renumberTable(before: PlanIndex, changes: readonly Change[]): string[][] {
  const rows = (Object.keys(KINDS) as Listed[]).flatMap((kind) =>
    changes
      .filter((change) => change.kind === kind && change.before !== null && change.after !== null)
      .flatMap((change) => {
        const [was, is] = [
          addressesIn(kind, change.before as EntityOf<Listed>),
          addressesIn(kind, change.after as EntityOf<Listed>),
        ];
        const segment = kind === "segment" ? change.id : ((change.before as EntityOf<"host">).segment ?? "");
        return was.flatMap((old, i) =>
          is[i] === undefined || is[i] === old
            ? []
            : [
                [
                  KINDS[kind],
                  nameOf(before, kind, change.id),
                  nameOf(before, "segment", segment),
                  old,
                  is[i] ?? "",
                ],
              ],
        );
      }),
  );
  return [["What", "Name", "Segment", "Old", "New"], ...rows];
}
