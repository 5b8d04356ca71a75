import { counted } from "../repairs";
import { lineOf, noteOf, tagWords, vidOfTag, type LaidLine, type Listening } from "./line";

/** So many copies within a second are no accident: messages of gear are seconds apart. */
const LEAST_LOOP = 24;
/** A switch that has not learned yet floods a few frames, not dozens to one station. */
const LEAST_FLOOD = 24;
/** Where frames between others are not to be heard. */
const HEARS_NO_OTHERS: ReadonlySet<string> = new Set(["access", "trunk", "own"]);

/** Frames that go round. */
const loopLines = (listening: Listening): LaidLine[] =>
  listening.heard.facts.traffic.sameFrameAgain
    .filter(({ mostWithinOneSecond }) => mostWithinOneSecond >= LEAST_LOOP)
    .map(({ vid, src, copies, mostWithinOneSecond }) =>
      lineOf(
        {
          about: `The same frame of ${src} ${tagWords(listening, vidOfTag(vid))}`,
          planned: "once",
          heard: `${counted(copies, "time", "times")}, ${mostWithinOneSecond} within a second`,
        },
        {
          isRight: false,
          says: "Frames go round: there is a loop. Take out one cable after the other until it stops.",
        },
      ),
    );

/** Frames between others where none are to be heard. */
function floodLines(listening: Listening): LaidLine[] {
  const { tap, heard } = listening;
  if (!HEARS_NO_OTHERS.has(tap.position)) return [];
  return heard.facts.traffic.unicast
    .filter(({ src, dst, frames }) => src !== tap.mac && dst !== tap.mac && frames >= LEAST_FLOOD)
    .map(({ vid, src, dst, frames }) =>
      lineOf(
        {
          about: `From ${src} to ${dst} ${tagWords(listening, vidOfTag(vid))}`,
          planned: "not heard here",
          heard: counted(frames, "frame", "frames"),
        },
        {
          isRight: false,
          says:
            `Frames to ${dst} are flooded: no switch has learned where it is. ` +
            "It may be off, or answer another way.",
        },
      ),
    );
}

/** Who signs in, and how that went. */
const signInLines = (listening: Listening): LaidLine[] =>
  (listening.heard.facts.eapol ?? []).flatMap(({ attempts, outcome, vid }) => {
    const where = tagWords(listening, vidOfTag(vid));
    const nobody = noteOf(
      `Sign-in ${where}`,
      "a port asks",
      "No station answers: what is plugged in does not know 802.1X.",
    );
    if (attempts.length === 0) return outcome === "none seen" ? [nobody] : [];
    return attempts.map(({ supplicant, identity, outcome: came, methods }) =>
      noteOf(
        `Sign-in of ${identity ?? supplicant} ${where}`,
        `${came}${methods.length === 0 ? "" : ` (${methods.join(", ")})`}`,
        came === "failure" ? "The server does not let it in: look at its account and its password." : "",
      ),
    );
  });

const serverLines = (listening: Listening): LaidLine[] =>
  (listening.heard.facts.radius ?? []).flatMap(({ server, replyAttributes }) =>
    replyAttributes.map(({ code, user, tunnelPrivateGroupId }) =>
      noteOf(
        `RADIUS server ${server} on ${user ?? "somebody"}`,
        `${code}${tunnelPrivateGroupId === undefined ? "" : `, VLAN ${tunnelPrivateGroupId}`}`,
      ),
    ),
  );

/** What goes round, what is flooded, who signs in. */
export const unusualLines = (listening: Listening): LaidLine[] => [
  ...loopLines(listening),
  ...floodLines(listening),
  ...signInLines(listening),
  ...serverLines(listening),
];
