import type { DeviceKind } from "../catalogue";
import { forgiven, typingMistakes } from "./near-word";

/** One item of a room's line, understood. */
export interface Need {
  readonly count: number;
  /** The thing in the installer's own words, one of it: "records server". */
  readonly what: string;
  readonly kind: DeviceKind;
  readonly wireless: boolean;
  readonly poeClass: number | null;
  /** Percent; null when the line says none and the site's growth holds. */
  readonly growth: number | null;
  /** Whose it is, where the line says so; null when it says nothing. */
  readonly group: string | null;
}

/** An item with its place in the line, from `start` up to, not including, `end`. */
export type Reading =
  | {
      readonly start: number;
      readonly end: number;
      readonly need: Need;
      /** The kind's word where another was typed. */ readonly readAs: string | null;
      /** The typed word is in no list: a mistake of typing is assumed. */ readonly guessed: boolean;
      readonly problem: null;
    }
  | {
      readonly start: number;
      readonly end: number;
      readonly need: null;
      readonly readAs: null;
      readonly guessed: false;
      readonly problem: string;
    };

const NUMBER_WORDS: Readonly<Record<string, number>> = {
  a: 1,
  an: 1,
  one: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  seven: 7,
  eight: 8,
  nine: 9,
  ten: 10,
  eleven: 11,
  twelve: 12,
};
const MOST = 9999;

interface Marks {
  wireless: boolean | null;
  power: "yes" | "no" | number | null;
  growth: number | null;
  group: string | null;
}

/** Takes what is said about the item off its words. */
function takeMarks(text: string): { words: string; marks: Marks } {
  const marks: Marks = { wireless: null, power: null, growth: null, group: null };
  let words = text.replace(/\((wired|wireless|wi-?fi|poe|no poe)\)/gi, " $1 ");
  const take = (pattern: RegExp, use: (match: RegExpExecArray) => void) => {
    const match = pattern.exec(words);
    if (match === null) return;
    use(match);
    words = `${words.slice(0, match.index)} ${words.slice(match.index + match[0].length)}`;
  };
  take(/\bfor (?:the )?([^,;]+)$/i, (match) => {
    marks.group = (match[1] ?? "").trim();
  });
  take(/(?:\+\s*(\d{1,3})\s*%|\bgrowth\s+(\d{1,3})\s*%?|\bgrowing\s+(\d{1,3})\s*%?)/i, (match) => {
    marks.growth = Number(match[1] ?? match[2] ?? match[3]);
  });
  take(/\b(?:poe\s+)?class\s+([0-8])\b/i, (match) => {
    marks.power = Number(match[1]);
  });
  take(/\b(?:no poe|without poe|own power|unpowered|on mains)\b/i, () => {
    marks.power = "no";
  });
  take(/\b(?:with poe|poe|powered)\b/i, () => {
    marks.power ??= "yes";
  });
  take(/\b(?:wireless|on wi-?fi|wi-?fi)\b/i, () => {
    marks.wireless = true;
  });
  take(/\b(?:wired|by cable)\b/i, () => {
    marks.wireless = false;
  });
  return { words: words.trim().replace(/\s+/g, " "), marks };
}

/** "batteries" as "battery", "PCs" as "PC": the forms a word may stand for. */
function singulars(word: string): string[] {
  const forms = [word];
  if (/ies$/i.test(word) && word.length > 4) forms.push(`${word.slice(0, -3)}y`);
  if (/(?:s|x|ch|sh)es$/i.test(word)) forms.push(word.slice(0, -2));
  if (/[^s]s$/i.test(word)) forms.push(word.slice(0, -1));
  return forms;
}

interface Match {
  readonly kind: DeviceKind;
  readonly what: string;
  readonly readAs: string | null;
  readonly guessed: boolean;
}

/** Words to kinds: once for a catalogue, not once for a line. */
const WORDS = new WeakMap<readonly DeviceKind[], ReadonlyMap<string, { kind: DeviceKind; name: string }>>();
function wordsOf(catalogue: readonly DeviceKind[]): ReadonlyMap<string, { kind: DeviceKind; name: string }> {
  const known = WORDS.get(catalogue);
  if (known !== undefined) return known;
  const words = new Map<string, { kind: DeviceKind; name: string }>();
  for (const kind of catalogue)
    for (const name of [kind.word, ...kind.aliases])
      if (!words.has(name.toLowerCase())) words.set(name.toLowerCase(), { kind, name });
  WORDS.set(catalogue, words);
  return words;
}

