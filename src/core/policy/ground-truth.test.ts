import { readFileSync } from "node:fs";
import { formatAddress, parseAddress } from "../address";
import { must } from "../kernel";
import { prefix as net } from "../testing/written";
import { send, sendBack, type FilteringRouter } from "./gateway";
import type { FilterRule } from "./filter";
import type { Packet } from "./packet";

interface Probe {
  readonly from: { segment: string; address: string };
  readonly to: { address: string };
  readonly proto: Packet["protocol"];
  readonly dport: number | null;
  readonly sport: number | null;
  readonly replyKind?: string;
  readonly expect: {
    delivered: boolean;
    decidedBy: number | string;
    rejected?: boolean;
    reply?: boolean;
    replyDecidedBy?: number | string;
    arrivedAt?: { segment: string; address: string; port: number | null };
    seenSource?: string;
    replySource?: string;
    replySourcePort?: number;
  };
}
interface Case {
  readonly name: string;
  readonly family: "ipv4" | "ipv6";
  readonly segments: { id: string; prefix: string; routerAddress: string }[];
  readonly internet: { address: string } | null;
  readonly established: boolean;
  readonly defaultForward: FilterRule["action"];
  readonly defaultInput: FilterRule["action"];
  readonly probes: Probe[];
  readonly rules: {
    from: string;
    to: string;
    src: string[] | null;
    dst: string[] | null;
    proto: Packet["protocol"] | "any";
    dports: [number, number][] | null;
    action: FilterRule["action"];
  }[];
  readonly nat?: {
    masqueradeFrom: string[];
    portForwards: {
      proto: "tcp" | "udp";
      ports: [number, number];
      toAddress: string;
      toPort: number | null;
    }[];
    hairpin: boolean;
  };
}

const read = (name: string) => JSON.parse(readFileSync(`tests/oracle/filter/${name}.json`, "utf8")) as Case[];
const cases = [...read("filter"), ...read("nat")];
const ip = (text: string) => must(parseAddress(text), text);
const nets = (texts: string[] | null) => texts?.map(net) ?? null;

const routerOf = (of: Case): FilteringRouter => ({
  networks: of.segments.map(({ id, prefix, routerAddress }) => ({
    name: id,
    prefixes: [net(prefix)],
    addresses: [ip(routerAddress)],
  })),
  uplink: of.internet === null ? null : { name: "internet", addresses: [ip(of.internet.address)] },
  filter: {
    rules: of.rules.map(({ from, to, src, dst, proto, dports, action }) => ({
      from: [{ network: from, prefixes: nets(src) }],
      to: [{ network: to, prefixes: nets(dst) }],
      services: [{ protocol: proto, ports: dports }],
      action,
    })),
    established: of.established,
    forwardDefault: of.defaultForward,
    inputDefault: of.defaultInput,
  },
  translates: of.nat?.masqueradeFrom ?? [],
  forwards: (of.nat?.portForwards ?? []).map(({ proto, ports, toAddress, toPort }) => ({
    protocol: proto,
    ports,
    toAddress: ip(toAddress),
    toPort,
  })),
  hairpin: of.nat?.hairpin ?? false,
});

test("the recorded lists were read", () => {
  expect(cases.length).toBeGreaterThan(50);
  expect(cases.flatMap((of) => of.probes).length).toBeGreaterThan(900);
});

test.each(cases.map((of) => [of.name, of] as const))(
  "%s: every packet is decided as the real filter decided it",
  (_, of) => {
    const router = routerOf(of);
    for (const probe of of.probes) {
      const sent: Packet = {
        family: of.family === "ipv4" ? 4 : 6,
        protocol: probe.proto,
        src: ip(probe.from.address),
        dst: ip(probe.to.address),
        sport: probe.sport,
        dport: probe.dport,
      };
      const passage = send(router, probe.from.segment, sent);
      const asked = `${probe.from.address} to ${probe.to.address} ${probe.proto} ${probe.dport}`;
      expect([asked, passage.to !== null, passage.by, passage.rejected]).toEqual([
        asked,
        probe.expect.delivered,
        probe.expect.decidedBy,
        probe.expect.rejected ?? false,
      ]);
      if (probe.expect.arrivedAt !== undefined) {
        const { arrived } = passage;
        expect([
          asked,
          passage.to,
          formatAddress(must(arrived, "it arrived").dst),
          arrived?.dport ?? null,
        ]).toEqual([
          asked,
          probe.expect.arrivedAt.segment,
          probe.expect.arrivedAt.address,
          probe.expect.arrivedAt.port,
        ]);
        expect([asked, formatAddress(must(arrived, "it arrived").src)]).toEqual([
          asked,
          probe.expect.seenSource,
        ]);
      }
      if (probe.expect.reply === undefined) continue;
      const back = sendBack(router, passage, probe.replyKind === undefined ? "answer" : "error");
      expect([asked, back.returns, back.by]).toEqual([
        asked,
        probe.expect.reply,
        probe.expect.replyDecidedBy ?? null,
      ]);
      if (probe.expect.replySource !== undefined)
        expect([asked, formatAddress(must(back.seen, "an answer").src)]).toEqual([
          asked,
          probe.expect.replySource,
        ]);
      if (probe.expect.replySourcePort !== undefined)
        expect([asked, back.seen?.sport]).toEqual([asked, probe.expect.replySourcePort]);
    }
  },
);
