import { must } from "../kernel";
import { afterEdits, PlanEdits, type PlanIndex } from "../plan";
import {
  askKey,
  onPlan,
  pairOf,
  predict,
  type Ask,
  type Predicted,
  type Study,
  type Suspect,
} from "../diagnosis";

/** A cable is taken out of one port and put into another. */
export interface CableMove {
  readonly from: string;
  readonly to: string;
}

/** What is in a port: nothing, or the cable of who stands there or of the gear at its other end. */
const isInUse = (index: PlanIndex, port: string): boolean =>
  index.linkAt(port) !== undefined || index.groups("hostsByPort").has(port);

/** The site after one cable is moved; the same site where there is none, or its new port is in use. */
function movedOnce(index: PlanIndex, { from, to }: CableMove): PlanIndex {
  if (!isInUse(index, from) || isInUse(index, to)) return index;
  const edits = new PlanEdits(index.plan);
  for (const { id } of index.groups("hostsByPort").get(from) ?? [])
    edits.patch("host", id, { attachment: { at: "port", port: to } });
  const link = index.linkAt(from);
  if (link !== undefined) edits.patch("link", link.id, link.a === from ? { a: to } : { b: to });
  return afterEdits(index, edits) ?? index;
}

/** The site after some cables are moved, one after the other. */
const moved = (index: PlanIndex, moves: readonly CableMove[]): PlanIndex => moves.reduce(movedOnce, index);

/** What was read and in which state of the copy: which cables were moved, which faults mended. */
export interface Look {
  readonly ask: Ask;
  readonly moves: readonly CableMove[];
  /** By fault, whether it was mended by then. */
  readonly mended: readonly boolean[];
}

/** Some faults as one, each made after the one before; null for none. */
const together = (faults: readonly Suspect[]): Suspect | null =>
  faults.reduce<Suspect | null>((all, suspect) => (all === null ? suspect : pairOf(all, suspect)), null);

/** A copy of a site in which something is wrong: one fault, or two at once. */
export class Copy {
  readonly study: Study;
  readonly faults: readonly Suspect[];
  readonly #read = new Map<string, Predicted | null>();

  constructor(study: Study, faults: readonly Suspect[]) {
    this.study = study;
    this.faults = faults;
  }

  get index(): PlanIndex {
    return this.study.index;
  }

  /** What a reading comes to without a fault, with the cables as they are. */
  planned({ ask, moves }: Look): Predicted {
    return moves.length === 0 ? this.study.planned(ask) : onPlan(moved(this.index, moves), ask);
  }

  /** What it comes to in this copy. */
  seen(look: Look): Predicted {
    return must(this.seenOrNull(look), "a copy with its faults is a plan");
  }

  /** The same; null where the faults cannot be on the site together. */
  seenOrNull(look: Look): Predicted | null {
    const left = this.faults.filter((_, at) => look.mended[at] !== true);
    return this.#with(together(left), look);
  }

  /**
   * What it comes to were one of the faults another one; null where that is no plan. Once the fault is mended,
   * nothing is said of it any more: null, too.
   */
  seenIf(at: number, suspect: Suspect, look: Look): Predicted | null {
    if (look.mended[at] === true) return null;
    const left = this.faults.map((fault, i) => (i === at ? suspect : fault));
    return this.#with(together(left.filter((_, i) => look.mended[i] !== true)), look);
  }

  /** Everything that would be wrong with another fault in the place of one. */
  withOther(at: number, suspect: Suspect): Suspect {
    return together(this.faults.map((fault, i) => (i === at ? suspect : fault))) ?? suspect;
  }

  /** Whether what was read fits another fault in the place of one. */
  fits(at: number, suspect: Suspect, look: Look): boolean {
    if (look.mended[at] === true) return true;
    return this.seenIf(at, suspect, look)?.key === this.seen(look).key;
  }

  #with(fault: Suspect | null, look: Look): Predicted | null {
    if (fault === null) return this.planned(look);
    if (look.moves.length === 0) return this.study.predicted(fault, look.ask);
    const key = JSON.stringify([fault.id, askKey(look.ask), look.moves]);
    const known = this.#read.get(key);
    if (known !== undefined) return known;
    const site = this.study.site(fault);
    const made = site === null ? null : predict(moved(site, look.moves), fault, look.ask);
    this.#read.set(key, made);
    return made;
  }
}

/** A look at the copy as it is rung in: no cable moved, nothing mended. */
export const firstLook = (ask: Ask): Look => ({ ask, moves: [], mended: [] });

/** The site with the faults that are left and cables moved: whether a port is in use in truth. */
export function isPortInUse(copy: Copy, port: string, { moves, mended }: Omit<Look, "ask">): boolean {
  const fault = together(copy.faults.filter((_, at) => mended[at] !== true));
  const site = fault === null ? copy.index : (copy.study.site(fault) ?? copy.index);
  return isInUse(moved(site, moves), port);
}
