"use client";

import { useState } from "react";
import type { FoldersAnswer } from "@/http/contracts/answers";
import { useNewSite } from "./use-new-site";

type Kind = "home" | "office" | "industrial";
const KINDS: readonly [Kind, string][] = [
  ["home", "Home"],
  ["office", "Office"],
  ["industrial", "Industrial site"],
];

/** Begins a site: by its name, or from a plan file. */
export function NewSite({ folders }: { folders: FoldersAnswer }) {
  const [name, setName] = useState("");
  const [kind, setKind] = useState<Kind>("office");
  const [customer, setCustomer] = useState(folders.outside ? null : (folders.customers[0]?.id ?? null));
  const { busy, refusal, faults, byName, byFile } = useNewSite();
  return (
    <section className="border-t border-hair p-4">
      <h2 className="mb-3 text-15">A new site</h2>
      <form
        className="flex flex-wrap items-end gap-3 text-13"
        onSubmit={(event) => {
          event.preventDefault();
          void byName({ name: name.trim(), kind, customer });
        }}
      >
        <label className="flex flex-col gap-1">
          Name
          <input
            className="field w-72"
            value={name}
            onChange={(event) => setName(event.target.value)}
            maxLength={100}
            autoComplete="off"
          />
        </label>
        <label className="flex flex-col gap-1">
          Kind
          <select className="field" value={kind} onChange={(event) => setKind(event.target.value as Kind)}>
            {KINDS.map(([value, label]) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </select>
        </label>
        {folders.customers.length === 0 ? null : (
          <label className="flex flex-col gap-1">
            Customer
            <select
              className="field max-w-48"
              value={customer ?? ""}
              onChange={(event) => setCustomer(event.target.value || null)}
            >
              {folders.outside ? <option value="">none</option> : null}
              {folders.customers.map(({ id, name: title }) => (
                <option key={id} value={id}>
                  {title}
                </option>
              ))}
            </select>
          </label>
        )}
        <button type="submit" className="button go" disabled={busy !== null}>
          Begin the site
        </button>
        <label className="flex flex-col gap-1 min-[900px]:ml-auto">
          or from a plan file
          <input
            type="file"
            accept=".json,application/json"
            className="field h-8 w-72 py-1"
            disabled={busy !== null}
            onChange={(event) => {
              const file = event.target.files?.[0];
              event.target.value = "";
              if (file !== undefined) void byFile(file, customer);
            }}
          />
        </label>
      </form>
      <p role="status" className="mt-2 min-h-5 text-13 text-ink2">
        {busy}
      </p>
      {refusal === null ? null : (
        <div role="alert" className="mt-3 border border-stop bg-stop-wash p-3 text-13 text-stop">
          <p>{refusal}</p>
          {faults.length > 1 ? (
            <ul className="mt-1 list-disc pl-4">
              {faults.slice(1).map((fault) => (
                <li key={fault.sentence}>{fault.sentence}</li>
              ))}
            </ul>
          ) : null}
        </div>
      )}
    </section>
  );
}
