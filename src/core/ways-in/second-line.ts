import { catalogueOf } from "../catalogue";
import { nameOf, type Forward, type Line, type PlanIndex } from "../plan";
import { linesBeside, pinsText } from "../planners";
import { asClient, probe } from "../probe";
import { noticesLoss } from "../routing";
import { tryWay } from "./try-way";

/** What becomes of one thing when a line fails. */
export interface OnSecondLine {
  readonly what: string;
  readonly works: boolean;
  readonly says: string;
}

/** What happens when a line fails: who takes over, and what works on that line. */
export interface LineFails {
  /** The line that takes over; null when none does. */
  readonly next: Line | null;
  /** Whether the gateway notices the loss at all. */
  readonly noticed: boolean;
  readonly things: readonly OnSecondLine[];
}

let unused = 0;
const ids = () => {
  unused += 1;
  return `00000000-0000-7000-8000-${String(unused).padStart(12, "0")}`;
};

/**
 * Whether what a forward on the lost line leads to is asked by the other: by a forward there, tried with a
 * packet.
 */
function forwardOn(index: PlanIndex, lost: Forward, next: Line): OnSecondLine {
  const host = nameOf(index, "host", lost.host);
  const other = [...index.plan.forward.values()].find(
    (forward) => forward.line === next.id && forward.host === lost.host && forward.protocol === lost.protocol,
  );
  const what = `Forward ${lost.name}`;
  const goal =
    other === undefined
      ? ({ to: "host", host: lost.host, service: null } as const)
      : ({ to: "forward", forward: other.id } as const);
  const { cause } = probe(index, asClient({ at: "internet", line: next.id }, goal), ids);
  if (cause === null)
    return { what, works: true, says: `${host} is reached by ${other?.name ?? next.name} on ${next.name}.` };
  return { what, works: false, says: cause.sentence };
}

/** Rates of a line in words; empty where they are not known. */
const ratesOf = ({ downMbps, upMbps }: Line): string =>
  downMbps === 0 && upMbps === 0 ? "" : `${downMbps} / ${upMbps} Mbit/s`;

function rates(lost: Line, next: Line): OnSecondLine[] {
  const [was, is] = [ratesOf(lost), ratesOf(next)];
  if (was === "" || is === "") return [];
  return [
    {
      what: "Rates",
      works: next.downMbps >= lost.downMbps && next.upMbps >= lost.upMbps,
      says: `${is} instead of ${was}.`,
    },
  ];
}

/** One call each at the same time: what the phones send, by the catalogue's figure for each. */
function callLoad(index: PlanIndex): { readonly phones: number; readonly kbps: number } {
  const each = catalogueOf(index.plan).find(({ base }) => base === "phone")?.kbps ?? 100;
  const phones = [...index.plan.host.values()].filter(({ kind }) => kind === "phone").length;
  return { phones, kbps: each };
}

/**
 * Whether calls of all phones at the same time fit a line's rate up, with the sum; null without phones or
 * rate.
 */
export function callsOn(index: PlanIndex, line: Line): OnSecondLine | null {
  const { phones, kbps } = callLoad(index);
  if (phones === 0 || line.upMbps === 0) return null;
  const needed = (phones * kbps) / 1000;
  return {
    what: "Calls",
    works: needed <= line.upMbps,
    says:
      `${phones} ${phones === 1 ? "phone" : "phones"} × ${kbps / 1000} Mbit/s = ` +
      `${needed} of ${line.upMbps} Mbit/s up.`,
  };
}

/** What the lost line alone gives: services locked to its box, pins that may go nowhere else. */
function bound(index: PlanIndex, lost: Line): OnSecondLine[] {
  const stays = lost.pins.filter(({ orElse }) => orElse === "stays");
  return [
    ...(lost.locked === ""
      ? []
      : [{ what: lost.locked, works: false, says: `It only works at the provider's box of ${lost.name}.` }]),
    ...(stays.length === 0
      ? []
      : [
          {
            what: "Pinned",
            works: false,
            says: `${pinsText(index, stays)}: pinned to ${lost.name}, and goes out nowhere.`,
          },
        ]),
  ];
}

/** What everybody outside finds of us: the carrier's wall, and the name that follows. */
function fromOutside(lost: Line, next: Line): OnSecondLine[] {
  const carrier: OnSecondLine[] =
    next.carrierNat === "yes"
      ? [
          {
            what: "From outside",
            works: false,
            says: `Nothing comes in by ${next.name}: its carrier translates (carrier-grade NAT).`,
          },
        ]
      : [];
  const name: OnSecondLine[] =
    lost.dynamicName.name === ""
      ? []
      : [
          {
            what: lost.dynamicName.name,
            works: lost.dynamicName.name === next.dynamicName.name,
            says:
              lost.dynamicName.name === next.dynamicName.name
                ? `The name follows ${next.name} as well.`
                : `The name goes on leading to ${lost.name}.`,
          },
        ];
  return [...carrier, ...name];
}

/** What works, and what does not, when a line fails and the next in the order takes over. */
export function whenLineFails(index: PlanIndex, line: Line): LineFails {
  const others = linesBeside(index, line.id).filter(({ id }) => id !== line.id);
  const next = others[0] ?? null;
  const noticed = noticesLoss(line);
  if (next === null) return { next, noticed, things: [] };
  const forwards = [...index.plan.forward.values()].filter((forward) => forward.line === line.id);
  const wishes = [...index.plan.wish.values()].filter(({ way }) => way !== "open" && way !== "forward");
  return {
    next,
    noticed,
    things: [
      ...rates(line, next),
      ...[callsOn(index, next) ?? []].flat(),
      ...bound(index, line),
      ...fromOutside(line, next),
      ...forwards.map((forward) => forwardOn(index, forward, next)),
      ...wishes.flatMap((wish): OnSecondLine[] => {
        if (wish.way === "open") return [];
        const tried = tryWay(index, wish, wish.way, next);
        return [
          { what: wish.name, works: tried.verdict !== "cannot", says: tried.says || "It works there, too." },
        ];
      }),
    ],
  };
}
