import { readFileSync } from "node:fs";
import { DisjointSet, must } from "../kernel";
import { spanningTree, type TreeBridge, type TreePort } from "./tree";

interface Case {
  name: string;
  switches: {
    id: string;
    stp: boolean;
    priority?: number;
    mac?: string;
    ports: { id: string; num?: number; priority?: number; cost?: number }[];
  }[];
  links: [string, string][];
  failedLinks: [string, string][];
  expect: {
    root: string | null;
    rootOf?: Record<string, string>;
    rootPathCost: Record<string, number>;
    ports: Record<string, { role: string; state: string }>;
  };
}

const cases = JSON.parse(readFileSync("tests/oracle/stp/cases.json", "utf8")) as Case[];
const same = ([a, b]: [string, string], [c, d]: [string, string]) =>
  (a === c && b === d) || (a === d && b === c);

/**
 * The bridges and ports of a case: cables join ports into LANs, and so does gear that knows no spanning tree.
 */
function built({ switches, links, failedLinks }: Case): { bridges: TreeBridge[]; ports: TreePort[] } {
  const all = switches.flatMap((s) => s.ports.map((p) => `${s.id}/${p.id}`));
  const number = new Map(all.map((id, i) => [id, i]));
  const lans = new DisjointSet(all.length);
  const at = (id: string) => must(number.get(id), id);
  const working = links.filter((link) => !failedLinks.some((failed) => same(link, failed)));
  for (const [a, b] of working) lans.join(at(a), at(b));
  for (const s of switches.filter((bridge) => !bridge.stp))
    for (const p of s.ports) lans.join(at(`${s.id}/${s.ports[0]?.id ?? ""}`), at(`${s.id}/${p.id}`));
  const cabled = new Set(working.flat());
  const bridges = switches
    .filter((s) => s.stp)
    .map((s): TreeBridge => ({
      id: s.id,
      priority: s.priority ?? 0,
      address: Number.parseInt((s.mac ?? "").replaceAll(":", ""), 16),
      region: null,
    }));
  const ports = switches
    .filter((s) => s.stp)
    .flatMap((s) =>
      s.ports
        .filter((p) => cabled.has(`${s.id}/${p.id}`))
        .map((p): TreePort => ({
          id: `${s.id}/${p.id}`,
          bridge: s.id,
          lan: String(lans.rootOf(at(`${s.id}/${p.id}`))),
          priority: p.priority ?? 0,
          number: p.num ?? 0,
          cost: p.cost ?? 0,
          restrictedRole: false,
        })),
    );
  return { bridges, ports };
}

test("the recorded cases were read", () => {
  expect(cases.length).toBeGreaterThan(90);
  expect(cases.filter((tried) => tried.failedLinks.length > 0).length).toBeGreaterThan(40);
});

test.each(cases.map((tried) => [tried.name, tried] as const))(
  "%s: the tree is what real switches settled on",
  (_, given) => {
    const { bridges, ports } = built(given);
    const tree = spanningTree(bridges, ports);
    for (const bridge of bridges) {
      expect([bridge.id, tree.rootOf.get(bridge.id)?.id]).toEqual([
        bridge.id,
        given.expect.rootOf?.[bridge.id] ?? given.expect.root,
      ]);
      expect([bridge.id, tree.costOf.get(bridge.id)]).toEqual([
        bridge.id,
        given.expect.rootPathCost[bridge.id],
      ]);
    }
    const roles = Object.fromEntries(Object.entries(given.expect.ports).map(([id, { role }]) => [id, role]));
    const mine = Object.fromEntries(
      Object.keys(roles).map((id) => [
        id,
        tree.ports.get(id)?.role ?? (given.failedLinks.flat().includes(id) ? "disabled" : "designated"),
      ]),
    );
    expect(mine).toEqual(roles);
  },
);
