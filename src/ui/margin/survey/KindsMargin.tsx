"use client";

import { addHostKind, removeHostKind, setAliases, setHostKind } from "@/core/commands";
import { useState } from "react";
import { PURPOSES, type HostKind } from "@/core/plan";
import { HOST_KIND_WORDS, MANNER_WORDS } from "@/core/planners";
import { CATALOGUE, type DeviceKind } from "@/core/catalogue";
import { PURPOSE_WORDS } from "@/core/survey";
import { Choose } from "../../kit/Choose";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { MarginHead, Section } from "../parts";

const yesNo = (yes: boolean): "yes" | "no" => (yes ? "yes" : "no");
const YES_NO = [
  ["no", "no"],
  ["yes", "yes"],
] as const;
const CLASSES = [
  ["", "none"],
  ...Array.from({ length: 9 }, (_, i) => [String(i), `class ${i}`] as const),
] as const;

const about = (kind: Pick<DeviceKind, "purpose" | "manner" | "poeClass" | "wireless" | "internet">): string =>
  [
    PURPOSE_WORDS[kind.purpose],
    MANNER_WORDS[kind.manner],
    kind.poeClass === null ? "" : `PoE class ${kind.poeClass}`,
    kind.wireless ? "wireless" : "",
    kind.internet === "never" ? "never to the internet" : "",
  ]
    .filter((part) => part !== "")
    .join(", ");

/** The catalogue of kinds, and those of one's own, which can be changed. */
export function KindsMargin() {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const [added, setAdded] = useState(0);
  const [open, setOpen] = useState<string | null>(null);
  const own = [...index.plan.hostKind.values()];
  return (
    <>
      <MarginHead kick="Kinds of device">{CATALOGUE.length + own.length} kinds</MarginHead>
      <Section title="Of your own">
        <ul>
          {own.map((kind) => (
            <li key={kind.id} className="border-b border-hair text-13 last:border-b-0">
              <button
                type="button"
                aria-expanded={open === kind.id}
                className="flex min-h-8 w-full items-center gap-2 px-4 text-left"
                onClick={() => setOpen(open === kind.id ? null : kind.id)}
              >
                <b className="font-semibold">{kind.name}</b>
                <span className="ml-auto text-right text-12 text-ink2">{about(kind)}</span>
              </button>
              {open === kind.id ? <OwnKind kind={kind} /> : null}
            </li>
          ))}
        </ul>
        <TextField
          key={added}
          label="Add"
          value=""
          placeholder="kiln"
          write={(text) => {
            const refusal = edit(addHostKind({ name: text }));
            if (refusal === null) setAdded(added + 1);
            return refusal;
          }}
        />
      </Section>
      <Section title="The catalogue’s">
        <dl className="px-4 text-13">
          {CATALOGUE.map((kind) => (
            <div key={kind.word} className="border-b border-hair py-1">
              <dt className="font-semibold">
                {kind.word}
                {kind.aliases.length === 0 ? null : (
                  <span className="font-normal text-ink2">, {kind.aliases.slice(0, 3).join(", ")}</span>
                )}
              </dt>
              <dd className="text-12 text-ink2">{about(kind)}</dd>
            </div>
          ))}
        </dl>
      </Section>
    </>
  );
}

function OwnKind({ kind }: { kind: HostKind }) {
  const edit = usePlan((state) => state.edit);
  const set = (fields: Partial<HostKind>) => {
    edit(setHostKind({ kind: kind.id, fields }));
  };
  return (
    <div className="pb-2">
      <TextField
        label="Other words"
        value={kind.aliases.join(", ")}
        placeholder="with commas"
        write={(text) => edit(setAliases({ kind: kind.id, text }))}
      />
      <Choose
        label="Belongs to"
        value={kind.purpose}
        choices={PURPOSES.map((purpose) => [purpose, PURPOSE_WORDS[purpose]] as const)}
        onChoose={(purpose) => set({ purpose })}
      />
      <Choose
        label="It is a"
        value={kind.base}
        choices={Object.entries(HOST_KIND_WORDS) as [HostKind["base"], string][]}
        onChoose={(base) => set({ base })}
      />
      <Choose
        label="Address"
        value={kind.manner}
        choices={Object.entries(MANNER_WORDS) as [HostKind["manner"], string][]}
        onChoose={(manner) => set({ manner })}
      />
      <Choose
        label="PoE"
        value={kind.poeClass === null ? "" : String(kind.poeClass)}
        choices={CLASSES}
        onChoose={(text) => set({ poeClass: text === "" ? null : Number(text) })}
      />
      <Choose
        label="Wireless"
        value={yesNo(kind.wireless)}
        choices={YES_NO}
        onChoose={(text) => set({ wireless: text === "yes" })}
      />
      <Choose
        label="Speaks DHCP"
        value={yesNo(kind.speaksDhcp)}
        choices={YES_NO}
        onChoose={(text) => set({ speaksDhcp: text === "yes" })}
      />
      <Choose
        label="Speaks 802.1X"
        value={yesNo(kind.speaksSignIn)}
        choices={YES_NO}
        onChoose={(text) => set({ speaksSignIn: text === "yes" })}
      />
      <Choose
        label="Internet"
        value={kind.internet}
        choices={[
          ["may", "may reach it"],
          ["never", "must never reach it"],
        ]}
        onChoose={(internet) => set({ internet })}
      />
      <p className="px-4 pt-1">
        <button
          type="button"
          className="button danger"
          onClick={() => edit(removeHostKind({ kind: kind.id }))}
        >
          Remove this kind
        </button>
      </p>
    </div>
  );
}
