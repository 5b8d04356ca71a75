"use client";

import { allocate as allocateCommand } from "@/core/commands";
import { useState, type ReactNode } from "react";
import {
  asPrefix4,
  formatPrefix,
  freePrefixes,
  masksAsSlashes,
  readPrefix,
  type Prefix4,
} from "@/core/address";
import { forbiddenRanges, siteSummary } from "@/core/planners";
import { segmentsInOrder } from "@/core/sheets";
import { Choose } from "../../kit/Choose";
import { Radios } from "../../kit/Radios";
import { useIndex } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";
import { MarginHead, Section } from "../parts";
import { useProposal } from "../findings/Proposal";
import { Renumber, Split, Merge, Six } from "./renumbering";
import { Outcome } from "./Outcome";

type Tool = "allocate" | "renumber" | "split" | "merge" | "six";
const TOOLS: readonly (readonly [Tool, string])[] = [
  ["allocate", "Lay all subnets out anew"],
  ["renumber", "Move a block elsewhere"],
  ["split", "Split a segment in two"],
  ["merge", "Merge two halves"],
  ["six", "IPv6 for every segment"],
];

const FORMS: Record<Tool, () => ReactNode> = {
  allocate: Allocate,
  renumber: Renumber,
  split: Split,
  merge: Merge,
  six: Six,
};

/** The tools of numbering, each previewed; what moves can be had as a list, old and new. */
export function NumberingMargin() {
  const [tool, setTool] = useState<Tool>("allocate");
  const Form = FORMS[tool];
  return (
    <>
      <MarginHead kick="Numbering">The site’s addresses</MarginHead>
      <div className="py-3">
        <Radios label="Tool" value={tool} choices={TOOLS} onChoose={setTool} />
      </div>
      <Form />
      <FreeSpace />
    </>
  );
}

// eslint-disable-next-line max-lines-per-function -- one form with its preview
function Allocate() {
  const index = useIndex();
  const { shown, look, apply, cancel } = useProposal();
  const [refusal, setRefusal] = useState<string | null>(null);
  const [scheme, setScheme] = useState<"octet" | "packed">(index.plan.site.conventions.subnetScheme);
  const [doubled, setDoubled] = useState(false);
  const [keep, setKeep] = useState<ReadonlySet<string>>(new Set());
  const [blocks, setBlocks] = useState("");
  const segments = segmentsInOrder(index);
  const work = () => {
    const chosen = masksAsSlashes(blocks)
      .split(/[\s,]+/)
      .filter((part) => part !== "")
      .map((part) => ({ part, prefix: asPrefix4(readPrefix(part)) }));
    const bad = chosen.find(({ prefix }) => prefix === null);
    if (bad !== undefined)
      return setRefusal(`"${bad.part}" is not a block such as 10.24.0.0/16; the host part must be zero.`);
    const from = chosen.flatMap(({ prefix }) => prefix ?? []);
    if (from.length === 0 && !index.plan.site.blocks.some((block) => block.family === 4))
      return setRefusal("The site has no block; write one here, such as 10.24.0.0/16.");
    setRefusal(look(allocateCommand({ scheme, doubled, keep: [...keep], blocks })));
  };
  return (
    <Section title="Lay all subnets out anew">
      <p className="px-4 pb-1 text-13 text-ink2">
        Each as large as its plan needs with as much again, clear of everything that must stay clear; every
        address in it moves along.
      </p>
      <Choose
        label="Order"
        value={scheme}
        choices={[
          ["octet", "VLAN ID in the third octet"],
          ["packed", "packed, the largest first"],
        ]}
        onChoose={setScheme}
      />
      <Choose
        label="Room behind"
        value={doubled ? "yes" : "no"}
        choices={[
          ["no", "none"],
          ["yes", "as much again, to double in place"],
        ]}
        onChoose={(value) => setDoubled(value === "yes")}
      />
      <label className="grid grid-cols-[92px_minmax(0,1fr)] items-center gap-x-2 px-4 py-[2px] text-13">
        <span className="text-ink2">From</span>
        <input
          className="field mono"
          value={blocks}
          placeholder={
            index.plan.site.blocks
              .filter((b) => b.family === 4)
              .map(formatPrefix)
              .join(", ") || "10.24.0.0/16"
          }
          onChange={(event) => setBlocks(event.target.value)}
        />
      </label>
      <fieldset className="px-4 pt-2 text-13">
        <legend className="text-ink2">Stay where they are</legend>
        <div className="grid grid-cols-2">
          {segments.map((segment) => (
            <label key={segment.id} className="flex min-h-6 items-center gap-2">
              <input
                type="checkbox"
                checked={keep.has(segment.id)}
                onChange={(event) =>
                  setKeep(
                    new Set(
                      segments
                        .filter((s) => (s.id === segment.id ? event.target.checked : keep.has(s.id)))
                        .map((s) => s.id),
                    ),
                  )
                }
              />
              <SegmentChip segment={segment} height={14} />
              <span className="truncate">{segment.name}</span>
            </label>
          ))}
        </div>
      </fieldset>
      <p className="px-4 pt-2">
        <button type="button" className="button go" onClick={work}>
          Preview
        </button>
      </p>
      <Outcome proposal={shown} refusal={refusal} apply={apply} cancel={cancel} />
    </Section>
  );
}

const MOST_FREE = 12;

/** What is left of the blocks, and the fewest prefixes that hold the site: for a route or a VPN to it. */
function FreeSpace() {
  const index = useIndex();
  const taken = [
    ...[...index.plan.segment.values()].flatMap((segment) => segment.prefixes4),
    ...forbiddenRanges(index.plan).map((f) => f.prefix),
  ];
  const free = index.plan.site.blocks
    .filter((block): block is Prefix4 => block.family === 4)
    .flatMap((block) => freePrefixes(block, taken));
  const summary = siteSummary(index.plan);
  return (
    <>
      <Section title="Free in the blocks">
        {free.length === 0 ? (
          <p className="px-4 text-13 text-ink2">
            {index.plan.site.blocks.length === 0 ? "The site has no block yet." : "Nothing is left."}
          </p>
        ) : (
          <p className="mono px-4 text-13 leading-[1.6]">
            {free.slice(0, MOST_FREE).map(formatPrefix).join(", ")}
            {free.length > MOST_FREE ? ` and ${free.length - MOST_FREE} more` : ""}
          </p>
        )}
      </Section>
      {summary.length === 0 ? null : (
        <Section title="The site, summed up">
          <p className="mono px-4 text-13 leading-[1.6]">{summary.map(formatPrefix).join(", ")}</p>
        </Section>
      )}
    </>
  );
}
