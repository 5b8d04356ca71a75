import { type Ask, type Suspect } from "../diagnosis";
import { firstLook, type Copy, type Look } from "./copy";
import { complained } from "./solve";

/** What one fault of a copy could be: of so many that were tried, those that fit what was seen. */
export interface Strand {
  readonly tried: number;
  readonly fitting: readonly Suspect[];
}

/** Whether a fault in the place of one is complained of in the same words: nobody reads an address out. */
function soundsLike(copy: Copy, at: number, suspect: Suspect, look: Look): boolean {
  const [seen, other] = [copy.seen(look), copy.seenIf(at, suspect, look)];
  return other !== null && other.expected.is === seen.expected.is && other.key !== copy.planned(look).key;
}

/**
 * By fault, what it could be by the complaints alone: every single fault in sight of its own complaint that,
 * with the other one as it is, shows what is complained of.
 */
export function possible(copy: Copy, complaints: readonly { readonly ask: Ask }[]): Strand[] {
  const looks = complaints.map(({ ask }) => firstLook(ask));
  return copy.faults.map((_, at) => {
    const own = looks[at];
    if (own === undefined) return { tried: 0, fitting: [] };
    const all = copy.study.suspects([complained(copy.study, own.ask, copy.seen(own))]);
    return {
      tried: all.length,
      fitting: all.filter((suspect) => looks.every((look) => soundsLike(copy, at, suspect, look))),
    };
  });
}

/** What is left of them after another look. */
export const narrowed = (copy: Copy, strands: readonly Strand[], look: Look): Strand[] =>
  strands.map(({ tried, fitting }, at) => ({
    tried,
    fitting: fitting.filter((suspect) => copy.fits(at, suspect, look)),
  }));
