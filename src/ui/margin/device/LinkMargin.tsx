"use client";

import {
  editLinkText,
  labelCables,
  removeLinks,
  setLinkCable,
  setLinkMedium,
  setOptic,
} from "@/core/commands";
import { toast } from "sonner";
import { CABLE_WORDS, cablesFor, linkSpeed, LOADS, MEDIUM_WORDS, opticsFor, reachOf } from "@/core/cabling";
import { nameOf, type Link, type Port } from "@/core/plan";
import { jacketOf, tapeSlots } from "@/core/sheets";
import { useGoTo } from "../../frame/go-to";
import { useUi } from "../../frame/use-ui";
import { Choose } from "../../kit/Choose";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Jacket } from "../../tape/Jacket";
import { FindingsSection } from "../findings/FindingsSection";
import { HistorySection } from "../HistorySection";
import { Caution, Fact, MarginHead, Section } from "../parts";

const MEDIA = Object.keys(MEDIUM_WORDS) as Link["medium"][];

function reachWords(metres: number | null): string {
  if (metres === null) return "not known until the cable is";
  return metres === 0 ? "not at that speed" : `${metres} m at that speed`;
}

/** A cable: what it joins, what it is made of, and the tape at both of its ends. */
// eslint-disable-next-line max-lines-per-function -- the fields of one cable in their order
export function LinkMargin({ id }: { id: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const goTo = useGoTo();
  const link = index.plan.link.get(id);
  if (link === undefined) return null;
  const ends = [link.a, link.b].flatMap((port) => index.plan.port.get(port) ?? []);
  const [a, b] = ends;
  if (a === undefined || b === undefined) return null;
  const reach = reachOf(link, a, b);
  const load = index.derived(LOADS).find((cableLoad) => cableLoad.link === id);
  const say = (refusal: string | null) => {
    if (refusal !== null) toast.error(refusal);
  };
  const remove = () => {
    edit(removeLinks({ links: [id] }));
    select(null);
  };
  return (
    <>
      <MarginHead kick="Selected cable">{link.label === "" ? "Cable" : link.label}</MarginHead>
      <dl className="facts">
        <Fact name="Runs at">{linkSpeed(a, b)} Mbit/s</Fact>
        <Fact name="Reaches">{reachWords(reach)}</Fact>
        {load === undefined ? null : (
          <Fact name="Busy">
            {(load.kbps / 1000).toFixed(load.kbps < 10_000 ? 1 : 0)} of {load.mbps} Mbit/s, {load.hosts}{" "}
            devices behind it at their usual pace
          </Fact>
        )}
      </dl>
      {ends.map((port) => (
        <div key={port.id} className="px-4 pb-2 text-13">
          <button
            type="button"
            className="mb-1 hover:underline"
            onClick={() => goTo.entity({ kind: "port", id: port.id })}
          >
            {nameOf(index, "port", port.id)}
          </button>
          <Jacket
            made={jacketOf(index, port)}
            slots={tapeSlots(index, index.plan.device.get(port.device)?.domain ?? null)}
            width={300}
          />
        </div>
      ))}
      <FindingsSection ids={new Set([id, link.a, link.b])} />
      <Section title="Change">
        <Choose
          label="Medium"
          value={link.medium}
          choices={MEDIA.map((medium) => [medium, MEDIUM_WORDS[medium]] as const)}
          onChoose={(medium) => {
            edit(setLinkMedium({ link: id, medium }));
          }}
        />
        <Choose
          label="Cable"
          value={link.cable}
          choices={cablesFor(link.medium).map((cable) => [cable, CABLE_WORDS[cable]] as const)}
          onChoose={(kind) => say(edit(setLinkCable({ link: id, cable: kind })))}
        />
        <TextField
          label="Length m"
          mono
          value={link.lengthCm === null ? "" : String(link.lengthCm / 100)}
          write={(text) => edit(editLinkText({ link: id, field: "length", text }))}
        />
        {ends.map((port) => (
          <OpticChoice key={port.id} port={port} />
        ))}
        <TextField
          label="Label"
          value={link.label}
          write={(text) => edit(editLinkText({ link: id, field: "label", text }))}
        />
        <TextField
          label="Patch panel"
          value={link.panel}
          placeholder="PP-A 07"
          write={(text) => edit(editLinkText({ link: id, field: "panel", text }))}
        />
        <TextField
          label="Socket"
          value={link.socket}
          placeholder="2.07"
          write={(text) => edit(editLinkText({ link: id, field: "socket", text }))}
        />
        <div className="px-4 pt-1">
          <button type="button" className="button" onClick={() => say(edit(labelCables({ link: id })))}>
            Label by the pattern
          </button>
        </div>
      </Section>
      {link.medium === "fibre" ? (
        <Caution head="Fibre.">Never look into a fibre or an optic.</Caution>
      ) : (
        <Caution head="Between buildings">
          copper joins their earths: use fibre there. Fixed wiring by licensed people under the local code.
        </Caution>
      )}
      <div className="section px-4 pt-3">
        <button type="button" className="button danger" onClick={remove}>
          Take the cable out
        </button>
      </div>
      <HistorySection about={id} />
    </>
  );
}

/** What is plugged into the port at one end; nothing to choose where the port takes a plain plug. */
function OpticChoice({ port }: { port: Port }) {
  const edit = usePlan((state) => state.edit);
  const choices = opticsFor(port);
  if (choices.length < 2) return null;
  return (
    <Choose
      label={`Optic ${port.label}`}
      value={port.optic}
      choices={choices.map((choice) => [choice, choice === "none" ? "none, or not known" : choice] as const)}
      onChoose={(optic) => {
        const refusal = edit(setOptic({ port: port.id, optic }));
        if (refusal !== null) toast.error(refusal);
      }}
    />
  );
}
