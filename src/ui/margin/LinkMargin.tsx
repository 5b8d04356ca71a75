"use client";

import { nameOf } from "@/core/plan";
import { editLink } from "@/core/planners";
import { jacketOf, tapeSlots } from "@/core/sheets";
import { useUi } from "../frame/use-ui";
import { TextField } from "../kit/TextField";
import { useIndex, usePlan } from "../plan-store/use-plan";
import { Jacket } from "../tape/Jacket";
import { FindingsSection } from "./FindingsSection";
import { HistorySection } from "./HistorySection";
import { Caution, Fact, MarginHead, Section } from "./parts";

/** A cable: what it joins, and the tape at both of its ends. */
export function LinkMargin({ id }: { id: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const link = index.plan.link.get(id);
  if (link === undefined) return null;
  const ends = [link.a, link.b].flatMap((port) => index.plan.port.get(port) ?? []);
  const cable = ends.map((port) => nameOf(index, "port", port.id)).join(" to ");
  const remove = () => {
    edit({ planner: "remove-link", summary: `Took out the cable ${cable}`, args: { link: id } }, ({ draft }) => draft.remove("link", id));
    select(null);
  };
  return (
    <>
      <MarginHead kick="Selected cable">{link.label === "" ? "Cable" : link.label}</MarginHead>
      <dl className="facts"><Fact name="Medium">{link.medium === "directAttach" ? "direct attach" : link.medium}</Fact></dl>
      {ends.map((port) => (
        <div key={port.id} className="px-4 pb-2 text-13"><p className="mb-1">{nameOf(index, "port", port.id)}</p><Jacket made={jacketOf(index, port)} slots={tapeSlots(index, index.plan.device.get(port.device)?.domain ?? null)} width={300} /></div>
      ))}
      <FindingsSection ids={new Set([id, link.a, link.b])} />
      <Section title="Change">
        <TextField label="Length m" mono value={link.lengthCm === null ? "" : String(link.lengthCm / 100)} write={(text) => edit({ planner: "edit-link", summary: `${cable}: ${text === "" ? "length unknown" : `${text} m`}`, args: { link: id, text } }, (bench) => editLink(bench, id, "length", text))} />
        <TextField label="Label" value={link.label} write={(text) => edit({ planner: "edit-link", summary: `${cable}: label ${text === "" ? "emptied" : text}`, args: { link: id, text } }, (bench) => editLink(bench, id, "label", text))} />
      </Section>
      {link.medium === "fibre" ? <Caution head="Fibre.">Never look into a fibre or an optic.</Caution> : null}
      <HistorySection about={id} />
      <div className="section px-4 pt-3"><button type="button" className="button danger" onClick={remove}>Take the cable out</button></div>
    </>
  );
}
