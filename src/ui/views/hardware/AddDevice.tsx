"use client";

import { addDevice } from "@/core/commands";
import { useState } from "react";
import { toast } from "sonner";
import { PlanEdits } from "@/core/plan";
import { nextDeviceName } from "@/core/planners";
import { modelsOf } from "@/core/catalogue";
import { placesOf } from "@/core/sheets";
import { useIndex, usePlan } from "../../plan-store/use-plan";

/** A device of a generic model; the form stays open, since gear comes by the box. */
export function AddDevice({
  close,
  added,
}: {
  close: () => void;
  /** Keeps the form open: the first device ends the empty sheet that it stood on. */ added: () => void;
}) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const [model, setModel] = useState<string>(index.plan.device.size === 0 ? "gateway-4" : "switch-24-poe");
  const [name, setName] = useState("");
  const [place, setPlace] = useState("");
  const [refusal, setRefusal] = useState<string | null>(null);
  const models = modelsOf(index.plan);
  const chosen = models.find((deviceModel) => deviceModel.id === model);
  const proposal =
    chosen === undefined ? "" : nextDeviceName(new PlanEdits(index.plan), chosen.kind, place.trim());
  const add = () => {
    const wanted = name.trim() === "" ? proposal : name.trim();
    const refused = edit(addDevice({ model, name: wanted, place, title: chosen?.model ?? "" }));
    setRefusal(refused);
    if (refused !== null) return;
    added();
    toast(`${wanted} is added with its ports.`);
    setName("");
  };
  return (
    <form
      className="flex flex-wrap items-end gap-3 border-b border-hair bg-paper px-4 py-3 text-13"
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <label className="flex flex-col gap-1">
        What
        <select className="field w-56" value={model} onChange={(event) => setModel(event.target.value)}>
          {models.map((deviceModel) => (
            <option key={deviceModel.id} value={deviceModel.id}>
              {deviceModel.model}
            </option>
          ))}
        </select>
      </label>
      <label className="flex flex-col gap-1">
        Name
        <input
          className="field w-44"
          value={name}
          placeholder={proposal}
          onChange={(event) => {
            setName(event.target.value);
            setRefusal(null);
          }}
          autoComplete="off"
        />
      </label>
      <label className="flex flex-col gap-1">
        Place
        <input
          className="field w-36"
          list="device-places"
          value={place}
          placeholder="Cabinet A"
          onChange={(event) => setPlace(event.target.value)}
          autoComplete="off"
        />
      </label>
      <datalist id="device-places">
        {placesOf(index).map((place) => (
          <option key={place} value={place} />
        ))}
      </datalist>
      <button type="submit" className="button go">
        Add it
      </button>
      <button type="button" className="button" onClick={close}>
        Done
      </button>
      {refusal === null ? null : (
        <p role="alert" className="w-full text-stop">
          {refusal}
        </p>
      )}
    </form>
  );
}
