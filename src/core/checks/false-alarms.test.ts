import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { must } from "../kernel";
import { PlanIndex, type CollectionKind, type PlanEdits, type EntityOf, type Plan } from "../plan";
import { deviceData, deviceSteps } from "../device-sheet";
import { afterEdit, donePlan } from "../testing/after-edit";
import { testId } from "../testing/build-plan";
import { ip, v } from "../testing/written";
import { listFindings, runChecks, sentenceOf } from "./registry";

// What a person would have to explain away is worse than no finding at all.

const find = <K extends CollectionKind>(edits: PlanEdits, kind: K, name: string): EntityOf<K> =>
  must(
    edits.all(kind).find((entity) => "name" in entity && entity.name === name),
    name,
  );
const after = (edit: (edits: PlanEdits) => void): Plan =>
  donePlan(afterEdit(lockkeepersHouse(), ({ edits }) => edit(edits)));
const said = (plan: Plan, code: string): string[] => {
  const index = PlanIndex.of(plan, "2026-11-27");
  return listFindings(runChecks(index))
    .filter((finding) => finding.code === code)
    .map((finding) => sentenceOf(finding, index));
};
const scopeIn = (edits: PlanEdits, segment: string) =>
  must(
    edits.all("scope").find((scope) => scope.segment === find(edits, "segment", segment).id),
    segment,
  );

test("two scopes of one server are one server's offer", () => {
  const split = after((edits) => {
    const scope = scopeIn(edits, "Studio");
    edits.put("scope", {
      ...scope,
      id: testId("scope", "second"),
      pools: [{ first: ip("172.19.30.120"), last: ip("172.19.30.130") }],
    });
  });
  expect(said(split, "two-address-servers")).toEqual([]);
});

test("one name server that can be asked is enough", () => {
  const told = (dns: readonly string[]) =>
    said(
      after((edits) => edits.patch("segment", find(edits, "segment", "Visitors").id, { dns: dns.map(ip) })),
      "names-behind-wall",
    );
  expect(told(["172.19.20.9"])).toHaveLength(1);
  expect(told(["172.19.20.9", "172.19.60.1"])).toEqual([]);
});

test("a rescue port misses no gateway, and a segment with a leg in it is told of that leg", () => {
  const without = (purpose: "segment" | "wayBack") =>
    said(
      after((edits) => {
        const segment = find(edits, "segment", "Kit");
        edits.patch("vlan", must(segment.vlan, "its VLAN"), { purpose });
        edits.patch("segment", segment.id, { gatewayInterface: null, planned: 3 });
      }),
      "gateway-missing",
    );
  expect(without("wayBack")).toEqual([]);
  expect(without("segment")).toEqual([
    expect.stringMatching(
      /^Kit has no gateway: clients are told of none, though .*Gateway.* (has a leg|have legs) in it\.$/,
    ),
  ]);
});

test("where only a layer-3 switch routes, a segment without a gateway is found", () => {
  const inner = after((edits) => {
    const gateway = find(edits, "device", "Gateway");
    for (const leg of edits.all("interface").filter((leg) => leg.line !== null))
      edits.remove("interface", leg.id);
    edits.patch("device", gateway.id, { kind: "switch", abilities: { ...gateway.abilities, routes: true } });
    edits.patch("segment", find(edits, "segment", "Studio").id, { gatewayInterface: null });
  });
  expect(said(inner, "gateway-missing")).toEqual([expect.stringMatching(/^Studio has no gateway/)]);
});

test("a VLAN that a device has without a name of its own bears no other name", () => {
  const nameless = after(
    (edits) =>
      void edits.put("deviceVlan", {
        id: testId("deviceVlan", "one"),
        device: find(edits, "device", "Hall switch").id,
        vid: v(20),
        name: "",
      }),
  );
  expect(said(nameless, "vlan-name-differs")).toEqual([]);
});

test("inspection sees clients behind an unmanaged switch by their leases, and wants no trust", () => {
  const watched = after((edits) => {
    const hall = find(edits, "device", "Hall switch");
    edits.patch("device", hall.id, {
      protections: { ...hall.protections, snooping: [v(30)], arpInspection: [v(30)] },
    });
    for (const port of edits
      .all("port")
      .filter((port) => port.device === hall.id && ["1", "2", "3"].includes(port.label)))
      edits.patch("port", port.id, { guards: { ...port.guards, arpTrust: true, dhcpTrust: true } });
  });
  expect(said(watched, "inspection-kills-hosts")).toEqual([]);
});

test("a router's sheet does not tell it to ask itself, and a support date long past is told as past", () => {
  const old = after((edits) =>
    edits.patch("device", find(edits, "device", "Gateway").id, { supportUntil: "2025-06-30" }),
  );
  const index = PlanIndex.of(old, "2026-11-27");
  const gateway = must(
    [...old.device.values()].find((device) => device.name === "Gateway"),
    "the gateway",
  );
  const own = index.interfacesOf(gateway.id).flatMap((leg) => leg.addresses4.map(String));
  expect(deviceData(index, gateway).management?.dns.filter((address) => own.includes(address))).toEqual([]);
  expect(JSON.stringify(deviceSteps(deviceData(index, gateway)))).toContain("support ended on 2025-06-30");
});
