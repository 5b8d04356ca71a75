"use client";

import { counted } from "@/core/repairs";
import { endOfPair, type IntentAt, type Proof, type ProvenPair } from "@/core/walls";
import { useUi } from "../../frame/use-ui";
import { SeveritySign } from "../../kit/signs";

const NAMES = { internet: "Internet", gateway: "Gateway" } as const;
const nameOf = (end: ProvenPair["from"] | ProvenPair["to"]): string =>
  typeof end === "string" ? NAMES[end] : end.name;

const MOST_NAMED = 12;
const TICK = 3;

/** The ticks of the proof: one for each pair, a tall one in the stop colour where a packet differs. */
function Ticks({ pairs }: { pairs: readonly ProvenPair[] }) {
  const step = Math.max(0.25, Math.min(TICK, 420 / Math.max(pairs.length, 1)));
  return (
    <svg
      width={Math.ceil(pairs.length * step)}
      height={18}
      role="img"
      aria-label="A tick for each pair; a long one differs"
      className="flex-none"
    >
      {pairs.map(({ from, to, difference }, at) => (
        <rect
          key={`${nameOf(from)} ${nameOf(to)}`}
          x={at * step}
          y={difference === null ? 4 : 0}
          width={Math.max(step * 0.55, difference === null ? 0.2 : 1.5)}
          height={difference === null ? 10 : 18}
          className={difference === null ? "fill-sound" : "fill-stop"}
        />
      ))}
    </svg>
  );
}

/** Whether a list does for every packet what the grid says, and for which pairs it does not. */
export function ProofStrip({
  proof,
  rules,
  of,
  when = "",
}: {
  proof: Proof;
  rules: number;
  of: IntentAt;
  /** When it was looked at, where that makes a difference. */
  when?: string;
}) {
  const select = useUi((state) => state.select);
  const wrong = proof.pairs.filter(({ difference }) => difference !== null);
  const right = proof.pairs.length - wrong.length;
  return (
    <section aria-label="Proof" className="border-t border-ink px-4 py-2">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <h3 className="text-13">Proof</h3>
        <Ticks pairs={proof.pairs} />
        <p role="status" className="flex items-center gap-1 text-13">
          {wrong.length === 0 ? null : (
            <span className="text-stop">
              <SeveritySign severity="stop" />
            </span>
          )}
          <span>
            Every packet at {of.device.name}, {counted(rules, "rule", "rules")}
            {when}:{" "}
            <b className="font-semibold">
              {right} of {proof.pairs.length}
            </b>{" "}
            pairs do as the grid says.
          </span>
        </p>
        <span className="text-12 text-ink2" title="both families, all IP protocols, all ports">
          {proof.packets.toLocaleString("en-GB")} packets
        </span>
      </div>
      {wrong.length === 0 ? null : (
        <ul className="mt-1 flex flex-wrap gap-[6px]" aria-label="Pairs that differ">
          {wrong.slice(0, MOST_NAMED).map(({ from, to }) => (
            <li key={`${nameOf(from)} ${nameOf(to)}`}>
              <button
                type="button"
                className="button !min-h-6 text-12"
                onClick={() => select({ what: "wall", from: endOfPair(from), to: endOfPair(to) })}
              >
                {nameOf(from)} to {nameOf(to)}
              </button>
            </li>
          ))}
          {wrong.length > MOST_NAMED ? (
            <li className="text-13 text-ink2">and {wrong.length - MOST_NAMED} more</li>
          ) : null}
        </ul>
      )}
    </section>
  );
}
