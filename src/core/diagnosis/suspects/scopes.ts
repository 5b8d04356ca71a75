import { formatAddress, type Ipv4 } from "../../address";
import { nameOf, type Device, type PlanIndex, type Scope, type Segment } from "../../plan";
import { serverOf } from "../../probe";
import type { Look } from "../asks";
import { beside, edited, editedSomehow, type Suspect } from "../suspect";
import { furtherOn, nextTo, ofAnotherSubnet } from "./wrong-address";

/** Where what a server gives is looked up. */
export const seenAtServer = ({ serverDevice, serverHost }: Scope): Look[] => {
  if (serverDevice !== null) return [{ on: "device", device: serverDevice }];
  return serverHost === null ? [] : [{ on: "host", host: serverHost }];
};

/** A scope with what is said of every fault of it. */
interface Served {
  readonly scope: Scope;
  readonly segment: Segment;
  readonly server: string;
  readonly told: Pick<Suspect, "subjects" | "seenAt">;
  /** How it is entered again. */
  readonly again: string;
}

/** A pool that was entered wrong: somewhere else in its subnet, or in another one. */
function wrongPools({ scope, segment, told, again }: Served): Suspect[] {
  const [pool] = scope.pools;
  if (pool === undefined || typeof pool.first !== "number") return [];
  const moved = [
    [furtherOn(pool.first), "its subnet"],
    [ofAnotherSubnet(pool.first), "another subnet"],
  ] as const;
  return moved.map(([first, where]) =>
    editedSomehow(
      {
        id: `pool in ${where} ${scope.id}`,
        kind: "pool",
        words: `The pool of ${segment.name} is entered wrong: elsewhere in ${where}`,
        mend: again,
        ...told,
      },
      (edits) => edits.patch("scope", scope.id, { pools: [{ first, last: first }] }),
    ),
  );
}

/** The scope stands on a device that it was not meant for. */
const elsewhere = (devices: readonly Device[], { scope, segment, server, told }: Served): Suspect[] =>
  devices.flatMap(({ id, name }) =>
    id === scope.serverDevice
      ? []
      : [
          edited(
            {
              id: `server ${scope.id} ${id}`,
              kind: "server",
              words: `DHCP for ${segment.name} is set up on ${name}, not on ${server}`,
              mend: `Take DHCP for ${segment.name} off ${name}, enter it on ${server}, and save both.`,
              subjects: [...told.subjects, { kind: "device", id }],
              seenAt: [...told.seenAt, { on: "device", device: id }],
            },
            (edits) => edits.patch("scope", scope.id, { serverDevice: id, serverHost: null }),
          ),
        ],
  );

/** No server, or one that has nothing left to give. */
const notGiven = ({ scope, segment: { name }, server, told }: Served): Suspect[] => [
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
];

/** An option that contradicts what the scope says (RFC 2132): 3 is the gateway, 6 the name servers. */
const withOption = ({ scope, told, again }: Served, code: 3 | 6, value: string, words: string): Suspect =>
  editedSomehow({ id: `option ${code} ${scope.id}`, kind: "given", words, mend: again, ...told }, (edits) =>
    edits.patch("scope", scope.id, { options: [...scope.options, { code, name: "entered", value }] }),
  );

/** Of a documentation range (RFC 5737): a name server that the site does not have. */
const ANOTHER_NAME_SERVER = "198.51.100.53";

function givenWrong(index: PlanIndex, served: Served): Suspect[] {
  const { name } = served.segment;
  const gateway: Ipv4 | undefined = index.gatewayOf(served.segment)?.addresses4[0];
  const dns = withOption(served, 6, ANOTHER_NAME_SERVER, `DHCP for ${name} names another name server`);
  if (gateway === undefined) return [dns];
  const words = `DHCP for ${name} names another gateway than ${formatAddress(gateway)}`;
  return [dns, withOption(served, 3, formatAddress(nextTo(gateway)), words)];
}

/** What can be wrong with what one server gives in a segment; `devices` could have its scope instead. */
export function scopeSuspects(index: PlanIndex, scope: Scope, devices: readonly Device[]): Suspect[] {
  const segment = index.plan.segment.get(scope.segment);
  if (segment === undefined || scope.family !== 4) return [];
  const server = serverOf(index, scope);
  const served: Served = {
    scope,
    segment,
    server,
    told: {
      subjects: [
        { kind: "scope", id: scope.id },
        { kind: "segment", id: scope.segment },
      ],
      seenAt: seenAtServer(scope),
    },
    again: `Enter the scope of ${segment.name} on ${server} as its sheet says, and save.`,
  };
  return [
    ...notGiven(served),
    ...elsewhere(devices, served),
    ...wrongPools(served),
    ...givenWrong(index, served),
  ];
}

/** Somebody else's DHCP server in a segment: it gives addresses that are none of the site's. */
export function secondServer(index: PlanIndex, id: string): Suspect {
  const name = nameOf(index, "segment", id);
  return beside(
    {
      id: `second ${id}`,
      kind: "secondServer",
      words: `A second DHCP server answers in ${name}`,
      mend: `Find who answers in ${name} beside its server, by its MAC address, and take it out.`,
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
