import { byNaturalText, byText, putInto } from "../../kernel";
import {
  BANDS,
  nameOf,
  offers,
  ssidsOf,
  vidsOfSsid,
  type Band,
  type Device,
  type PlanIndex,
  type Radio,
  type Ssid,
} from "../../plan";
import { assignAllChannels, paintPorts, accessPointRole, BAND_WORDS } from "../../planners";
import { modeOf } from "../../fabric";
import { assignChannels, channelBlock, channelsOverlap, HEARING, SECURITY_FACTS } from "../../wireless";
import { check, localCheck, type Found } from "../check";
import { type Repair, counted, listed } from "../../repairs";
import { devicesTouched } from "../touched";

const anyEdit = () => "all" as const;

interface AccessPort {
  readonly point: string;
  readonly port: string;
  readonly own: string;
  readonly vids: readonly number[];
}

export const accessPortToPoint = localCheck<AccessPort, "device">({
  code: "access-port-to-access-point",
  severity: "stop",
  family: "wireless",
  title: "An access point with several networks is plugged into an access port",
  why:
    "An access port lets one VLAN through: every wireless name lands " +
    "in it or, more often, nobody on the others gets an address.",
  reads: ["device", "port", "link", "ssid", "segment", "vlan"],
  of: "device",
  touched: (index, change) =>
    change.kind === "ssid" || change.kind === "segment" || change.kind === "vlan"
      ? "all"
      : devicesTouched(index, change),
  candidates: (index) => [...index.plan.device.values()].filter((device) => device.kind === "accessPoint"),
  findAt: (index, point): Found<AccessPort>[] => {
    if (point.kind !== "accessPoint" || point.bridging !== "vlan") return [];
    const wanted = [...new Set(ssidsOf(index, point).flatMap((ssid) => vidsOfSsid(index, ssid)))];
    return (index.groups("portsByDevice").get(point.id) ?? []).flatMap((own): Found<AccessPort>[] => {
      const far = index.peerOf(own.id);
      if (
        far === undefined ||
        modeOf(far) !== "access" ||
        index.plan.device.get(far.device)?.bridging !== "vlan"
      )
        return [];
      const vids = wanted.filter((vid) => vid !== far.pvid).sort((a, b) => a - b);
      return vids.length === 0
        ? []
        : [
            {
              subjects: [
                { kind: "port", id: far.id },
                { kind: "device", id: point.id },
              ],
              data: { point: point.id, port: far.id, own: own.id, vids },
            },
          ];
    });
  },
  describe: ({ point, port, vids }, index) =>
    `${nameOf(index, "device", point)} is plugged into ${nameOf(index, "port", port)}, ` +
    `an access port in VLAN ${index.plan.port.get(port)?.pvid ?? 0}; its wireless ` +
    `names need VLAN ${listed(vids.map(String))} too.`,
  repairs: ({ point, port, own }, index) => {
    const device = index.plan.device.get(point);
    if (device === undefined) return [];
    const role = accessPointRole(index, device.domain, device);
    return [
      {
        label: "Make both ends a trunk with what it needs",
        planner: "paint-ports",
        args: { ports: [port, own], role: "accessPoint" },
        edit: (draft) => paintPorts(draft, [port, own], { role: "trunk", ...role }),
      },
    ];
  },
});

interface ChannelClash {
  readonly a: string;
  readonly b: string;
  readonly band: Band;
}

const blockOf = (radio: Radio): readonly number[] =>
  radio.channel === null ? [] : (channelBlock(radio.band, radio.channel, radio.widthMhz) ?? [radio.channel]);

