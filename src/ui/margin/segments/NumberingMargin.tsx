"use client";

import {
  allocate as allocateCommand,
  mergeSegments,
  numberSix,
  renumberBlock,
  splitSegment,
} from "@/core/commands";
import { useState, type ReactNode } from "react";
import {
  asPrefix4,
  formatPrefix,
  freePrefixes,
  masksAsSlashes,
  readPrefix,
  type Prefix4,
} from "@/core/address";
import { forbiddenRanges, mergePartners, siteSummary } from "@/core/planners";
import { renumberTable, segmentsInOrder } from "@/core/sheets";
import { Choose } from "../../kit/Choose";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { Radios } from "../../kit/Radios";
import { useIndex } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";
import { MarginHead, Section } from "../parts";
import { SiteFields } from "../site/SiteFields";
import { ProposalPanel, useProposal, type Proposal } from "../findings/Proposal";

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

function Outcome({
  proposal,
  refusal,
  apply,
  cancel,
}: {
  proposal: Proposal | null;
  refusal: string | null;
  apply: () => void;
  cancel: () => void;
}) {
  const index = useIndex();
  const list = proposal === null ? [] : renumberTable(index, proposal.batch.changes);
  return (
    <div className="px-4">
      {refusal === null ? null : (
        <p role="alert" className="mt-2 border border-stop bg-stop-wash p-2 text-13 text-stop">
          {refusal}
        </p>
      )}
      {proposal === null ? null : (
        <ProposalPanel shown={proposal} apply={apply} cancel={cancel}>
          {list.length <= 1 ? null : (
            <button
              type="button"
              className="button mt-2"
              onClick={() => download(fileName(index.plan.site.name, "renumbering.csv"), CSV_TYPE, csv(list))}
            >
              Save old and new of {list.length - 1} as CSV
            </button>
          )}
        </ProposalPanel>
      )}
    </div>
  );
}

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

function Renumber() {
  const index = useIndex();
  const { shown, look, apply, cancel } = useProposal();
  const [refusal, setRefusal] = useState<string | null>(null);
  const places = [
    ...index.plan.site.blocks,
    ...segmentsInOrder(index).flatMap((segment) => [...segment.prefixes4, ...segment.prefixes6]),
  ].map(formatPrefix);
  const [from, setFrom] = useState(places[0] ?? "");
  const [to, setTo] = useState("");
  const work = () => {
    const [old, fresh] = [readPrefix(from), readPrefix(to)];
    if (old === null)
      return setRefusal(`"${from}" is not a block such as 10.24.0.0/16; the host part must be zero.`);
    if (fresh === null)
      return setRefusal(`"${to}" is not a block such as 10.36.0.0/16; the host part must be zero.`);
    setRefusal(look(renumberBlock({ from, to })));
  };
  const field = (label: string, value: string, set: (text: string) => void, hint: string) => (
    <label className="grid grid-cols-[92px_minmax(0,1fr)] items-center gap-x-2 px-4 py-[2px] text-13">
      <span className="text-ink2">{label}</span>
      <input
        className="field mono"
        list="blocks-and-subnets"
        value={value}
        placeholder={hint}
        onChange={(event) => set(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === "Enter") work();
        }}
      />
    </label>
  );
  return (
    <Section title="Move a block elsewhere">
      <p className="px-4 pb-1 text-13 text-ink2">
        The whole site, or one subnet: everything inside keeps its place from the beginning, gateways, pools,
        reservations and name servers with it.
      </p>
      {field("Everything in", from, setFrom, "10.24.0.0/16")}
      {field("goes to", to, setTo, "10.36.0.0/16")}
      <datalist id="blocks-and-subnets">
        {[...new Set(places)].map((place) => (
          <option key={place} value={place} />
        ))}
      </datalist>
      <p className="px-4 pt-2">
        <button type="button" className="button go" onClick={work}>
          Preview
        </button>
      </p>
      <Outcome proposal={shown} refusal={refusal} apply={apply} cancel={cancel} />
    </Section>
  );
}