/** The word that a text is nearest to, within the mistakes that are forgiven for its length. */
function guess(words: ReturnType<typeof wordsOf>, text: string): Match | null {
  let best: { kind: DeviceKind; name: string; mistakes: number } | null = null;
  for (const [word, { kind, name }] of words) {
    for (const form of singulars(text)) {
      const mistakes = typingMistakes(form, word, forgiven(word));
      if (mistakes <= forgiven(word) && (best === null || mistakes < best.mistakes))
        best = { kind, name, mistakes };
    }
  }
  return best === null ? null : { kind: best.kind, what: best.name, readAs: best.name, guessed: true };
}

/** The kind that the words, or the last of them, name: a "waiting room screen" is a screen. */
function match(catalogue: readonly DeviceKind[], typed: string): Match | null {
  const words = wordsOf(catalogue);
  const text = typed.toLowerCase().replace(/\s*\+\s*/g, "+");
  const parts = text.split(" ");
  for (let from = 0; from < parts.length; from += 1) {
    const tail = parts.slice(from).join(" ");
    for (const form of singulars(tail)) {
      const found = words.get(form);
      if (found === undefined) continue;
      // The kind's own spelling, when the words are its name in another case or number.
      const own = from === 0 && form === found.kind.word.toLowerCase();
      const what =
        own || found.kind.role === "pair"
          ? found.kind.word
          : [
              ...typed.split(" ").slice(0, from),
              found.name === found.kind.word || from > 0 ? found.name : form,
            ].join(" ");
      return { kind: found.kind, what, readAs: own ? null : found.kind.word, guessed: false };
    }
  }
  return guess(words, text);
}

/**
 * Gear that no room asks for: the draft puts it where the room says, and what stands there already is found
 * gear.
 */
const DRAFTED = /\b(?:gateway|router|firewall|modem)s?$/i;

/** Why words name no kind, and what to do. */
function unknownWords(words: string): string {
  if (DRAFTED.test(words))
    return (
      `"${words}" needs no line: the draft puts a gateway in the first ` +
      `cabinet. One that stands here already is entered under "Gear found".`
    );
  return (
    `"${words}" is no kind of device known here. Write ` +
    "another word for it, or add it as a kind of your own."
  );
}

const countOf = (word: string): number | null =>
  /^\d+$/.test(word) ? Number(word) : (NUMBER_WORDS[word.toLowerCase()] ?? null);

function classOf({ poeClass }: DeviceKind, power: ReturnType<typeof takeMarks>["marks"]["power"]) {
  if (typeof power === "number") return power;
  if (power === "no") return null;
  return power === "yes" ? (poeClass ?? 3) : poeClass;
}

function readItem(
  catalogue: readonly DeviceKind[],
  text: string,
): { need: Need; readAs: string | null; guessed: boolean } | string {
  const head = /^(\d+|[a-z]+)(?=\s|x\s|×|$)\s*(?:x(?=\s)|×)?\s*/i.exec(text);
  const number = head === null ? null : countOf(head[1] ?? "");
  const rest = number === null || head === null ? text : text.slice(head[0].length);
  const { words, marks } = takeMarks(rest);
  if (words === "")
    return number === null
      ? "Write a number, then what: 3 PC, 2 phone+PC."
      : `Write what there are ${number} of: ${number} PC.`;
  const count = number ?? 1;
  if (count < 1 || count > MOST) return `"${text}": the number has to lie between 1 and ${MOST}.`;
  const found = match(catalogue, words);
  if (found === null) return unknownWords(words);
  const { kind } = found;
  const poeClass = classOf(kind, marks.power);
  const wireless = marks.wireless ?? kind.wireless;
  return {
    need: {
      count,
      what: found.what,
      kind,
      wireless,
      poeClass: wireless ? null : poeClass,
      growth: marks.growth,
      group: marks.group,
    },
    readAs: found.readAs,
    guessed: found.guessed,
  };
}

/**
 * Reads a room's line: items with commas, semicolons or line ends between, each a number (or none for one), a
 * thing, and what is said of it ("wireless", "no PoE", "+20 %", "for Studio"). Every item is read or has a
 * problem; nothing is left out.
 */
export function readNeeds(catalogue: readonly DeviceKind[], line: string): Reading[] {
  const readings: Reading[] = [];
  for (const part of line.matchAll(/[^,;\n]+/g)) {
    const lead = part[0].length - part[0].trimStart().length;
    const text = part[0].trim();
    if (text === "") continue;
    const start = part.index + lead;
    const read = readItem(catalogue, text);
    readings.push(
      typeof read === "string"
        ? { start, end: start + text.length, need: null, readAs: null, guessed: false, problem: read }
        : {
            start,
            end: start + text.length,
            need: read.need,
            readAs: read.readAs,
            guessed: read.guessed,
            problem: null,
          },
    );
  }
  return readings;
}

/** Only what was understood. */
export const needsOf = (catalogue: readonly DeviceKind[], line: string): Need[] =>
  readNeeds(catalogue, line).flatMap((reading) => (reading.need === null ? [] : [reading.need]));