export const channelsClash = check<ChannelClash>({
  code: "channels-clash",
  severity: "warn",
  family: "wireless",
  title: "Two access points that hear each other use one channel, or channels that overlap",
  why:
    "They wait for each other: two access points have the speed of one. " +
    "Overlapping channels are worse, as neither understands the other.",
  reads: ["radio", "device", "room", "site"],
  find: (index): Found<ChannelClash>[] => {
    const hearing = index.derived(HEARING);
    const radios = [...index.plan.radio.values()]
      .filter((radio) => radio.enabled && radio.channel !== null)
      .sort((a, b) => byText(a.id, b.id));
    const byDevice = new Map<string, Radio[]>();
    for (const radio of radios) putInto(byDevice, radio.device, radio);
    return radios.flatMap((radio) =>
      [radio.device, ...(hearing.get(radio.device) ?? [])]
        .flatMap((device) => byDevice.get(device) ?? [])
        .filter(
          (other) =>
            other.band === radio.band &&
            byText(radio.id, other.id) < 0 &&
            channelsOverlap(radio.band, blockOf(radio), blockOf(other)),
        )
        .sort((a, b) => byText(a.id, b.id))
        .map((other): Found<ChannelClash> => ({
          subjects: [
            { kind: "radio", id: radio.id },
            { kind: "radio", id: other.id },
          ],
          data: { a: radio.id, b: other.id, band: radio.band },
        })),
    );
  },
  describe: ({ a, b, band }, index) => {
    const [one, other] = [index.plan.radio.get(a), index.plan.radio.get(b)];
    const names = [a, b]
      .map((id) => nameOf(index, "device", index.plan.radio.get(id)?.device ?? ""))
      .sort(byNaturalText);
    return one?.channel === other?.channel
      ? `${listed(names)} hear each other and both use channel ${one?.channel ?? 0} in ${BAND_WORDS[band]}.`
      : `${listed(names)} hear each other, and their channels ` +
          `${listed([one, other].map((radio) => String(radio?.channel ?? 0)))} ` +
          `in ${BAND_WORDS[band]} overlap.`;
  },
  repairs: ({ a, b, band }, index) =>
    (["without radar channels", "with radar channels"] as const)
      .flatMap((useDfs): Repair[] => {
        const assigned = assignChannels(index, band, useDfs);
        const solves = assigned
          .filter(({ radio }) => radio.id === a || radio.id === b)
          .every(({ option, clashes }) => option !== null && clashes.length === 0);
        const changed = assigned.filter(
          ({ radio, option }) => option !== null && option.channel !== radio.channel,
        ).length;
        return solves
          ? [
              {
                label:
                  "Give " +
                  (changed === 1
                    ? "one access point another channel"
                    : `${changed} access points other channels`) +
                  " " +
                  `in ${BAND_WORDS[band]}, ${useDfs}`,
                planner: "assign-channels",
                args: { band, useDfs },
                edit: (draft) => assignAllChannels(draft, index, [band], useDfs),
              },
            ]
          : [];
      })
      .slice(0, 1),
});

interface OfRadio {
  readonly radio: string;
}

export const channelNotAllowed = localCheck<OfRadio, "radio">({
  code: "channel-not-allowed",
  severity: "warn",
  family: "wireless",
  title: "A channel is not one that may be used here",
  why:
    "Which channels may be used, how wide and where is the " +
    "regulator's matter; the site's list says what holds here.",
  reads: ["radio", "site"],
  of: "radio",
  touched: (_index, change) => (change.kind === "site" ? "all" : []),
  findAt: (index, radio): Found<OfRadio>[] => {
    const allowed = index.plan.site.radio.channels.filter((one) => one.band === radio.band);
    if (!radio.enabled || radio.channel === null || allowed.length === 0) return [];
    const block = channelBlock(radio.band, radio.channel, radio.widthMhz);
    return block !== null && block.every((one) => allowed.some((other) => other.number === one))
      ? []
      : [{ subjects: [{ kind: "radio", id: radio.id }], data: { radio: radio.id } }];
  },
  describe: ({ radio }, index) => {
    const entity = index.plan.radio.get(radio);
    return (
      `${nameOf(index, "radio", radio)}: channel ${entity?.channel ?? 0} ` +
      `at ${entity?.widthMhz ?? 20} MHz is not in the site's ` +
      `list${index.plan.site.radio.region === "" ? "" : ` (${index.plan.site.radio.region})`}.`
    );
  },
  repairs: ({ radio }) => [
    {
      label: "Leave the channel open",
      planner: "set-channel",
      args: { radio, channel: null },
      edit: (draft) => draft.patch("radio", radio, { channel: null }),
    },
  ],
});

export const wideIn24 = localCheck<OfRadio, "radio">({
  code: "wide-channel-in-2-4-ghz",
  severity: "warn",
  family: "wireless",
  title: "A channel in 2.4 GHz is 40 MHz wide",
  why:
    "The band has room for three channels of 20 MHz; one " +
    "of 40 takes most of it and disturbs every neighbour.",
  reads: ["radio"],
  of: "radio",
  touched: () => [],
  findAt: (_index, radio): Found<OfRadio>[] =>
    radio.enabled && radio.band === "2.4" && radio.widthMhz > 20
      ? [{ subjects: [{ kind: "radio", id: radio.id }], data: { radio: radio.id } }]
      : [],
  describe: ({ radio }, index) =>
    `${nameOf(index, "radio", radio)} is ${index.plan.radio.get(radio)?.widthMhz ?? 40} MHz wide.`,
  repairs: ({ radio }) => [
    {
      label: "Make it 20 MHz wide",
      planner: "set-radio",
      args: { radio, widthMhz: 20 },
      edit: (draft) => draft.patch("radio", radio, { widthMhz: 20 }),
    },
  ],
});

