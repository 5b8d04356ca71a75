import { nameOf, type PlanIndex } from "../plan";
import { emissionsOf, type Message } from "../probe";
import { FABRIC, type Tag } from "../fabric";
import { CLASS_FACTS, type Marks } from "../policy";
import { bpduFrame } from "./bpdu";
import { messageFrame } from "./frame";
import { marksAt, sendersIn } from "./marks";

/** A frame as it would be seen at a port. `ms` counts from the first. */
export interface SeenFrame {
  readonly ms: number;
  readonly what: string;
  readonly tag: Tag;
  readonly bytes: readonly number[];
}

/** From one frame to the next, in ms: as fast as gear answers, so that a person can tell them apart. */
const PACE_MS = 4;

/**
 * What somebody who listens at a port during an exchange would see: what the port itself says, and every
 * frame of the exchange that crosses its cable, with the tag it bears there.
 */
export function listenAt(index: PlanIndex, exchange: readonly Message[], port: string): SeenFrame[] {
  const fabric = index.derived(FABRIC);
  const number = fabric.portNumber.get(port);
  const wire = number === undefined ? -1 : (fabric.wireOf[number] ?? -1);
  const own = index.plan.port.get(port);
  const said = own === undefined ? null : bpduFrame(index, own);
  const hello: SeenFrame[] =
    said === null || wire < 0
      ? []
      : [{ ms: 0, what: `spanning tree, from ${nameOf(index, "port", port)}`, tag: null, bytes: said }];
  if (wire < 0) return [];
  const senders = sendersIn(index, exchange);
  // Frames of other kinds bear no marks.
  const marksOf = ({ content }: Message): Marks =>
    content.kind === "packet" ? marksAt(index, content.packet, senders, port) : CLASS_FACTS.bestEffort;
  return [
    ...hello,
    ...exchange.flatMap((message, i) =>
      emissionsOf(message)
        .filter((emission) => emission.wire === wire)
        .map((emission): SeenFrame => ({
          ms: (i + 1) * PACE_MS,
          what: message.what,
          tag: emission.tag,
          bytes: messageFrame(message, emission.tag, i + 1, marksOf(message)),
        })),
    ),
  ];
}
