"use client";

import { addKeptClear, addUniqueLocal, editSite, removeKeptClear, setSiteKind } from "@/core/commands";
import { useState } from "react";
import { v7 } from "uuid";
import { formatPrefix, uniqueLocalPrefix } from "@/core/address";
import { siteFieldText, type SiteField } from "@/core/planners";
import { Choose } from "../../kit/Choose";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Section } from "../parts";
const FIELDS: readonly (readonly [SiteField, string, string])[] = [
  ["name", "Name", ""],
  ["blocks", "Blocks", "10.24.0.0/16"],
  ["timeZone", "Time zone", "Europe/London"],
];

/** Name, blocks, time zone; and a unique-local IPv6 block on demand. */
export function SiteFields() {
  const { site } = useIndex().plan;
  const edit = usePlan((state) => state.edit);
  const has6 = site.blocks.some((block) => block.family === 6);
  const addLocal = () => {
    // Forty random bits (RFC 4193 section 3.2.2): the last five bytes of a UUID of version 7 are nothing but
    // random.
    const bytes = Uint8Array.from(
      (v7().replaceAll("-", "").slice(22).match(/../g) ?? []).map((pair) => Number.parseInt(pair, 16)),
    );
    const prefix = uniqueLocalPrefix(bytes);
    if (prefix === null) return;
    edit(addUniqueLocal({ prefix }));
  };
  return (
    <Section title="Change">
      {FIELDS.map(([field, label, hint]) => (
        <TextField
          key={field}
          label={label}
          value={siteFieldText(site, field)}
          placeholder={hint}
          mono={field === "blocks"}
          write={(text) => edit(editSite({ field, text }))}
        />
      ))}
      <Choose
        label="Kind"
        value={site.kind}
        choices={[
          ["home", "home"],
          ["office", "office"],
          ["industrial", "industrial site"],
        ]}
        onChoose={(kind) => {
          edit(setSiteKind({ kind }));
        }}
      />
      {has6 ? null : (
        <p className="px-4 pt-1">
          <button type="button" className="button wrap" onClick={addLocal}>
            Draw an IPv6 block of the site’s own
          </button>
        </p>
      )}
    </Section>
  );
}

/** Ranges that no subnet may meet. */
export function KeptClear() {
  const { site } = useIndex().plan;
  const edit = usePlan((state) => state.edit);
  const [added, setAdded] = useState(0);
  return (
    <Section title="Kept clear of">
      <ul className="px-4 text-13">
        {site.keepClear.map((kept) => {
          const text = formatPrefix(kept.prefix);
          return (
            <li
              key={text}
              className="flex min-h-7 items-center gap-2 border-b border-hair py-1 last:border-b-0"
            >
              <span>
                <span className="mono">{text}</span>
                <br />
                <span className="text-ink2">{kept.reason}</span>
              </span>
              <button
                type="button"
                className="button ml-auto"
                aria-label={`No longer keep ${text} clear`}
                onClick={() => edit(removeKeptClear({ prefix: text }))}
              >
                Remove
              </button>
            </li>
          );
        })}
      </ul>
      <TextField
        key={added}
        label="Add"
        mono
        value=""
        placeholder="192.168.177.0/24 why"
        write={(text) => {
          const refusal = edit(addKeptClear({ text }));
          if (refusal === null) setAdded(added + 1);
          return refusal;
        }}
      />
    </Section>
  );
}
