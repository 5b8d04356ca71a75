import { must } from "../kernel";
import { aHost, aPort, aZone } from "../testing/build-plan";
import { v } from "../testing/written";
import { type Change, type Host } from ".";
import { buildGroups, deriveGroups } from "./group";
import { merge } from "./merge";
import { SCHEMAS } from "./schema/kinds";
import { nextSteps, type LoggedBatch } from "./undo";

const ID = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;

describe("groups by a key", () => {
  const byTag = {
    kind: "host",
    keyOf: null,
    keysOf: (host: Host) => (host.tag === null ? [] : [host.tag, host.tag]),
  } as const;
  const host = (n: number, tag: number | null) =>
    aHost({ id: ID(n), name: `H${n}`, tag: tag === null ? null : v(tag) });
  const rows = (hosts: readonly Host[]) => new Map(hosts.map((host) => [host.id, host]));
  const told = (groups: ReturnType<typeof buildGroups<"host">>) =>
    Object.fromEntries([...groups].map(([key, list]) => [key, list.map(({ name }) => name).join(" ")]));
  const first = [host(1, 10), host(2, 10), host(3, 20), host(4, null)];
  const groups = buildGroups(byTag, rows(first));

  test("each once under its key, however often it has it", () => {
    expect(told(groups)).toEqual({ 10: "H1 H2", 20: "H3" });
  });

  test.each<[string, Host | null, Host | null, Record<string, string>]>([
    ["moved", host(1, 10), host(1, 20), { 10: "H2", 20: "H1 H3" }],
    ["renamed in place", host(2, 10), { ...host(2, 10), name: "New" }, { 10: "H1 New", 20: "H3" }],
    ["the last of its group gone", host(3, 20), null, { 10: "H1 H2" }],
    ["come, with a key of its own", null, host(5, 30), { 10: "H1 H2", 20: "H3", 30: "H5" }],
    ["come, before the others by its id", null, host(0, 10), { 10: "H0 H1 H2", 20: "H3" }],
    [
      "without a key before and after",
      host(4, null),
      { ...host(4, null), name: "N" },
      { 10: "H1 H2", 20: "H3" },
    ],
  ])("follow what is %s, and leave the other groups the lists they are", (_, before, after, expected) => {
    const id = must(before ?? after, "one of them").id;
    const change = { kind: "host", id, before, after } as Change;
    const next = deriveGroups(byTag, groups, [change]);
    expect(told(next)).toEqual(expected);
    const touched = new Set([before?.tag, after?.tag]);
    for (const [key, list] of groups) if (!touched.has(key as never)) expect(next.get(key)).toBe(list);
    expect(told(groups)).toEqual({ 10: "H1 H2", 20: "H3" });
  });

  test("changes of other kinds are not theirs", () => {
    const zone = aZone();
    expect(
      told(deriveGroups(byTag, groups, [{ kind: "zone", id: zone.id, before: null, after: zone }])),
    ).toEqual(told(groups));
  });
});