function Split() {
  const index = useIndex();
  const { shown, look, apply, cancel } = useProposal();
  const [refusal, setRefusal] = useState<string | null>(null);
  const segments = segmentsInOrder(index);
  const [id, setId] = useState(segments[0]?.id ?? "");
  const segment = index.plan.segment.get(id);
  const [name, setName] = useState("");
  const wanted = name.trim() === "" ? `${segment?.name ?? "Segment"} 2` : name.trim();
  return (
    <Section title="Split a segment in two">
      <p className="px-4 pb-1 text-13 text-ink2">
        The gateway’s half keeps everything; the other becomes a segment with its own VLAN, gateway and pool,
        and takes the devices whose addresses lie in it.
      </p>
      <Choose
        label="Segment"
        value={id}
        choices={segments.map((one) => [one.id, one.name] as const)}
        onChoose={setId}
      />
      <label className="grid grid-cols-[92px_minmax(0,1fr)] items-center gap-x-2 px-4 py-[2px] text-13">
        <span className="text-ink2">New one</span>
        <input
          className="field"
          value={name}
          placeholder={wanted}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <p className="px-4 pt-2">
        <button
          type="button"
          className="button go"
          disabled={segment === undefined}
          onClick={() => setRefusal(look(splitSegment({ segment: id, name: wanted })))}
        >
          Preview
        </button>
      </p>
      <Outcome proposal={shown} refusal={refusal} apply={apply} cancel={cancel} />
    </Section>
  );
}

function Merge() {
  const index = useIndex();
  const { shown, look, apply, cancel } = useProposal();
  const [refusal, setRefusal] = useState<string | null>(null);
  const pairs = segmentsInOrder(index).flatMap((into) =>
    mergePartners(index, into).map((gone) => ({ key: `${into.id} ${gone.id}`, into, gone })),
  );
  return (
    <Section title="Merge two halves">
      {pairs.length === 0 ? (
        <p className="px-4 text-13 text-ink2">
          No two segments are the halves of one subnet. Two can be merged when they lie side by side, are of
          one size and the pair begins where one twice as large would.
        </p>
      ) : (
        <ul className="px-4 text-13">
          {pairs.map(({ key, into, gone }) => (
            <li key={key} className="flex min-h-8 items-center gap-2">
              <SegmentChip segment={into} height={14} />
              <span>
                {into.name} takes {gone.name}
              </span>
              <button
                type="button"
                className="button ml-auto"
                onClick={() => setRefusal(look(mergeSegments({ into: into.id, gone: gone.id })))}
              >
                Preview
              </button>
            </li>
          ))}
        </ul>
      )}
      <Outcome proposal={shown} refusal={refusal} apply={apply} cancel={cancel} />
    </Section>
  );
}

function Six() {
  const index = useIndex();
  const { shown, look, apply, cancel } = useProposal();
  const [refusal, setRefusal] = useState<string | null>(null);
  const blocks = index.plan.site.blocks.filter((block) => block.family === 6);
  return (
    <Section title="IPv6 for every segment">
      <p className="px-4 pb-1 text-13 text-ink2">
        Every segment with a gateway gets a /64{" "}
        {blocks.length === 0 ? (
          "of the site’s IPv6 block, which is still to be given"
        ) : (
          <>
            of <span className="mono">{blocks.map(formatPrefix).join(", ")}</span>
          </>
        )}
        : its VLAN ID as the digits where there is room. Clients make their own address from what the gateway
        advertises.
      </p>
      <p className="px-4 pt-2">
        <button type="button" className="button go" onClick={() => setRefusal(look(numberSix({})))}>
          Preview
        </button>
      </p>
      <Outcome proposal={shown} refusal={refusal} apply={apply} cancel={cancel} />
      {blocks.length === 0 ? <SiteFields /> : null}
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
