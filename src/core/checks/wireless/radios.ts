import { byNaturalText, byText, putInto } from "../../kernel";
import { nameOf, type Band, type Radio } from "../../plan";
import { assignAllChannels, BAND_WORDS } from "../../planners";
import { assignChannels, channelBlock, channelsOverlap, HEARING } from "../../wireless";
import { check, localCheck, type Found } from "../check";
import { type Repair, listed } from "../../repairs";

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
                edit: (edits) => assignAllChannels(edits, index, [band], useDfs),
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
    const allowed = index.plan.site.radio.channels.filter((channel) => channel.band === radio.band);
    if (!radio.enabled || radio.channel === null || allowed.length === 0) return [];
    const block = channelBlock(radio.band, radio.channel, radio.widthMhz);
    return block !== null && block.every((channel) => allowed.some((other) => other.number === channel))
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
      edit: (edits) => edits.patch("radio", radio, { channel: null }),
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
      edit: (edits) => edits.patch("radio", radio, { widthMhz: 20 }),
    },
  ],
});