interface OfSsid {
  readonly ssid: string;
}
const ofSsid = (ssid: Ssid): Found<OfSsid>[] => [
  { subjects: [{ kind: "ssid", id: ssid.id }], data: { ssid: ssid.id } },
];

export const guestsNotIsolated = localCheck<OfSsid, "ssid">({
  code: "guests-not-isolated",
  severity: "warn",
  family: "wireless",
  title: "Visitors on a wireless name can reach one another",
  why: "Strangers share that network. With isolation each of them reaches the internet and nobody else.",
  reads: ["ssid", "segment"],
  of: "ssid",
  touched: anyEdit,
  findAt: (index, ssid): Found<OfSsid>[] =>
    !ssid.isolation && index.plan.segment.get(ssid.segment)?.purpose === "guests" ? ofSsid(ssid) : [],
  describe: ({ ssid }, index) =>
    `${nameOf(index, "ssid", ssid)} leads visitors into ` +
    `${index.plan.segment.get(index.plan.ssid.get(ssid)?.segment ?? "")?.name ?? "a segment"} ` +
    "without keeping them apart.",
  repairs: ({ ssid }) => [
    {
      label: "Keep its stations apart",
      planner: "edit-ssid",
      args: { ssid, isolation: true },
      edit: (draft) => draft.patch("ssid", ssid, { isolation: true }),
    },
  ],
});

export const weakSecurity = localCheck<OfSsid, "ssid">({
  code: "weak-wireless-security",
  severity: "warn",
  family: "wireless",
  title: "A wireless name is secured weakly",
  why: "What goes through the air can be heard from the street.",
  reads: ["ssid"],
  of: "ssid",
  touched: () => [],
  findAt: (_index, ssid): Found<OfSsid>[] =>
    SECURITY_FACTS[ssid.security].weak === null ? [] : ofSsid(ssid),
  describe: ({ ssid }, index) => {
    const facts = SECURITY_FACTS[index.plan.ssid.get(ssid)?.security ?? "open"];
    return (
      `${nameOf(index, "ssid", ssid)} is ` +
      `${facts.secret ? `secured by ${facts.words}` : facts.words}: ${facts.weak ?? ""}.`
    );
  },
  repairs: ({ ssid }, index) => {
    const security = index.plan.ssid.get(ssid)?.security === "open" ? "owe" : "pskSae";
    return [
      {
        label: `Make it ${SECURITY_FACTS[security].words}`,
        planner: "edit-ssid",
        args: { ssid, security },
        edit: (draft) => draft.patch("ssid", ssid, { security }),
      },
    ];
  },
});

export const securityNotFor6 = localCheck<OfSsid, "ssid">({
  code: "security-not-for-6-ghz",
  severity: "stop",
  family: "wireless",
  title: "A wireless name is offered in 6 GHz with a security that the band does not admit",
  why:
    "In 6 GHz only OWE, SAE and sign-in by name with protected management frames " +
    "are admitted (IEEE 802.11 section 12.12): the name does not appear there.",
  reads: ["ssid"],
  of: "ssid",
  touched: () => [],
  findAt: (_index, ssid): Found<OfSsid>[] =>
    ssid.bands.includes("6") && !SECURITY_FACTS[ssid.security].in6 ? ofSsid(ssid) : [],
  describe: ({ ssid }, index) =>
    `${nameOf(index, "ssid", ssid)} is offered in 6 GHz with ` +
    `${SECURITY_FACTS[index.plan.ssid.get(ssid)?.security ?? "open"].words}, ` +
    "which is not admitted there.",
  repairs: ({ ssid }, index) => {
    const entity = index.plan.ssid.get(ssid);
    const security = entity?.security === "open" ? "owe" : "sae";
    const rest = entity?.bands.filter((band) => band !== "6") ?? [];
    return [
      ...(rest.length === 0
        ? []
        : [
            {
              label: "Leave 6 GHz out",
              planner: "edit-ssid",
              args: { ssid, bands: rest },
              edit: (draft: Parameters<Repair["edit"]>[0]) => draft.patch("ssid", ssid, { bands: rest }),
            },
          ]),
      {
        label: `Make it ${SECURITY_FACTS[security].words}`,
        planner: "edit-ssid",
        args: { ssid, security },
        edit: (draft) => draft.patch("ssid", ssid, { security }),
      },
    ];
  },
});

