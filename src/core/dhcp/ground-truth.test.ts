import { readFileSync } from "node:fs";
import {
  formatAddress,
  inRange,
  ipv4,
  parsePrefix,
  asPrefix4,
  type Address,
  type Ipv4,
  type Mac,
} from "../address";
import { listFindings, runChecks } from "../checks";
import { must } from "../kernel";
import { PlanIndex, type Scope } from "../plan";
import {
  aDevice,
  aDomain,
  aHost,
  anInterface,
  aScope,
  aSegment,
  aZone,
  planWith,
  testId,
} from "../testing/build-plan";
import { ip, mac } from "../testing/written";
import { keptInPool, leasableCount, offeredRanges, offerTo } from "./scope-room";

// What a real server gave, case by case: which addresses it has to lease, who gets a reserved one, and what
// each client got in the order in which they came, asked for an address by number and went. Which free
// address a server chooses is its own affair.

interface Case {
  readonly name: string;
  readonly prefix: string;
  readonly serverAddress: string;
  readonly pools: readonly { start: string; end: string }[];
  readonly reservations: readonly { mac: string; address: string }[];
  readonly clients: readonly { mac: string; request?: string; action?: string }[];
  readonly expect: {
    readonly configRefused?: boolean;
    readonly granted: number;
    readonly refused: number;
    readonly refusedClients: readonly string[];
    readonly sequence?: readonly (string | null)[];
    readonly dynamicAddresses: readonly string[];
    readonly reservations: readonly { mac: string; address: string; asked: boolean; honoured: boolean }[];
  };
}

const CASES = JSON.parse(readFileSync("tests/oracle/dhcp/cases.json", "utf8")) as Case[];

function planned(of: Case): { index: PlanIndex; scope: Scope } {
  const gateway = aDevice({ name: "Gateway", kind: "gateway" });
  const leg = anInterface({
    device: gateway.id,
    name: "leg",
    segment: testId("segment", "S"),
    addresses4: [ip(of.serverAddress)],
  });
  const scope = aScope({
    segment: testId("segment", "S"),
    serverDevice: gateway.id,
    pools: of.pools.map(({ start, end }) => ({ first: ip(start), last: ip(end) })),
  });
  const plan = planWith({
    domain: [aDomain()],
    zone: [aZone()],
    device: [gateway],
    interface: [leg],
    scope: [scope],
    segment: [
      aSegment({
        name: "S",
        prefixes4: [must(asPrefix4(parsePrefix(of.prefix)), of.prefix)],
        gatewayInterface: leg.id,
      }),
    ],
    host: of.reservations.map((r, i) =>
      aHost({
        name: `R${i}`,
        mac: mac(r.mac),
        manner: "reserved",
        ipv4: ip(r.address),
        segment: testId("segment", "S"),
      }),
    ),
  });
  return { index: PlanIndex.of(plan), scope };
}

test("there are cases", () => expect(CASES.length).toBeGreaterThan(10));

test.each(CASES.filter((c) => c.expect.configRefused !== true).map((c) => [c.name, c] as const))(
  "%s",
  (_, of) => {
    const { index, scope } = planned(of);
    const kept = new Set(keptInPool(index, scope));
    const leasable = (address: Ipv4) =>
      offeredRanges(scope).some((range) => inRange(range, address)) &&
      !kept.has(address) &&
      address !== ip(of.serverAddress);
    for (const address of of.expect.dynamicAddresses)
      expect([address, leasable(ip(address))]).toEqual([address, true]);
    // Once clients were turned away, what was given is all there was to give.
    if (of.expect.refused > 0)
      expect(Number(leasableCount(index, scope))).toBe(of.expect.dynamicAddresses.length);
    for (const reservation of of.expect.reservations.filter((r) => r.asked)) {
      const offer = offerTo(index, scope, { mac: mac(reservation.mac) });
      expect(offer?.reserved === true && offer.address === ip(reservation.address)).toBe(
        reservation.honoured,
      );
    }
    const stranger = offerTo(index, scope, { mac: mac("02:cc:00:00:00:99") });
    expect(stranger === null ? 0 : 1).toBe(leasableCount(index, scope) > 0n ? 1 : 0);
    if (stranger !== null)
      expect([stranger.reserved, leasable(must(ipv4(Number(stranger.address)), "IPv4"))]).toEqual([
        false,
        true,
      ]);
  },
);

test.each(CASES.filter((c) => c.expect.configRefused !== true).map((c) => [c.name, c] as const))(
  "%s: clients one after another",
  (_, of) => {
    const { index, scope } = planned(of);
    const leases = new Map<Mac, Address>();
    const given = of.clients.map((client): Address | null => {
      const who = mac(client.mac);
      if (client.action === "release") {
        leases.delete(who);
        return null;
      }
      const offer = offerTo(index, scope, {
        mac: who,
        leases,
        asked: client.request === undefined ? null : ip(client.request),
      });
      if (offer !== null && !offer.reserved) leases.set(who, offer.address);
      return offer?.address ?? null;
    });
    const asked = of.clients
      .map((client, i) => ({ client, address: given[i] ?? null }))
      .filter(({ client }) => client.action === undefined);
    expect(asked.filter(({ address }) => address === null).map(({ client }) => client.mac)).toEqual(
      of.expect.refusedClients,
    );
    expect([asked.filter(({ address }) => address !== null).length, of.expect.refused]).toEqual([
      of.expect.granted,
      of.expect.refusedClients.length,
    ]);
    const dynamic = new Set(
      asked.flatMap(({ client, address }) =>
        address === null || of.expect.reservations.some((r) => r.mac === client.mac && r.honoured)
          ? []
          : [address],
      ),
    );
    expect(dynamic.size).toBe(of.expect.dynamicAddresses.length);
    if (of.expect.refused > 0)
      expect([...dynamic].map(formatAddress).sort()).toEqual([...of.expect.dynamicAddresses].sort());
    const { sequence } = of.expect;
    for (const [i, got] of (sequence ?? []).entries()) {
      const { request } = of.clients[i] ?? {};
      // Judged where the server has no choice: what was asked for by number, what equals an earlier step, and
      // nothing at all.
      if (got === null || got === request)
        expect([i, given[i] === null ? null : formatAddress(must(given[i] ?? null, "an address"))]).toEqual([
          i,
          got,
        ]);
      const before = sequence?.indexOf(got) ?? -1;
      if (before >= 0 && before < i) expect([i, given[i]]).toEqual([i, given[before]]);
    }
  },
);

test.each(CASES.filter((c) => c.expect.configRefused === true).map((c) => [c.name, c] as const))(
  "%s: what a server refuses to start with is a stop here",
  (_, of) => {
    expect(
      listFindings(runChecks(planned(of).index))
        .filter((f) => f.severity === "stop")
        .map((f) => f.code),
    ).toContain("address-twice");
  },
);