describe("two edits of one value", () => {
  const { tagged, guards } = SCHEMAS.port.shape;
  const pools = SCHEMAS.scope.shape.pools;
  const run = (schema: Parameters<typeof merge>[0], was: unknown, mine: unknown, theirs: unknown) =>
    (["mine", "theirs"] as const).map((winner) => merge(schema, { was, mine, theirs }, winner));

  test("one of the two, or both alike, and there is nothing to ask", () => {
    expect(run(undefined, 1, 2, 1)).toEqual(Array(2).fill({ value: 2, clashes: false }));
    expect(run(undefined, 1, 1, 3)).toEqual(Array(2).fill({ value: 3, clashes: false }));
    expect(run(undefined, 1, 2, 2)).toEqual(Array(2).fill({ value: 2, clashes: false }));
  });

  test("two wishes for one thing clash, and the winner's holds", () => {
    expect(run(undefined, 1, 2, 3)).toEqual([
      { value: 2, clashes: true },
      { value: 3, clashes: true },
    ]);
    expect(run(undefined, null, [1], 3)).toEqual([
      { value: [1], clashes: true },
      { value: 3, clashes: true },
    ]);
  });

  test("a set takes in what either added and lets go what either took away", () => {
    expect(run(tagged, [10, 20], [10, 20, 30], [20, 40])).toEqual(
      Array(2).fill({ value: [20, 40, 30], clashes: false }),
    );
    expect(run(tagged, [10], [10, 30], [10, 30, 40])).toEqual(
      Array(2).fill({ value: [10, 30, 40], clashes: false }),
    );
    expect(run(tagged, [10], [], [10, 20])).toEqual(Array(2).fill({ value: [20], clashes: false }));
  });

  test("a group merges setting by setting, and clashes only in the one that both set", () => {
    const was = { ...aPort({ device: "d", label: "1" }).guards };
    const mine = { ...was, edge: true, macLimit: 3 };
    const theirs = { ...was, dhcpTrust: true, macLimit: 5 };
    expect(run(guards, was, mine, theirs)).toEqual([
      { value: { ...was, edge: true, dhcpTrust: true, macLimit: 3 }, clashes: true },
      { value: { ...was, edge: true, dhcpTrust: true, macLimit: 5 }, clashes: true },
    ]);
    expect(run(guards, was, { ...was, edge: true }, { ...was, dhcpTrust: true })[0]).toEqual({
      value: { ...was, edge: true, dhcpTrust: true },
      clashes: false,
    });
  });

  test.each<[string, readonly [unknown[], unknown[], unknown[]], unknown[] | "clash"]>([
    [
      "different elements",
      [
        [1, 2],
        [9, 2],
        [1, 8],
      ],
      [9, 8],
    ],
    [
      "one changed, one added",
      [
        [1, 2],
        [9, 2],
        [1, 2, 3],
      ],
      [9, 2, 3],
    ],
    [
      "the same element",
      [
        [1, 2],
        [9, 2],
        [8, 2],
      ],
      "clash",
    ],
    ["both added at the end", [[1], [1, 2], [1, 3]], "clash"],
    ["one took the end off, the other left it", [[1, 2], [1], [9, 2]], [9]],
    ["one took the end off, the other went on behind it", [[1, 2], [1], [1, 2, 3]], "clash"],
    [
      "the same value twice",
      [
        [1, 2],
        [3, 2],
        [1, 3],
      ],
      "clash",
    ],
    [
      "twice before, and still",
      [
        [1, 1, 2],
        [1, 1, 9],
        [1, 1, 2, 4],
      ],
      [1, 1, 9, 4],
    ],
  ])("a list with an order, %s", (_, [was, mine, theirs], expected) => {
    expect(run(pools, was, mine, theirs)).toEqual(
      expected === "clash"
        ? [
            { value: mine, clashes: true },
            { value: theirs, clashes: true },
          ]
        : Array(2).fill({ value: expected, clashes: false }),
    );
  });
});

describe("what an author can take back and bring back", () => {
  const line = (id: string, more: Partial<LoggedBatch> = {}): LoggedBatch => ({
    id,
    author: "Ruth",
    undoes: null,
    redoes: null,
    changeCount: 1,
    ...more,
  });
  const undone = (id: string, of: string) => line(id, { undoes: of });
  const redone = (id: string, of: string) => line(id, { redoes: of });

  test.each<[string, readonly LoggedBatch[], readonly [string | null, string | null, boolean]]>([
    ["nothing", [], [null, null, false]],
    ["the last edit", [line("b"), line("a")], ["b", null, true]],
    ["the one before, the last brought back", [undone("u", "b"), line("b"), line("a")], ["a", "b", true]],
    ["two taken back", [undone("v", "a"), undone("u", "b"), line("b"), line("a")], [null, "a", false]],
    ["brought back", [redone("r", "b"), undone("u", "b"), line("b"), line("a")], ["b", null, true]],
    [
      "a new edit leaves nothing to bring back",
      [line("c"), undone("u", "b"), line("b"), line("a")],
      ["c", null, true],
    ],
    [
      "one that found its work done is passed over",
      [line("c", { changeCount: 0 }), line("b")],
      ["b", null, true],
    ],
  ])("%s", (_, lines, [undo, redo, isCertain]) => {
    expect(nextSteps(lines)).toEqual({ undo, redo, isCertain });
  });
});