const MOST_NAMES = 4;
interface Airtime {
  readonly point: string;
  readonly band: Band;
  readonly count: number;
}

/** The names that a radio of an access point announces. */
const announced = (index: PlanIndex, point: Device, band: Band): Ssid[] =>
  (index.groups("radiosByDevice").get(point.id) ?? []).some((radio) => radio.band === band && radio.enabled)
    ? ssidsOf(index, point).filter((ssid) => ssid.bands.includes(band))
    : [];

export const tooManySsids = localCheck<Airtime, "device">({
  code: "too-many-wireless-names",
  severity: "note",
  family: "wireless",
  title: "A radio announces more than four wireless names",
  why:
    "Each name is announced ten times a second at the slowest speed; with many " +
    "of them a good part of the air is gone before anybody has sent a word.",
  reads: ["device", "radio", "ssid", "segment", "vlan"],
  of: "device",
  touched: (index, change) => {
    if (change.kind === "device") return [];
    if (change.kind === "radio") return devicesTouched(index, change);
    return "all";
  },
  candidates: (index) => [...index.plan.device.values()].filter((device) => device.kind === "accessPoint"),
  findAt: (index, point): Found<Airtime>[] =>
    point.kind !== "accessPoint"
      ? []
      : BANDS.flatMap((band): Found<Airtime>[] => {
          const count = announced(index, point, band).length;
          return count <= MOST_NAMES
            ? []
            : [{ subjects: [{ kind: "device", id: point.id }], data: { point: point.id, band, count } }];
        }),
  describe: ({ point, band, count }, index) =>
    `${nameOf(index, "device", point)} announces ` +
    `${counted(count, "wireless name", "wireless names")} in ` +
    `${BAND_WORDS[band]}; more than ${MOST_NAMES} cost airtime.`,
  repairs: () => [],
});

interface Differing {
  readonly name: string;
  readonly ssids: readonly string[];
}
const SETTINGS = ["segment", "security", "hidden", "isolation"] as const;

export const ssidDiffers = check<Differing>({
  code: "wireless-name-differs",
  severity: "warn",
  family: "wireless",
  title: "One wireless name stands for two different networks",
  why:
    "A station takes one name for one network: it roams between " +
    "them, and every time its address or its key is wrong.",
  reads: ["ssid", "device", "segment", "vlan"],
  find: (index): Found<Differing>[] => {
    const byName = new Map<string, Ssid[]>();
    for (const ssid of index.plan.ssid.values()) putInto(byName, ssid.name, ssid);
    return [...byName].flatMap(([name, ssids]): Found<Differing>[] => {
      const ordered = ssids.sort((a, b) => byText(a.id, b.id));
      if (ordered.every((ssid) => SETTINGS.every((field) => ssid[field] === ordered[0]?.[field]))) return [];
      return [
        {
          subjects: ordered.map((ssid) => ({ kind: "ssid" as const, id: ssid.id })),
          data: { name, ssids: ordered.map((ssid) => ssid.id) },
        },
      ];
    });
  },
  describe: ({ name, ssids }, index) => {
    const of = ssids.flatMap((id) => index.plan.ssid.get(id) ?? []);
    const differing = SETTINGS.filter((field) => new Set(of.map((ssid) => ssid[field])).size > 1);
    const where = of.map(
      (ssid) =>
        [...index.plan.device.values()].find((device) => offers(index, device, ssid))?.name ??
        "no access point",
    );
    return (
      `${name} is there ${of.length} times, at ${listed(where)}, with different ` +
      `${listed(
        differing.map((field) => {
          if (field === "segment") return "segments";
          if (field === "hidden") return "visibility";
          return field;
        }),
      )}.`
    );
  },
  repairs: ({ ssids }, index) => {
    const [first, ...rest] = ssids.flatMap((id) => index.plan.ssid.get(id) ?? []);
    return first === undefined
      ? []
      : [
          {
            label: "Set all of them as the first is",
            planner: "equal-ssids",
            args: { ssids },
            edit: (draft) => {
              for (const ssid of rest)
                draft.patch("ssid", ssid.id, {
                  segment: first.segment,
                  moreSegments: first.moreSegments,
                  security: first.security,
                  hidden: first.hidden,
                  isolation: first.isolation,
                });
            },
          },
        ];
  },
});
