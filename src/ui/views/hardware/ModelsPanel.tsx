"use client";

import { putModel, removeModel } from "@/core/commands";
import { useState } from "react";
import { toast } from "sonner";
import type { Device, OwnModel } from "@/core/plan";
import { modelsOf } from "@/core/catalogue";
import { runsText, type ModelText } from "@/core/planners";
import { DEVICE_KIND_WORDS } from "@/core/sheets";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { LeafletsTable } from "./LeafletsTable";

const BRIDGING: readonly (readonly [Device["bridging"], string])[] = [
  ["vlan", "knows VLANs"],
  ["plain", "knows no VLANs"],
  ["none", "does not bridge"],
];
const BLANK: ModelText = {
  name: "",
  kind: "switch",
  bridging: "vlan",
  ports: "",
  budgetW: "",
  oneLostW: "",
  heightUnits: "1",
};

const textOf = (model: OwnModel): ModelText => ({
  name: model.name,
  kind: model.kind,
  bridging: model.bridging,
  ports: runsText(model.runs),
  budgetW: model.poeBudgetMw === 0 ? "" : String(model.poeBudgetMw / 1000),
  oneLostW: model.poeOneLostMw === null ? "" : String(model.poeOneLostMw / 1000),
  heightUnits: model.heightUnits === 0 ? "" : String(model.heightUnits),
});

/** The generic models that new devices begin with, and the site's own beside them. */
// eslint-disable-next-line max-lines-per-function -- one form and its table
export function ModelsPanel() {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const [open, setOpen] = useState<{ readonly id: string | null; readonly text: ModelText } | null>(null);
  const own = index.plan.deviceModel;
  const remove = (model: OwnModel) => {
    const refusal = edit(removeModel({ model: model.id }));
    if (refusal !== null) toast.error(refusal);
  };
  return (
    <div className="min-h-0 flex-1 overflow-auto pb-6" tabIndex={-1}>
      <div className="flex items-center gap-3 px-4 py-2 text-13">
        <span className="text-ink2">
          A device begins with what its model has; changing a model changes no device that is there.
        </span>
        <span className="flex-1" />
        <button type="button" className="button" onClick={() => setOpen({ id: null, text: BLANK })}>
          New model
        </button>
      </div>
      {open === null ? null : (
        <ModelForm key={open.id ?? "new"} id={open.id} text={open.text} close={() => setOpen(null)} />
      )}
      <table className="table lead" aria-label="Models">
        <thead>
          <tr>
            <th scope="col">Model</th>
            <th scope="col">Kind</th>
            <th scope="col" className="w-full">
              Ports
            </th>
            <th scope="col" className="right">
              PoE W
            </th>
            <th scope="col" className="right">
              one lost
            </th>
            <th scope="col" className="right">
              U
            </th>
            <th scope="col" className="right">
              VLANs
            </th>
            <th scope="col">
              <span className="sr-only">Change</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {modelsOf(index.plan).map((model) => {
            const mine = own.get(model.id);
            return (
              <tr key={model.id}>
                <td className="font-semibold">{model.model}</td>
                <td>{DEVICE_KIND_WORDS[model.kind]}</td>
                <td className="max-w-0 truncate text-ink2" title={runsText(model.runs)}>
                  {runsText(model.runs)}
                </td>
                <td className="mono right">{model.poeBudgetMw === 0 ? "" : model.poeBudgetMw / 1000}</td>
                <td className="mono right">{model.poeOneLostMw === null ? "" : model.poeOneLostMw / 1000}</td>
                <td className="mono right">{model.heightUnits || ""}</td>
                <td className="mono right">{model.abilities.maxVlans ?? ""}</td>
                <td>
                  {mine === undefined ? (
                    <button
                      type="button"
                      className="button !min-h-6"
                      aria-label={`Copy ${model.model}`}
                      onClick={() =>
                        setOpen({
                          id: null,
                          text: {
                            name: `${model.model} (own)`.slice(0, 80),
                            kind: model.kind,
                            bridging: model.bridging,
                            ports: runsText(model.runs),
                            budgetW: model.poeBudgetMw === 0 ? "" : String(model.poeBudgetMw / 1000),
                            oneLostW: model.poeOneLostMw === null ? "" : String(model.poeOneLostMw / 1000),
                            heightUnits: String(model.heightUnits || ""),
                          },
                        })
                      }
                    >
                      Copy
                    </button>
                  ) : (
                    <span className="flex gap-1">
                      <button
                        type="button"
                        className="button !min-h-6"
                        aria-label={`Change ${mine.name}`}
                        onClick={() => setOpen({ id: mine.id, text: textOf(mine) })}
                      >
                        Change
                      </button>
                      <button
                        type="button"
                        className="button danger !min-h-6"
                        aria-label={`Remove ${mine.name}`}
                        onClick={() => remove(mine)}
                      >
                        Remove
                      </button>
                    </span>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <LeafletsTable />
    </div>
  );
}

function ModelForm({ id, text, close }: { id: string | null; text: ModelText; close: () => void }) {
  const edit = usePlan((state) => state.edit);
  const [typed, setTyped] = useState(text);
  const [refusal, setRefusal] = useState<string | null>(null);
  const set = (part: Partial<ModelText>) => {
    setTyped({ ...typed, ...part });
    setRefusal(null);
  };
  const save = () => {
    const refused = edit(putModel({ model: id, typed }));
    setRefusal(refused);
    if (refused === null) close();
  };
  const input = (
    label: string,
    field: "name" | "ports" | "budgetW" | "oneLostW" | "heightUnits",
    width: string,
    hint: string,
  ) => (
    <label className="flex flex-col gap-1">
      {label}
      <input
        className={`field ${width}`}
        value={typed[field]}
        placeholder={hint}
        autoComplete="off"
        onChange={(event) => set({ [field]: event.target.value })}
      />
    </label>
  );
  return (
    <form
      className="mb-2 flex flex-wrap items-end gap-3 border-y border-hair bg-paper px-4 py-3 text-13"
      aria-label="Model"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      {input("Name", "name", "w-56", "Barn switch")}
      <label className="flex flex-col gap-1">
        Kind
        <select
          className="field"
          value={typed.kind}
          onChange={(event) => set({ kind: event.target.value as Device["kind"] })}
        >
          {Object.entries(DEVICE_KIND_WORDS).map(([kind, words]) => (
            <option key={kind} value={kind}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <label className="flex flex-col gap-1">
        VLANs
        <select
          className="field"
          value={typed.bridging}
          onChange={(event) => set({ bridging: event.target.value as Device["bridging"] })}
        >
          {BRIDGING.map(([choice, words]) => (
            <option key={choice} value={choice}>
              {words}
            </option>
          ))}
        </select>
      </label>
      {input("Ports", "ports", "w-80", "24 copper 1G type 2, 2 fibre 10G")}
      {input("PoE budget W", "budgetW", "w-24", "none")}
      {input("with one supply lost", "oneLostW", "w-24", "one supply")}
      {input("Height units", "heightUnits", "w-20", "0")}
      <button type="submit" className="button go">
        Save the model
      </button>
      <button type="button" className="button" onClick={close}>
        Cancel
      </button>
      {refusal === null ? null : (
        <p role="alert" className="w-full text-stop">
          {refusal}
        </p>
      )}
    </form>
  );
}
