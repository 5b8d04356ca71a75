import { formatAddress, ipv4 as ipv4Of, type Ipv4 } from "../../address";
import { must } from "../../kernel";
import type { Host, PlanIndex } from "../../plan";
import type { Sight } from "../sight";
import { nextTo, ofAnotherSubnet } from "./wrong-address";
import { beside, edited, editedSomehow, type Suspect } from "../suspect";

function wayOut(index: PlanIndex, { id, name, segment: own }: Host, ipv4: Ipv4): Suspect {
  const segment = index.plan.segment.get(own ?? "");
  const gateway = segment === undefined ? undefined : index.gatewayOf(segment)?.addresses4[0];
  const right = gateway === undefined ? "no gateway" : formatAddress(gateway);
  return editedSomehow(
    {
      id: `way out ${id}`,
      kind: "entered",
      words: `${name} has no gateway entered, or another`,
      mend: `Enter ${right} as gateway on ${name}.`,
      subjects: [{ kind: "host", id }],
      seenAt: [{ on: "host", host: id }],
    },
    (edits) => edits.patch("host", id, { gateway4: nextTo(gateway ?? ipv4) }),
  );
}

function enteredSuspects(index: PlanIndex, host: Host): Suspect[] {
  const { id, name, ipv4 } = host;
  const segment = index.plan.segment.get(host.segment ?? "");
  const told = { subjects: [{ kind: "host" as const, id }], seenAt: [{ on: "host" as const, host: id }] };
  if (host.manner !== "typed" || ipv4 === null) {
    const prefix = segment?.prefixes4[0];
    if (prefix === undefined) return [];
    return [
      editedSomehow(
        {
          id: `still ${id}`,
          kind: "entered",
          words: `${name} still has an address of its own entered, or an old lease`,
          mend: `Set ${name} to ask DHCP for its address, and let it ask anew.`,
          ...told,
        },
        (edits) =>
          edits.patch("host", id, {
            manner: "typed",
            ipv4: ofAnotherSubnet(must(ipv4Of(prefix.network + 9), "an address near its start")),
          }),
      ),
    ];
  }
  const own = formatAddress(ipv4);
  const mend = `Enter ${own} on ${name}.`;
  return [
    editedSomehow(
      {
        id: `subnet ${id}`,
        kind: "entered",
        words: `${name} has an address of another subnet, not ${own}`,
        mend,
        ...told,
      },
      (edits) => edits.patch("host", id, { ipv4: ofAnotherSubnet(ipv4) }),
    ),
    editedSomehow(
      {
        id: `typing ${id}`,
        kind: "entered",
        words: `${name} has another address of its subnet, not ${own}`,
        mend,
        ...told,
      },
      (edits) => edits.patch("host", id, { ipv4: nextTo(ipv4) }),
    ),
    ...asGateway(index, host),
    wayOut(index, host, ipv4),
    ...wrongMasks(index, host),
  ];
}

/** By so many bits a mask is taken to be too short or too long: an octet, as it is mistyped. */
const AN_OCTET = 8;
const [SHORTEST, LONGEST] = [8, 30];

/** A mask that makes strangers neighbours, or the gateway a stranger. */
function wrongMasks(index: PlanIndex, { id, name, length4, segment }: Host): Suspect[] {
  const own = length4 ?? index.plan.segment.get(segment ?? "")?.prefixes4[0]?.length;
  if (own === undefined) return [];
  const masks = [
    [Math.max(SHORTEST, own - AN_OCTET), "shorter"],
    [Math.min(LONGEST, own + AN_OCTET), "longer"],
  ] as const;
  return masks
    .filter(([length]) => length !== own)
    .map(([length, way]) =>
      editedSomehow(
        {
          id: `mask ${way} ${id}`,
          kind: "entered",
          words: `${name} has a ${way} mask entered than /${own}`,
          mend: `Enter the mask /${own} on ${name}.`,
          subjects: [{ kind: "host", id }],
          seenAt: [{ on: "host", host: id }],
        },
        (edits) => edits.patch("host", id, { length4: length }),
      ),
    );
}

/** A device that has the address of its gateway: whoever asks the gateway gets it. */
function asGateway(index: PlanIndex, { id, name, manner, ipv4, segment: own }: Host): Suspect[] {
  const segment = index.plan.segment.get(own ?? "");
  const gateway = segment === undefined ? undefined : index.gatewayOf(segment)?.addresses4[0];
  if (manner !== "typed" || ipv4 === null || gateway === undefined || gateway === ipv4) return [];
  return [
    edited(
      {
        id: `twice ${id}`,
        kind: "entered",
        words: `${name} has ${formatAddress(gateway)}, the address of the gateway`,
        mend: `Enter ${formatAddress(ipv4)} on ${name}.`,
        subjects: [{ kind: "host", id }],
        seenAt: [{ on: "host", host: id }],
      },
      (edits) => edits.patch("host", id, { ipv4: gateway }),
    ),
  ];
}

