import type { Plan } from "../plan";
import { asLabel } from "../planners";

const LONGEST = 63;

/**
 * Host names by the site's pattern: {place}, {kind}, {segment} and {n}, counted from 1 past every name that
 * is taken.
 */
export class HostNames {
  readonly #pattern: string;
  readonly #taken: Set<string>;

  constructor(plan: Plan) {
    this.#pattern = plan.site.conventions.namePattern;
    this.#taken = new Set([
      ...[...plan.host.values()].map((host) => host.name.toLowerCase()),
      ...[...plan.device.values()].map((device) => device.name.toLowerCase()),
    ]);
  }

  next(place: string, kind: string, segment: string): string {
    for (let n = 1; ; n += 1) {
      const stem = asLabel(
        this.#pattern
          .replaceAll("{place}", place)
          .replaceAll("{kind}", kind)
          .replaceAll("{segment}", segment)
          .replaceAll("{n}", `-${n}-`),
      );
      const numbered = this.#pattern.includes("{n}") ? stem : `${stem}-${n}`;
      const ending = `-${n}`;
      // A long name is cut before its number, which is what tells two of them apart.
      const name =
        numbered.length <= LONGEST
          ? numbered
          : `${numbered.slice(0, LONGEST - ending.length).replace(/-+$/, "")}${ending}`;
      if (this.#taken.has(name)) continue;
      this.#taken.add(name);
      return name;
    }
  }
}
