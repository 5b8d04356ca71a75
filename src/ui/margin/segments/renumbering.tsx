"use client";

import { mergeSegments, numberSix, renumberBlock, splitSegment } from "@/core/commands";
import { useState } from "react";
import { formatPrefix, readPrefix } from "@/core/address";
import { mergePartners } from "@/core/planners";
import { segmentsInOrder } from "@/core/sheets";
import { Choose } from "../../kit/Choose";
import { useIndex } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";
import { Section } from "../parts";
import { SiteFields } from "../site/SiteFields";
import { useProposal } from "../findings/Proposal";
import { Outcome } from "./Outcome";

export function Renumber() {
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

export function Split() {
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
        choices={segments.map((segment) => [segment.id, segment.name] as const)}
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

export function Merge() {
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

export function Six() {
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
