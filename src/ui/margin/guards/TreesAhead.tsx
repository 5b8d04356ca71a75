"use client";

import { useMemo, useState } from "react";
import { fullest, migration, shareRoots, treeReach, treeTimes, type TreeLoad } from "@/core/guards";
import { nameOf, type PlanIndex } from "@/core/plan";
import { counted } from "@/core/repairs";
import { useIndex } from "../../plan-store/use-plan";
import { RepairChoice } from "../findings/RepairChoice";
import { Caution, Section } from "../parts";

type Asked = "roots" | "migration" | "times";
const QUESTIONS: readonly (readonly [Asked, string])[] = [
  ["roots", "Share the load"],
  ["migration", "Go over to multiple trees"],
  ["times", "How long a change takes"],
];
const MOST = 12;

const percent = ({ kbps, mbps }: Pick<TreeLoad, "kbps" | "mbps">): string =>
  mbps === 0 ? "–" : `${((100 * kbps) / 1000 / mbps).toFixed(2)} %`;

function cableName(index: PlanIndex, link: string): string {
  const cable = index.plan.link.get(link);
  if (cable === undefined) return "a removed cable";
  return cable.label === ""
    ? `${nameOf(index, "port", cable.a)} to ${nameOf(index, "port", cable.b)}`
    : cable.label;
}

/** Roots that let the cables share the load, and how full the cables are before and after. */
function Roots() {
  const index = useIndex();
  const shared = useMemo(() => shareRoots(index), [index]);
  if (shared === null)
    return (
      <p className="px-4 text-13">
        There is one tree for all VLANs, so one root for all: loads are shared where a region has instances,
        or each VLAN its own tree.
      </p>
    );
  const before = new Map(shared.before.map((load) => [load.link, load]));
  const rows = [...shared.after].sort((a, b) => b.kbps / b.mbps - a.kbps / a.mbps).slice(0, MOST);
  return (
    <>
      <p className="px-4 text-13">
        The fullest cable carries {(100 * fullest(shared.before)).toFixed(2)} % of its speed now
        {shared.repair === null
          ? ", and no other roots would make it less."
          : `, and ${(100 * fullest(shared.after)).toFixed(2)} % then.`}
      </p>
      <ul className="px-4 text-13" aria-label="Roots">
        {shared.roots.slice(0, MOST).map(({ words, root, second }) => (
          <li key={words} className="border-t border-hair py-[3px]">
            <b className="font-semibold">{words}</b>: {root.name}
            {second === null ? "" : `, then ${second.name}`}
          </li>
        ))}
      </ul>
      <table className="table mx-4 w-auto text-13" aria-label="Load of each cable">
        <thead>
          <tr>
            <th scope="col">cable</th>
            <th scope="col">now</th>
            <th scope="col">then</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((load) => (
            <tr key={load.link}>
              <td>{cableName(index, load.link)}</td>
              <td className="mono">{percent(before.get(load.link) ?? { ...load, kbps: 0 })}</td>
              <td className="mono">{percent(load)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {shared.repair === null ? null : (
        <div className="px-4">
          <RepairChoice repairs={[shared.repair]} />
        </div>
      )}
    </>
  );
}

const portsText = (index: PlanIndex, words: string, ports: readonly { readonly id: string }[]): string =>
  ports.length === 0 ? "" : `${words} ${ports.map(({ id }) => nameOf(index, "port", id)).join(", ")}`;

/** The order in which switches go over from rapid to multiple trees, each state in between simulated. */
function Steps() {
  const index = useIndex();
  const way = useMemo(() => migration(index), [index]);
  if (way === null)
    return (
      <p className="px-4 text-13">
        No switch runs a rapid tree that could run multiple ones. What it can run is ticked in its margin.
      </p>
    );
  return (
    <>
      <p className="px-4 text-13">
        {way.isClean
          ? "In this order no state in between has a loop or a split that the first and the last do not have."
          : "No order without a loop or a split in between was found; do it while nobody works."}
      </p>
      <ol className="list-decimal pl-9 pr-4 text-13" aria-label="Order of the switches">
        {way.steps.map(({ device, blocks, opens }) => {
          const changes = [portsText(index, "blocks", blocks), portsText(index, "opens", opens)]
            .filter((text) => text !== "")
            .join("; ");
          return (
            <li key={device.id} className="py-[3px]">
              <b className="font-semibold">{device.name}</b>
              {changes === "" ? ", no port changes" : `: ${changes}`}
            </li>
          );
        })}
      </ol>
      {way.unknown.length === 0 ? null : (
        <p className="px-4 text-13 text-warn">
          {way.unknown.map(({ name }) => name).join(", ")} {way.unknown.length === 1 ? "runs" : "run"} one
          tree per VLAN, which is no standard: how it meets a region can’t be known here. Look it up on the
          gear’s leaflet and try it on two of them first.
        </p>
      )}
      <Caution head="Each change interrupts.">
        All ports of a switch begin anew when its kind of tree is changed; the far end first, your own way
        last.
      </Caution>
      <div className="px-4">
        <RepairChoice repairs={[way.repair]} />
      </div>
    </>
  );
}

/** How far the tree reaches and how long what happens to it takes. */
function Times() {
  const index = useIndex();
  const reaches = useMemo(() => treeReach(index), [index]);
  if (reaches.length === 0) return <p className="px-4 text-13">No two bridges run a tree together yet.</p>;
  return reaches.map(({ root, furthest, hops, most }) => (
    <div key={root.id} className="flex flex-col gap-1 px-4 text-13">
      <p>
        From <b className="font-semibold">{root.name}</b>, whose timers hold for all, it is{" "}
        {counted(hops, "cable", "cables")} to {furthest}; {most} would be the most.
      </p>
      <ul>
        {treeTimes(root).map(({ what, takes, why }) => (
          <li key={what} className="border-t border-hair py-[3px]">
            {what}: <b className="font-semibold">{takes}</b>
            <p className="text-ink2">{why}</p>
          </li>
        ))}
      </ul>
    </div>
  ));
}

/** What can be asked of the trees as a whole. */
export function TreesAhead() {
  const [asked, setAsked] = useState<Asked | null>(null);
  return (
    <Section title="Trees">
      <div className="flex flex-wrap gap-[6px] px-4">
        {QUESTIONS.map(([choice, words]) => (
          <button
            key={choice}
            type="button"
            className="button !min-h-7"
            aria-pressed={asked === choice}
            onClick={() => setAsked(asked === choice ? null : choice)}
          >
            {words}
          </button>
        ))}
      </div>
      <div className="flex flex-col gap-2 pt-2" aria-live="polite">
        {asked === "roots" ? <Roots /> : null}
        {asked === "migration" ? <Steps /> : null}
        {asked === "times" ? <Times /> : null}
      </div>
    </Section>
  );
}
