import { parseMac } from "@/core/address";
import { serverAnswer, type ServerAnswer } from "@/core/guards";
import type { PlanIndex } from "@/core/plan";
import { vlanAttributes } from "./answers";
import type { Changed, Listener } from "./change";
import { ATTRIBUTES, CODES, textAttribute, valueOf, type Attribute, type Packet } from "./packet";

/** Somebody who was let in: where it asked from, by what, and as what. */
export interface Session {
  readonly address: string;
  readonly station: string;
  readonly name: string;
  readonly site: string;
  readonly host: string;
  readonly vid: number | null;
}

const MOST = 10_000;

type Send = (
  to: Omit<Listener, "secret">,
  code: number,
  attributes: readonly Attribute[],
) => Promise<Changed>;

/** Who was let in, so that a change of the plan can be told to the switch (RFC 5176). */
export class Sessions {
  readonly #open = new Map<string, Session>();

  /** Notes who was let in by the switch at an address. */
  note(packet: Packet, address: string, site: string, answer: Extract<ServerAnswer, { letsIn: true }>): void {
    const name = valueOf(packet, ATTRIBUTES.userName)?.toString("utf8") ?? "";
    const station = valueOf(packet, ATTRIBUTES.callingStation)?.toString("utf8") ?? name;
    if (this.#open.size >= MOST && !this.#open.has(station)) return;
    this.#open.set(station, { address, station, name, site, host: answer.host.id, vid: answer.vid });
  }

  get size(): number {
    return this.#open.size;
  }

  /**
   * Tells the switches of everybody whom the plan of now puts elsewhere, or does not know any more; answers
   * what came of each.
   */
  async follow(
    index: PlanIndex,
    send: Send,
  ): Promise<{ readonly station: string; readonly changed: Changed }[]> {
    const told: { station: string; changed: Changed }[] = [];
    for (const session of [...this.#open.values()].filter(({ site }) => site === index.plan.site.id)) {
      const { station, name, address } = session;
      const mac = parseMac(name);
      const now = serverAnswer(index, mac === null ? { by: "name", name } : { by: "mac", mac });
      if (now.letsIn && now.vid === session.vid) continue;
      const port = (now.letsIn ? now.profile : undefined)?.changePort ?? changePortIn(index);
      if (port === null) continue;
      const who = [
        textAttribute(ATTRIBUTES.userName, name),
        textAttribute(ATTRIBUTES.callingStation, station),
      ];
      const changed = now.letsIn
        ? await send({ address, port }, CODES.changeRequest, [...who, ...vlanAttributes(now)])
        : await send({ address, port }, CODES.disconnectRequest, who);
      told.push({ station, changed });
      // Who did not take it is told again with the next change of the plan.
      if (changed !== "ack") continue;
      if (!now.letsIn) this.#open.delete(station);
      else this.#open.set(station, { ...session, vid: now.vid });
    }
    return told;
  }
}

/** Where the switches of a site take changes, for somebody whom no profile is for any more. */
const changePortIn = ({ plan }: PlanIndex): number | null =>
  [...plan.signIn.values()].find(({ changePort }) => changePort !== null)?.changePort ?? null;