/** Devices with an address of one segment that all have the address of another of them. */
function twiceSuspects(index: PlanIndex, host: Host): Suspect[] {
  if (host.manner !== "typed" || host.segment === null || host.ipv4 === null) return [];
  const others = index
    .hostsIn(host.segment)
    .filter((other) => other.id !== host.id && other.ipv4 !== null && other.manner !== "dynamic");
  return others.flatMap((other): Suspect[] =>
    other.ipv4 === null
      ? []
      : [
          edited(
            {
              id: `as ${host.id} ${other.id}`,
              kind: "entered",
              words: `${host.name} has ${formatAddress(other.ipv4)}, the address of ${other.name}`,
              mend: `Enter ${formatAddress(host.ipv4 ?? other.ipv4)} on ${host.name}.`,
              subjects: [{ kind: "host", id: host.id }],
              seenAt: [{ on: "host", host: host.id }],
            },
            (edits) => edits.patch("host", host.id, { ipv4: other.ipv4 }),
          ),
        ],
  );
}

function otherSuspects(index: PlanIndex, host: Host): Suspect[] {
  const { id, name } = host;
  const subjects = [{ kind: "host" as const, id }];
  const segment = index.plan.segment.get(host.segment ?? "");
  const reserved = segment?.name ?? "its segment";
  const servers = index
    .scopesOf(host.segment ?? "")
    .flatMap(({ serverDevice }) => (serverDevice === null ? [] : [serverDevice]));
  return [
    ...(host.tag === null
      ? []
      : [
          edited(
            {
              id: `untagged ${id}`,
              kind: "tagging",
              words: `${name} sends without its tag`,
              mend: `Set VLAN ${host.tag} on ${name}, or let its port announce it.`,
              subjects: [
                ...subjects,
                ...(host.attachment.at === "port"
                  ? [{ kind: "port" as const, id: host.attachment.port }]
                  : []),
              ],
              seenAt: [{ on: "host", host: id }],
            },
            (edits) => edits.patch("host", id, { tag: null }),
          ),
        ]),
    ...(host.manner !== "reserved" || host.ipv4 === null
      ? []
      : [
          edited(
            {
              id: `reserved ${id}`,
              kind: "reservation",
              words: `The reservation for ${name} is missing, or is for another MAC address`,
              mend: `Compare the MAC address on ${name} with its reservation in ${reserved}.`,
              subjects,
              seenAt: servers.map((device) => ({ on: "device" as const, device })),
            },
            (edits) => edits.patch("host", id, { manner: "dynamic", ipv4: null }),
          ),
        ]),
  ];
}

const WIDER = ", for other subnets, too";
/** Its own firewall keeps others out: everybody, or those of other subnets only. */
function firewallSuspects(index: PlanIndex, { id, name, segment }: Host): Suspect[] {
  const told = (key: string, from: string) => ({
    id: `firewall ${key} ${id}`,
    kind: "ownFirewall" as const,
    words: `The own firewall of ${name} lets nobody in${from}`,
    mend: `Open what is asked for in the firewall of ${name} itself${from === "" ? "" : WIDER}.`,
    subjects: [{ kind: "host" as const, id }],
  });
  const why = "Its own firewall keeps it out.";
  const isBeside = (from: string) => index.plan.host.get(from)?.segment === segment;
  return [
    beside(told("all", ""), {
      reads: ({ goal }, expected) =>
        goal.to === "host" && goal.host === id && expected.is === "answer"
          ? { is: "silence", why }
          : expected,
    }),
    beside(told("others", " from other subnets"), {
      reads: ({ goal, from }, expected) =>
        goal.to === "host" &&
        goal.host === id &&
        expected.is === "answer" &&
        !(from.at === "host" && isBeside(from.host))
          ? { is: "silence", why }
          : expected,
    }),
  ];
}

/** What can be wrong on end devices themselves. */
export function hostSuspects(index: PlanIndex, { hosts, segments }: Sight): Suspect[] {
  const own = [...hosts].flatMap((id) => index.plan.host.get(id) ?? []);
  const others = [...segments].flatMap((id) => index.hostsIn(id)).filter(({ id }) => !hosts.has(id));
  return [
    ...own.flatMap((host) => [
      ...enteredSuspects(index, host),
      ...twiceSuspects(index, host),
      ...otherSuspects(index, host),
      ...firewallSuspects(index, host),
    ]),
    // Whoever else is there gets in the way only with an address that is somebody's.
    ...others.flatMap((host) => asGateway(index, host)),
    ...others.flatMap((host) =>
      twiceSuspects(index, host).filter(({ id }) => hosts.has(id.split(" ")[2] ?? "")),
    ),
  ];
}
