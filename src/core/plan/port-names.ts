import type { PlanIndex } from "./plan-index";
import type { Device, Port } from "./schema/hardware";

const bare = (text: string): string => text.toLowerCase().replace(/[\s_]/g, "");

/** The last number in a text; null without one. */
export function lastNumber(text: string): number | null {
  const [last] = /\d+(?=\D*$)/.exec(text) ?? [];
  return last === undefined ? null : Number(last);
}

/**
 * Finds ports of a device by what its software or its case calls them: by the software's name, by the label,
 * and where neither is meant by the only port that has the same number, in either of them.
 */
export class PortNames {
  readonly #exact = new Map<string, Port | null>();
  readonly #numbers = new Map<number, Port | null>();

  constructor(index: PlanIndex, device: Device) {
    const ports = index.portsOf(device.id);
    const note = <K>(names: Map<K, Port | null>, name: K, port: Port) =>
      names.set(name, names.has(name) && names.get(name) !== port ? null : port);
    for (const port of ports) {
      note(this.#exact, bare(port.label), port);
      note(this.#exact, bare(`port ${port.label}`), port);
      for (const number of [lastNumber(port.label), lastNumber(port.softwareName)])
        if (number !== null) note(this.#numbers, number, port);
    }
    // The software's own name stands before a label that looks the same.
    for (const port of ports) if (port.softwareName !== "") this.#exact.set(bare(port.softwareName), port);
  }

  /** The port; null where none is called so, or more than one could be meant. */
  find(text: string): Port | null {
    const exact = this.#exact.get(bare(text));
    if (exact !== undefined) return exact;
    const number = lastNumber(text);
    return number === null ? null : (this.#numbers.get(number) ?? null);
  }
}
