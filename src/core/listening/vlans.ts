import { grouped } from "../kernel";
import { nameOf } from "../plan";
import { counted } from "../repairs";
import { lineOf, noteOf, portName, tagWords, vidOfTag, type LaidLine, type Listening } from "./line";
import { ABOUT, NOT_THERE, plannedAbout, TAGGED, THERE, vlanPort, type WireLine } from "./wire";

type TagFact = Listening["heard"]["facts"]["tags"][number];

/** Frames that gear says to its neighbour, which are of no VLAN: trees, neighbours, sign-in. */
function toNeighbour({ heard: { facts } }: Listening, { vid, inner }: TagFact): number {
  if (inner !== undefined) return 0;
  const isSo = (tagged: { readonly vid: number | null; readonly inner?: readonly number[] }) =>
    tagged.vid === vid && tagged.inner === undefined;
  const said = [...(facts.stp?.messages ?? []), ...(facts.lldp ?? [])].filter(isSo);
  const signIn = (facts.eapol ?? []).filter(isSo).flatMap(({ frames }) => Object.values(frames));
  return [...said.map(({ frames }) => frames), ...signIn].reduce((sum, frames) => sum + frames, 0);
}

const senders = ({ frames, senders: by }: TagFact): string =>
  `${counted(frames, "frame", "frames")} of ${counted(Object.keys(by).length, "station", "stations")}`;

/** Why a VLAN can't be among what a device copies to a mirror; null where it can. */
function notMirrored({ index, port }: Listening, vid: number | null): string | null {
  if (vid === null) return null;
  if (![...index.plan.vlan.values()].some((vlan) => vlan.vid === vid)) return `The plan has no VLAN ${vid}.`;
  const device = index.plan.port.get(port)?.device ?? "";
  const isCarried = index
    .portsOf(device)
    .some((port) => [...port.untagged, ...port.tagged].some((carried) => carried === vid));
  if (isCarried || vlanPort(index, port) === null) return null;
  return `By the plan no port of ${nameOf(index, "device", device)} carries VLAN ${vid}.`;
}

/** At a mirror frames of any VLAN of the device may be, with or without their tag. */
function atMirror(listening: Listening, tag: TagFact, vid: number | null): LaidLine {
  const about = vid === null ? ABOUT.untagged : ABOUT.vlan(vid);
  const says = notMirrored(listening, vid);
  return says === null
    ? noteOf(about, senders(tag))
    : lineOf({ about, planned: NOT_THERE, heard: senders(tag) }, { isRight: false, says });
}

function tagLine(listening: Listening, tag: TagFact): LaidLine {
  const { index, port, planned } = listening;
  const vid = vidOfTag(tag.vid);
  if (tag.inner !== undefined) {
    const about = `Tags ${[tag.vid, ...tag.inner].join(", ")}`;
    return noteOf(about, senders(tag), "These frames bear two tags or more, one around the other.");
  }
  if (listening.tap.position === "mirror") return atMirror(listening, tag, vid);
  if (vlanPort(index, port) === null)
    return noteOf(vid === null ? ABOUT.untagged : ABOUT.vlan(vid), senders(tag));
  const line: WireLine = vid === null ? [ABOUT.untagged, THERE] : [ABOUT.vlan(vid), TAGGED];
  const said = plannedAbout(planned, line[0]);
  return lineOf(
    { about: line[0], planned: said, heard: `${line[1]}: ${senders(tag)}` },
    {
      isRight: said === line[1],
      says:
        vid === null
          ? `Nothing is to be untagged at ${portName(listening)}.`
          : `Frames ${tagWords(listening, vid)} bear a tag at ${portName(listening)}, where none is planned.`,
      line,
    },
  );
}

/** Frames without a tag and those with a priority tag are in the same VLAN (IEEE 802.1Q section 6.9.1). */
function together(tags: readonly TagFact[]): TagFact[] {
  const by = grouped(tags, ({ vid, inner }) => JSON.stringify([vidOfTag(vid), inner ?? null]));
  return [...by.values()].flatMap(([first, ...others]): TagFact[] => {
    if (first === undefined) return [];
    const all = [first, ...others];
    return [
      {
        ...first,
        frames: all.reduce((sum, { frames }) => sum + frames, 0),
        senders: Object.assign({}, ...all.map(({ senders: by }) => by)) as TagFact["senders"],
      },
    ];
  });
}

/** Which VLANs are heard, by their tags. */
export const vlanLines = (listening: Listening): LaidLine[] =>
  together(listening.heard.facts.tags.filter((tag) => tag.frames > toNeighbour(listening, tag))).map((tag) =>
    tagLine(listening, tag),
  );
