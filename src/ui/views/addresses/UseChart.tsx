"use client";

import { clsx } from "clsx";
import { Bar, BarChart, CartesianGrid, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { useOfSubnets } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";

const ROW_PX = 30;
const share = (part: number, whole: number): number =>
  whole === 0 ? 0 : Math.round((part / whole) * 1000) / 10;

/**
 * How full every subnet is: fixed addresses, the rest of its pools, what is free; in percent of the usable,
 * the counts beside.
 */
// eslint-disable-next-line max-lines-per-function -- one table with its bars
export function UseChart() {
  const index = useIndex();
  const select = useUi((state) => state.select);
  const uses = useOfSubnets(index);
  const data = uses.map(({ segment, usable, fixed, pooled, free }) => ({
    name: segment.name,
    fixed: share(fixed, usable),
    pooled: share(pooled, usable),
    free: share(free, usable),
  }));
  return (
    <>
      <p
        className={clsx(
          "flex min-h-7 flex-none flex-wrap items-center gap-x-4 border-b border-hair px-4",
          "text-12 text-ink2",
        )}
      >
        <span className="inline-flex items-center gap-1">
          <span className="h-3 w-5 border border-ink bg-ink" />
          gateway and fixed addresses
        </span>
        <span className="inline-flex items-center gap-1">
          <span className="h-3 w-5 border border-ink bg-act" />
          the rest of the pools
        </span>
        <span className="inline-flex items-center gap-1">
          <span className="h-3 w-5 border border-rule bg-panel" />
          free
        </span>
        <span className="ml-auto">in percent of the usable addresses</span>
      </p>
      <div className="grid flex-none grid-cols-[minmax(0,1fr)_auto] border-b border-ink px-4 py-2">
        <div
          style={{ height: uses.length * ROW_PX + 30 }}
          role="img"
          aria-label={uses
            .map(
              (use) =>
                `${use.segment.name}: ${use.fixed} fixed, ${use.pooled} ` +
                `in the pool, ${use.free} free of ${use.usable}`,
            )
            .join("; ")}
        >
          <ResponsiveContainer width="100%" height="100%" initialDimension={{ width: 520, height: 300 }}>
            <BarChart
              data={data}
              layout="vertical"
              margin={{ top: 0, right: 12, bottom: 0, left: 4 }}
              barSize={16}
            >
              <CartesianGrid horizontal={false} stroke="var(--hair)" />
              <XAxis
                type="number"
                domain={[0, 100]}
                allowDataOverflow
                ticks={[0, 25, 50, 75, 100]}
                tickFormatter={(value: number) => `${value} %`}
                tick={{ fontSize: 12, fill: "var(--ink2)" }}
                stroke="var(--rule)"
                height={26}
              />
              <YAxis
                type="category"
                dataKey="name"
                width={110}
                tick={{ fontSize: 13, fill: "var(--ink)" }}
                stroke="var(--ink)"
                tickLine={false}
                interval={0}
              />
              <Tooltip
                cursor={{ fill: "var(--hover)" }}
                itemStyle={{ color: "var(--ink)" }}
                labelStyle={{ color: "var(--ink2)" }}
                contentStyle={{
                  background: "var(--panel)",
                  border: "1px solid var(--rule)",
                  borderRadius: 3,
                  fontSize: 13,
                  color: "var(--ink)",
                }}
                formatter={(value, name) => [`${String(value)} %`, String(name)]}
              />
              <Bar
                dataKey="fixed"
                stackId="use"
                name="fixed"
                fill="var(--ink)"
                stroke="var(--ink)"
                isAnimationActive={false}
              />
              <Bar
                dataKey="pooled"
                stackId="use"
                name="rest of the pool"
                fill="var(--act)"
                stroke="var(--ink)"
                isAnimationActive={false}
              />
              <Bar
                dataKey="free"
                stackId="use"
                name="free"
                fill="var(--panel)"
                stroke="var(--rule)"
                isAnimationActive={false}
              />
            </BarChart>
          </ResponsiveContainer>
        </div>
        <table className="table close still !w-auto self-start" aria-label="Use of the subnets">
          <thead>
            <tr>
              <th scope="col">Tape</th>
              <th scope="col" className="right">
                Fixed
              </th>
              <th scope="col" className="right">
                Pool
              </th>
              <th scope="col" className="right">
                Free
              </th>
              <th scope="col" className="right">
                Usable
              </th>
            </tr>
          </thead>
          <tbody>
            {uses.map((use) => (
              <tr key={use.segment.id} style={{ height: ROW_PX }}>
                <td>
                  <button
                    type="button"
                    aria-label={use.segment.name}
                    onClick={() => select({ what: "segment", id: use.segment.id })}
                  >
                    <SegmentChip segment={use.segment} />
                  </button>
                </td>
                <td className="mono right">{use.fixed}</td>
                <td className="mono right">{use.pooled}</td>
                <td className="mono right">{use.free}</td>
                <td className="mono right">{use.usable}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}
