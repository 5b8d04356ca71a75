import { ipv4, prefixOf } from "../src/core/address";
import { must } from "../src/core/kernel";
import { NO_GUARDS, PlanIndex, vid, type Device, type Plan } from "../src/core/plan";
import { anInterface, aPort, aSegment, aVlan, testId } from "../src/core/testing/build-plan";

const KIT = must(vid(4000), "a VLAN ID");
const FIRST = 10 * 2 ** 24 + 250 * 2 ** 16;
const idOf = (kind: string, of: string) => testId(kind, `administered ${of}`);

/**
 * A plan whose switches can be administered, as those of a real site: a network of their own, tagged on every
 * cable between them, with an address for each, and one port of all gear kept aside.
 */
export function administered(plan: Plan): Plan {
  const [zone] = plan.zone.values();
  const [domain] = plan.domain.values();
  const prefix = prefixOf(must(ipv4(FIRST), "an address"), 16);
  const devices = [...plan.device.values()];
  const [gateway, ...switches] = devices.sort((a, b) => Number(isSwitch(a)) - Number(isSwitch(b)));
  const kit = aVlan({ id: idOf("vlan", ""), name: "Kit", vid: KIT, domain: must(domain, "a domain").id });
  const leg = ({ id }: Device, at: number) =>
    anInterface({
      id: idOf("interface", id),
      device: id,
      segment: idOf("segment", ""),
      name: "Kit",
      addresses4: [must(ipv4(FIRST + 1 + at), "an address")],
    });
  const legs = [must(gateway, "a gateway"), ...switches].map(leg);
  const segment = aSegment({
    id: idOf("segment", ""),
    name: "Kit",
    zone: must(zone, "a zone").id,
    vlan: kit.id,
    prefixes4: prefix?.family === 4 ? [prefix] : [],
    management: true,
    gatewayInterface: must(legs[0], "the gateway's").id,
  });
  const index = PlanIndex.of(plan);
  const trunks = [...plan.port.values()].flatMap((port) =>
    index.linkAt(port.id) === undefined ? [] : [{ ...port, tagged: [...port.tagged, KIT] }],
  );
  const aside = devices.map(({ id }) =>
    aPort({
      id: idOf("port", id),
      device: id,
      label: "Kit",
      position: 90,
      pvid: KIT,
      untagged: [KIT],
      guards: NO_GUARDS,
    }),
  );
  const withAll = <T extends { readonly id: string }>(all: ReadonlyMap<string, T>, more: readonly T[]) =>
    new Map([...all, ...more.map((spread) => [spread.id, spread] as const)]);
  return {
    ...plan,
    vlan: withAll(plan.vlan, [kit]),
    segment: withAll(plan.segment, [segment]),
    interface: withAll(plan.interface, legs),
    port: withAll(plan.port, [...trunks, ...aside]),
  };
}

const isSwitch = ({ name }: Device): boolean => name.startsWith("Switch");
