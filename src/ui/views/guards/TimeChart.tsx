"use client";

import { Bar, BarChart, Cell, LabelList, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from "recharts";
import type { Host } from "@/core/plan";
import { QUICK, type TimeAt, type Timeline } from "@/core/guards";

const ROW_PX = 38;
type Kind = Timeline["spans"][number]["kind"] | "waits";
const FILLS: Readonly<Record<Kind, string>> = {
  asks: "var(--panel)",
  server: "var(--act-wash)",
  in: "var(--act-wash)",
  waits: "var(--panel)",
};

interface Piece {
  readonly seconds: number;
  readonly what: string;
  readonly kind: Kind;
}
interface Row {
  readonly name: string;
  readonly pieces: readonly Piece[];
}

/** What goes on at the port, what could go on, and what the device does meanwhile. */
function rowsOf({ is, couldBe, waits }: TimeAt, host: Host, end: number): Row[] {
  const of = (name: string, { spans, ready }: Timeline): Row => ({
    name,
    pieces: [
      ...spans.map(({ from, to, what, kind }) => ({ seconds: to - from, what, kind })),
      ...(ready === null || ready >= end ? [] : [{ seconds: end - ready, what: "in", kind: "in" as const }]),
    ],
  });
  return [
    of("The switch", is),
    ...(couldBe === null ? [] : [of("It could be", couldBe)]),
    {
      name: host.name.length > 18 ? `${host.name.slice(0, 17)}…` : host.name,
      pieces: [{ seconds: Math.min(waits ?? end, end), what: "asks for an address", kind: "waits" }],
    },
  ];
}

/** From link up to network, to scale: what the switch does above what the device waits for. */
export function TimeChart({ time, host }: { time: TimeAt; host: Host }) {
  const { is, couldBe, waits } = time;
  const last = Math.max(is.spans.at(-1)?.to ?? 0, waits ?? 0, 10);
  const end = Math.ceil((last * 1.1) / 10) * 10;
  const rows = rowsOf(time, host, end);
  const most = Math.max(...rows.map(({ pieces }) => pieces.length));
  const data = rows.map(({ name, pieces }) => ({
    name,
    ...Object.fromEntries(pieces.map(({ seconds }, at) => [`s${at}`, seconds])),
  }));
  const late = is.ready !== null && waits !== null && is.ready > waits;
  return (
    <section aria-label="From link up to the network" className="border-t border-ink px-4 pt-2 pb-3">
      <h2 className="flex flex-wrap items-baseline gap-x-3 text-15">
        From link up to the network
        <span className="text-13 font-normal text-ink2">{host.name}, seconds</span>
      </h2>
      <div style={{ height: rows.length * ROW_PX + 28 }} role="img" aria-label={is.sum}>
        <ResponsiveContainer width="100%" height="100%" initialDimension={{ width: 640, height: 140 }}>
          <BarChart
            data={data}
            layout="vertical"
            margin={{ top: 4, right: 12, bottom: 0, left: 4 }}
            barSize={22}
          >
            <XAxis
              type="number"
              orientation="top"
              domain={[0, end]}
              allowDataOverflow
              tick={{ fontSize: 12, fill: "var(--ink2)" }}
              stroke="var(--rule)"
              height={22}
            />
            <YAxis
              type="category"
              dataKey="name"
              width={130}
              tick={{ fontSize: 13, fill: "var(--ink)" }}
              stroke="var(--ink)"
            />
            {Array.from({ length: most }, (_, at) => (
              <Bar key={at} dataKey={`s${at}`} stackId="time" isAnimationActive={false} stroke="var(--ink)">
                {rows.map(({ name, pieces }) => (
                  <Cell key={name} fill={FILLS[pieces[at]?.kind ?? "asks"]} />
                ))}
                <LabelList
                  valueAccessor={(_: unknown, row: number) => {
                    const piece = rows[row]?.pieces[at];
                    return piece === undefined || piece.seconds / end < 0.12 ? "" : piece.what;
                  }}
                  position="insideLeft"
                  fill="var(--ink)"
                  fontSize={12}
                />
              </Bar>
            ))}
            {waits === null ? null : (
              <ReferenceLine x={waits} stroke="var(--stop)" strokeDasharray="4 3" strokeWidth={2} />
            )}
          </BarChart>
        </ResponsiveContainer>
      </div>
      <p className="text-13 text-ink2">
        {is.sum}
        {couldBe === null
          ? "."
          : `; asked ${QUICK.tries} x ${QUICK.waitSeconds} s: ${couldBe.sum.split(" = ").at(-1)}.`}{" "}
        {late ? (
          <b className="font-semibold text-stop">
            It rests after {waits} s, until it is switched off and on.
          </b>
        ) : null}
      </p>
    </section>
  );
}
