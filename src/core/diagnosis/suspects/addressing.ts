import { formatAddress, type Ipv4 } from "../../address";
import { nameOf, type PlanIndex, type Scope } from "../../plan";
import { serverOf } from "../../probe";
import type { Sight } from "../sight";
import { beside, edited, editedSomehow, type Suspect } from "../suspect";
import type { Look } from "../asks";

const seenAtServer = ({ serverDevice, serverHost }: Scope): Look[] => {
  if (serverDevice !== null) return [{ on: "device", device: serverDevice }];
  return serverHost === null ? [] : [{ on: "host", host: serverHost }];
};

/** A pool that was entered wrong: somewhere else in its subnet, or in another one. */
function wrongPool(
  scope: Scope,
  name: string,
  mend: string,
  told: Pick<Suspect, "subjects" | "seenAt">,
): Suspect[] {
  const [pool] = scope.pools;
  if (pool === undefined) return [];
  const moved = (bits: number) => {
    const first = ((Number(pool.first) ^ bits) >>> 0) as Ipv4;
    return [{ first, last: first }];
  };
  return (
    [
      [OTHER_END, "its subnet"],
      [OTHER_SUBNET, "another subnet"],
    ] as const
  ).map(([bits, where]) =>
    editedSomehow(
      {
        id: `pool in ${where} ${scope.id}`,
        kind: "pool",
        words: `The pool of ${name} is entered wrong: elsewhere in ${where}`,
        mend,
        ...told,
      },
      (edits) => edits.patch("scope", scope.id, { pools: moved(bits) }),
    ),
  );
}
/** What moves an address to the other end of its subnet, and into another one. */
const OTHER_END = 0x8;
const OTHER_SUBNET = 0x0000_4000;

/** The scope stands on a device that it was not meant for. */
const elsewhere = (index: PlanIndex, scope: Scope, name: string): Suspect[] =>
  [...index.plan.device.values()].flatMap((device) =>
    device.id === scope.serverDevice
      ? []
      : [
          edited(
            {
              id: `server ${scope.id} ${device.id}`,
              kind: "server",
              words: `DHCP for ${name} is set up on ${device.name}, not on ${serverOf(index, scope)}`,
              mend: `Take DHCP for ${name} off ${device.name}, enter it on ${serverOf(index, scope)}, and save both.`,
              subjects: [
                { kind: "scope", id: scope.id },
                { kind: "segment", id: scope.segment },
                { kind: "device", id: device.id },
              ],
              seenAt: [...seenAtServer(scope), { on: "device", device: device.id }],
            },
            (edits) => edits.patch("scope", scope.id, { serverDevice: device.id, serverHost: null }),
          ),
        ],
  );

/** An address of its segment that is not the gateway's. */
const besideGateway = (gateway: Ipv4): Ipv4 => (gateway ^ 1) as Ipv4;

function scopeSuspects(index: PlanIndex, scope: Scope): Suspect[] {
  const segment = index.plan.segment.get(scope.segment);
  if (segment === undefined || scope.family !== 4) return [];
  const [name, server] = [segment.name, serverOf(index, scope)];
  const subjects = [
    { kind: "scope" as const, id: scope.id },
    { kind: "segment" as const, id: scope.segment },
  ];
  const told = { subjects, seenAt: seenAtServer(scope) };
  const gateway = index.gatewayOf(segment)?.addresses4[0];
  const again = `Enter the scope of ${name} on ${server} as its sheet says, and save.`;
  return [
    edited(
      {
        id: `server ${scope.id}`,
        kind: "server",
        words: `DHCP for ${name} is off on ${server}`,
        mend: `Switch DHCP for ${name} on ${server} on, and save.`,
        ...told,
      },
      (edits) => edits.remove("scope", scope.id),
    ),
    edited(
      {
        id: `pool ${scope.id}`,
        kind: "pool",
        words: `No address of the pool of ${name} is left to give`,
        mend: `Look which leases ${server} holds for ${name}; clear dead ones, or enlarge the pool.`,
        ...told,
      },
      (edits) => edits.patch("scope", scope.id, { exclusions: scope.pools }),
    ),
    ...elsewhere(index, scope, segment.name),
    ...wrongPool(scope, name, again, told),
    editedSomehow(
      {
        id: `dns ${scope.id}`,
        kind: "given",
        words: `DHCP for ${name} names another name server`,
        mend: again,
        ...told,
      },
      (edits) =>
        edits.patch("scope", scope.id, {
          options: [...scope.options, { code: 6, name: "DNS servers", value: "198.51.100.53" }],
        }),
    ),
    ...(gateway === undefined
      ? []
      : [
          editedSomehow(
            {
              id: `router ${scope.id}`,
              kind: "given",
              words: `DHCP for ${name} names another gateway than ${formatAddress(gateway)}`,
              mend: again,
              ...told,
            },
            (edits) =>
              edits.patch("scope", scope.id, {
                options: [
                  ...scope.options,
                  { code: 3, name: "gateway", value: formatAddress(besideGateway(gateway)) },
                ],
              }),
          ),
        ]),
  ];
}

