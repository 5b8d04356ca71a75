"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { v7 } from "uuid";
import type { FileFault } from "@/core/formats";
import { MOST_FILE_BYTES } from "@/core/records";
import type { FoldersAnswer } from "@/http/contracts/answers";
import { call } from "../../plan-store/api";

type Kind = "home" | "office" | "industrial";
const KINDS: readonly [Kind, string][] = [
  ["home", "Home"],
  ["office", "Office"],
  ["industrial", "Industrial site"],
];

/** Begins a site: by its name, or from a plan file. */
// eslint-disable-next-line max-lines-per-function -- one form in its order
export function NewSite({ folders }: { folders: FoldersAnswer }) {
  const router = useRouter();
  const [name, setName] = useState("");
  const [kind, setKind] = useState<Kind>("office");
  const [customer, setCustomer] = useState(folders.outside ? null : (folders.customers[0]?.id ?? null));
  const [refusal, setRefusal] = useState<string | null>(null);
  const [faults, setFaults] = useState<readonly FileFault[]>([]);
  const [busy, setBusy] = useState(false);
  const send = async (body: object, id: string) => {
    setBusy(true);
    setFaults([]);
    const answer = await call<{ id: string }>("/api/sites", "POST", body);
    if (answer.ok) return router.push(`/sites/${id}/survey`);
    setBusy(false);
    setRefusal(answer.refused.sentence);
    setFaults(answer.refused.faults ?? []);
  };
  const byName = () => {
    const id = v7();
    if (name.trim() === "") return setRefusal("Give the site a name: the customer’s, or the building’s.");
    setRefusal(null);
    void send(
      {
        by: "name",
        id,
        name: name.trim(),
        kind,
        customer,
        timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC",
      },
      id,
    );
  };
  const byFile = async (file: File | undefined) => {
    if (file === undefined) return;
    setRefusal(null);
    if (file.size > MOST_FILE_BYTES)
      return setRefusal(
        `${file.name} has ${Math.ceil(file.size / 1_000_000)} MB; ` +
          `a plan file has at most ${Math.floor(MOST_FILE_BYTES / 1_000_000)} MB.`,
      );
    const id = v7();
    try {
      await send({ by: "file", id, batch: v7(), file: JSON.parse(await file.text()), customer }, id);
    } catch (error) {
      if (!(error instanceof SyntaxError)) throw error;
      setRefusal(
        `${file.name} is not JSON, so it is no plan file. ` +
          "Choose the .json file that Hand-over wrote under Open formats.",
      );
    }
  };
  return (
    <section className="border-t border-hair p-4">
      <h2 className="mb-3 text-15">A new site</h2>
      <form
        className="flex flex-wrap items-end gap-3 text-13"
        onSubmit={(event) => {
          event.preventDefault();
          byName();
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
        <button type="submit" className="button go" disabled={busy}>
          Begin the site
        </button>
        <label className="ml-auto flex flex-col gap-1">
          or from a plan file
          <input
            type="file"
            accept=".json,application/json"
            className="field h-8 w-72 py-1"
            disabled={busy}
            onChange={(event) => {
              void byFile(event.target.files?.[0]);
              event.target.value = "";
            }}
          />
        </label>
      </form>
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
