import { formatAddress, parseIpv4, type Ipv4 } from "../../address";
import { must } from "../../kernel";
import { makeSum, SUM_KINDS, type Sum, type SumKind } from ".";

const SEEDS = Array.from({ length: 150 }, (_, at) => at * 37 + 1);
const KINDS = Object.keys(SUM_KINDS) as SumKind[];
const asBits = (address: number): string => address.toString(2).padStart(32, "0");
const ofBits = (bits: string): Ipv4 => parseInt(bits, 2) as Ipv4;
const read = (text: string): number => must(parseIpv4(text), text);
const ADDRESS = String.raw`(\d+\.\d+\.\d+\.\d+)`;
const groups = (pattern: string, { question }: Sum): string[] =>
  must(new RegExp(pattern).exec(question), question).slice(1);

/** What is right, by writing the bits out or by counting one by one: what a sum's own working does not do. */
const TWINS: Readonly<Record<SumKind, (sum: Sum) => string>> = {
  network: (sum) => {
    const [address = "", length = ""] = groups(`is ${ADDRESS}/(\\d+) in`, sum);
    return `${formatAddress(ofBits(asBits(read(address)).slice(0, Number(length)).padEnd(32, "0")))}/${length}`;
  },
  last: (sum) => {
    const [address = "", length = ""] = groups(`of ${ADDRESS}/(\\d+)\\?`, sum);
    return formatAddress(ofBits(asBits(read(address)).slice(0, Number(length)).padEnd(32, "1")));
  },
  hosts: (sum) => {
    const [length = ""] = groups(`into a /(\\d+)`, sum);
    let count = 0;
    for (let host = 1; host < 2 ** (32 - Number(length)) - 1; host += 1) count += 1;
    return String(count);
  },
  mask: (sum) => formatAddress(ofBits("1".repeat(Number(groups(`of a /(\\d+)`, sum)[0])).padEnd(32, "0"))),
  length: (sum) => `/${asBits(read(groups(`mask ${ADDRESS}`, sum)[0] ?? "")).replace(/0/g, "").length}`,
  smallest: (sum) => {
    const count = Number(groups(`^(\\d+) devices`, sum)[0]);
    let length = 30;
    while (2 ** (32 - length) - 2 < count) length -= 1;
    return `/${length}`;
  },
  inside: (sum) => {
    const [own = "", length = "", other = ""] = groups(
      `is ${ADDRESS}/(\\d+)\\. Does it reach ${ADDRESS}`,
      sum,
    );
    const cut = (address: string) => asBits(read(address)).slice(0, Number(length));
    return cut(own) === cut(other) ? "yes" : "no";
  },
  after: (sum) => {
    const [address = "", length = ""] = groups(`after ${ADDRESS}/(\\d+)\\?`, sum);
    const next = ofBits(asBits(read(address)).slice(0, Number(length)).padEnd(32, "1")) + 1;
    return `${formatAddress((next % 2 ** 32) as Ipv4)}/${length}`;
  },
  split: (sum) => {
    const [to = "", from = ""] = groups(`many /(\\d+) networks are in a /(\\d+)`, sum);
    let count = 1;
    for (let length = Number(from); length < Number(to); length += 1) count += count;
    return String(count);
  },
  pool: (sum) => {
    const [first = "", last = ""] = groups(`from ${ADDRESS} to ${ADDRESS}`, sum);
    const [from = "", to = ""] = sum.question.includes("without")
      ? groups(`without ${ADDRESS} to ${ADDRESS}`, sum)
      : [];
    let count = 0;
    for (let address = read(first); address <= read(last); address += 1)
      if (from === "" || address < read(from) || address > read(to)) count += 1;
    return String(count);
  },
  poolEnd: (sum) => {
    const [first = "", count = ""] = groups(`at ${ADDRESS} and is to give (\\d+)`, sum);
    let last = read(first);
    for (let given = 1; given < Number(count); given += 1) last += 1;
    return formatAddress(last as Ipv4);
  },
  ports: (sum) => {
    const [all = "", runs = "", what = ""] = groups(
      `with (\\d+) ports, these are in use: ([^.]+)\\. How many are (\\w+)`,
      sum,
    );
    const used = new Set<number>();
    for (const run of runs.split(", ")) {
      const [from = 0, to = from] = run.split(" to ").map(Number);
      for (let port = from; port <= to; port += 1) used.add(port);
    }
    return String(what === "free" ? Number(all) - used.size : used.size);
  },
  sixty: (sum) => {
    let count = 1;
    for (let length = Number(groups(`given a /(\\d+)`, sum)[0]); length < 64; length += 1) count += count;
    return String(count);
  },
};

test.each(KINDS)(
  "%s: every sum's answer is what its twin counts, is taken as right, and is worked out",
  (kind) => {
    for (const seed of SEEDS) {
      const sum = makeSum(kind, seed);
      expect([sum.kind, sum.question, sum.answer]).toEqual([kind, sum.question, TWINS[kind](sum)]);
      expect(sum.isRight(sum.answer)).toBe(true);
      expect(sum.isRight(`  ${sum.answer} `)).toBe(true);
      expect(sum.working.at(-1)).toContain(kind === "inside" ? "" : sum.answer.replace(/^\//, ""));
    }
  },
);

test.each(KINDS)("%s: another answer is wrong, and what is none is not taken for one", (kind) => {
  for (const seed of SEEDS.slice(0, 30)) {
    const sum = makeSum(kind, seed);
    const other = SEEDS.map((seed) => makeSum(kind, seed).answer).find((answer) => answer !== sum.answer);
    expect(sum.isRight(must(other, "another answer"))).toBe(false);
    for (const none of ["", "abc", "1.2.3", "10.0.0.1 or so", "-"]) expect(sum.isRight(none)).toBeNull();
  }
});

test("without a kind all of them come, and neighbouring rounds are not alike", () => {
  const sums = Array.from({ length: 300 }, (_, seed) => makeSum(null, 5000 + seed));
  expect(new Set(sums.map(({ kind }) => kind)).size).toBe(KINDS.length);
  expect(new Set(sums.map(({ question }) => question)).size).toBeGreaterThan(230);
});

test("numbers with gaps, lengths with or without a slash, a network only without host bits", () => {
  const hosts = makeSum("hosts", 3);
  expect(hosts.isRight(Number(hosts.answer).toLocaleString("en"))).toBe(true);
  const length = makeSum("smallest", 3);
  expect(length.isRight(length.answer.slice(1))).toBe(true);
  const network = makeSum("network", 3);
  const [, address = "", bits = ""] = must(/is (\S+)\/(\d+) in/.exec(network.question), "the question");
  expect(network.isRight(`${address}/${bits}`)).toBe(network.answer === `${address}/${bits}`);
});