/** Somebody else's DHCP server in a segment: it gives addresses that are none of the site's. */
function secondServer(index: PlanIndex, id: string): Suspect {
  const name = nameOf(index, "segment", id);
  return beside(
    {
      id: `second ${id}`,
      kind: "secondServer",
      words: `A second DHCP server answers in ${name}`,
      mend: `Find who answers in ${name} beside its server, by its MAC address in the switches' tables, and take it out.`,
      subjects: [{ kind: "segment", id }],
    },
    {
      reads: (question, expected) =>
        question.goal.to === "address" && expected.is === "lease" && expected.segment === id
          ? { ...expected, segment: null, address: null, ranges: [], gateway: null, dns: [] }
          : expected,
    },
  );
}

function segmentSuspects(index: PlanIndex, id: string): Suspect[] {
  const segment = index.plan.segment.get(id);
  if (segment === undefined) return [];
  const { name } = segment;
  const relays = index.interfacesIn(id).filter(({ relayTo }) => relayTo !== null);
  const scopes = index.scopesOf(id);
  const legs = index.interfacesIn(id);
  return [
    ...scopes.flatMap((scope) => scopeSuspects(index, scope)),
    ...(scopes.length === 0 ? [] : [secondServer(index, id)]),
    ...relays.map((leg) =>
      edited(
        {
          id: `relay ${leg.id}`,
          kind: "relay",
          words: `${nameOf(index, "device", leg.device)} relays no DHCP from ${name}`,
          mend: `Enter the relay for ${name} on ${nameOf(index, "device", leg.device)}, and save.`,
          subjects: [
            { kind: "interface", id: leg.id },
            { kind: "segment", id },
          ],
          seenAt: [{ on: "device", device: leg.device }],
        },
        (edits) => edits.patch("interface", leg.id, { relayTo: null }),
      ),
    ),
    ...(segment.gatewayInterface === null
      ? []
      : [
          edited(
            {
              id: `no router ${id}`,
              kind: "given",
              words: `Nobody in ${name} is given a gateway`,
              mend: `Enter the gateway of ${name} in its DHCP scope, and save.`,
              subjects: [{ kind: "segment", id }],
              seenAt: scopes.flatMap(seenAtServer),
            },
            (edits) => edits.patch("segment", id, { gatewayInterface: null }),
          ),
        ]),
    ...legs.flatMap((leg) =>
      leg.addresses4.length === 0
        ? []
        : [
            edited(
              {
                id: `leg ${leg.id}`,
                kind: "gear",
                words: `${nameOf(index, "device", leg.device)} has no address in ${name}`,
                mend: `Enter ${leg.addresses4.map(formatAddress).join(", ")} on ${nameOf(index, "device", leg.device)} for ${name}, and save.`,
                subjects: [
                  { kind: "interface", id: leg.id },
                  { kind: "device", id: leg.device },
                  { kind: "segment", id },
                ],
                seenAt: [{ on: "device", device: leg.device }],
              },
              (edits) => edits.patch("interface", leg.id, { addresses4: [] }),
            ),
          ],
    ),
  ];
}

/** What can be wrong with addresses, who gives them and who routes them. */
export const addressingSuspects = (index: PlanIndex, { segments }: Sight): Suspect[] =>
  [...segments].flatMap((id) => segmentSuspects(index, id));
