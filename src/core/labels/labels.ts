import { CABLE_WORDS, MEDIUM_WORDS } from "../cabling";
import { KINDS, nameOf, type Kind, type PlanIndex, type Port } from "../plan";
import { stillCounts, type Recorded } from "../records";
import {
  cabinets,
  cablesInOrder,
  devicesInOrder,
  jacketOf,
  pluggedIn,
  type CableRow,
  type Tape,
} from "../sheets";

/** What labels are made for. */
export const LABEL_KINDS = ["cable", "socket", "port", "cabinet", "device"] as const;
export type LabelKind = (typeof LABEL_KINDS)[number];

/** What stands on one label. */
export interface Label {
  /** What it is for: the same as long as that is the same thing. */
  readonly key: string;
  readonly kind: LabelKind;
  /** What is read from afar. */
  readonly title: string;
  readonly lines: readonly string[];
  readonly tapes: readonly Tape[];
  /** What its code opens; null where nothing does. */
  readonly opens: { readonly kind: Kind; readonly id: string } | null;
}

const tapesAt = (index: PlanIndex, port: Port): Tape[] => {
  const { tip, rings } = jacketOf(index, port);
  return [...(tip === null ? [] : [tip]), ...rings];
};

const wordsOf = ({ link: { medium, cable, lengthCm } }: CableRow): string =>
  [
    cable === "unknown" ? MEDIUM_WORDS[medium] : CABLE_WORDS[cable],
    lengthCm === null ? "" : `${lengthCm / 100}\u00a0m`,
  ]
    .filter((part) => part !== "")
    .join(", ");

/** Both ends of a cable: each says where it is and where the other one is. */
function ofCable(index: PlanIndex, row: CableRow): Label[] {
  const { link, from, fromPort, to, toPort } = row;
  const ends = [
    {
      which: "a",
      here: `${from.name} ${fromPort.label}`,
      there: `${to.name} ${toPort.label}`,
      port: fromPort,
    },
    { which: "b", here: `${to.name} ${toPort.label}`, there: `${from.name} ${fromPort.label}`, port: toPort },
  ];
  return ends.map(({ which, here, there, port }): Label => ({
    key: `cable ${which} ${link.id}`,
    kind: "cable",
    title: link.label === "" ? here : link.label,
    lines: [...(link.label === "" ? [] : [here]), `to ${there}`, wordsOf(row)],
    tapes: tapesAt(index, port),
    opens: { kind: "link", id: link.id },
  }));
}

const ofSocket = (index: PlanIndex, { link, from, fromPort }: CableRow): Label[] =>
  link.socket === ""
    ? []
    : [
        {
          key: `socket ${link.id}`,
          kind: "socket",
          title: link.socket,
          lines: [`${from.name} ${fromPort.label}`, ...(link.panel === "" ? [] : [`panel ${link.panel}`])],
          tapes: tapesAt(index, fromPort),
          opens: { kind: "link", id: link.id },
        },
      ];

function portLabels(index: PlanIndex): Label[] {
  return devicesInOrder(index).flatMap((device) =>
    index.portsOf(device.id).flatMap((port): Label[] => {
      const plugged = pluggedIn(index, port);
      return plugged === ""
        ? []
        : [
            {
              key: `port ${port.id}`,
              kind: "port",
              title: `${device.name} ${port.label}`,
              lines: [plugged],
              tapes: tapesAt(index, port),
              opens: { kind: "port", id: port.id },
            },
          ];
    }),
  );
}

const cabinetLabels = (index: PlanIndex): Label[] =>
  cabinets(index)
    .filter(({ place, units }) => place !== "" && units > 0)
    .map(({ place, racked, feeds }): Label => {
      const room = index.roomAt(place);
      return {
        key: `cabinet ${room?.id ?? place}`.slice(0, MOST_KEY),
        kind: "cabinet",
        title: place,
        lines: [
          racked.map(({ device }) => device.name).join(", "),
          feeds.length === 0 ? "" : `fed by ${feeds.map(({ feed }) => feed).join(", ")}`,
        ].filter((line) => line !== ""),
        tapes: [],
        opens: room === undefined ? null : { kind: "room", id: room.id },
      };
    });
/** As long as a key can be in the record. */
const MOST_KEY = 60;

const deviceLabels = (index: PlanIndex): Label[] =>
  devicesInOrder(index).map(({ id, model, place }): Label => ({
    key: `device ${id}`,
    kind: "device",
    title: nameOf(index, "device", id),
    lines: [model, place].filter((line) => line !== ""),
    tapes: [],
    opens: { kind: "device", id },
  }));

const MAKERS: Readonly<Record<LabelKind, (index: PlanIndex) => Label[]>> = {
  cable: (index) => cablesInOrder(index).flatMap((row) => ofCable(index, row)),
  socket: (index) => cablesInOrder(index).flatMap((row) => ofSocket(index, row)),
  port: portLabels,
  cabinet: cabinetLabels,
  device: deviceLabels,
};

/** The labels of these kinds, in the order of the schedules. */
export const labelsOf = (index: PlanIndex, kinds: readonly LabelKind[]): Label[] =>
  LABEL_KINDS.filter((kind) => kinds.includes(kind)).flatMap((kind) => MAKERS[kind](index));

/**
 * The address that opens a thing of a site in Dianome; what follows the # stays in the browser that opens it.
 */
export const labelAddress = (
  base: string,
  site: string,
  { kind, id }: { readonly kind: Kind; readonly id: string },
): string => `${base.replace(/\/$/, "")}/sites/${site}/hardware#${kind}=${id}`;

/** What an address of a label names after its #: null for what is no such address. */
export function namedByLabel(hash: string): { readonly kind: Kind; readonly id: string } | null {
  const [, kind, id] = /^#([a-zA-Z]+)=([\da-f-]{36})$/.exec(hash) ?? [];
  const known = KINDS.find((own) => own === kind);
  return known === undefined || id === undefined ? null : { kind: known, id };
}

/** A prime, and a bound below which its multiples are whole numbers without loss. */
const FACTOR = 131;
const BOUND = 2 ** 45;
/** What stands on a label, in a few signs: another text has, nearly always, another mark. */
function markOf({ title, lines, tapes, opens }: Label, linkBase: string): string {
  const taped = tapes.map(({ mark, base, tracer }) => [mark, base, tracer]);
  const text = JSON.stringify([title, lines, taped, opens === null ? "" : linkBase]);
  let sum = 7;
  for (let at = 0; at < text.length; at += 1) sum = (sum * FACTOR + text.charCodeAt(at)) % BOUND;
  return sum.toString(36);
}

/** What was printed last for each label, by its mark. */
function printedMarks(record: readonly Recorded[]): ReadonlyMap<string, string> {
  return new Map(
    stillCounts(record).flatMap(({ entry }) => (entry.do === "labels" ? [...entry.printed] : [])),
  );
}

/** The labels that were never printed as they are now, with codes that lead to that address. */
export function newLabels(labels: readonly Label[], linkBase: string, record: readonly Recorded[]): Label[] {
  const marks = printedMarks(record);
  return labels.filter((label) => marks.get(label.key) !== markOf(label, linkBase));
}

/** What the record says of labels that were printed. */
export const asPrinted = (labels: readonly Label[], linkBase: string): [key: string, mark: string][] =>
  labels.map((label) => [label.key, markOf(label, linkBase)]);

/** When labels were printed last: an instant; null for never. */
export const lastPrint = (record: readonly Recorded[]): string | null =>
  stillCounts(record).findLast(({ entry }) => entry.do === "labels")?.entry.at ?? null;
