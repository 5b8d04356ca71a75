"use client";

import { forgetLeaflet, pasteLeaflets } from "@/core/commands";
import { useState } from "react";
import { toast } from "sonner";
import { LEAFLET_FIELDS, leafletText } from "@/core/planners";
import { byNaturalText } from "@/core/kernel";
import { rowsIn } from "../../kit/table-text";
import { useIndex, usePlan } from "../../plan-store/use-plan";

const SHOWN = LEAFLET_FIELDS.filter(([field]) =>
  ["addressing", "address", "gives", "start", "reset"].includes(field),
);

/** What is read off the leaflets of models: written in a device's margin, or pasted as a table. */
export function LeafletsTable() {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const [pasting, setPasting] = useState(false);
  const leaflets = [...index.plan.leaflet.values()].sort((a, b) => byNaturalText(a.model, b.model));
  const forget = (leaflet: string) => {
    const refusal = edit(forgetLeaflet({ leaflet }));
    if (refusal !== null) toast.error(refusal);
  };
  return (
    <section aria-label="Leaflets" className="mt-6">
      <div className="flex flex-wrap items-center gap-3 px-4 py-2 text-13">
        <h2 className="text-15 font-semibold">Leaflets</h2>
        <span className="min-w-0 flex-1 basis-60 text-ink2">
          What gear of a model is like out of its box: written in the margin of a device of that model.
        </span>
        <button type="button" className="button" onClick={() => setPasting(!pasting)}>
          {pasting ? "Close" : "Paste leaflets"}
        </button>
      </div>
      {pasting ? <PasteLeaflets close={() => setPasting(false)} /> : null}
      {leaflets.length === 0 ? (
        <p className="px-4 text-13 text-ink2">
          Nobody has read one yet: first steps say only “as its leaflet says”.
        </p>
      ) : (
        <table className="table lead" aria-label="Leaflets">
          <thead>
            <tr>
              <th scope="col" className="w-full">
                Model
              </th>
              {SHOWN.map(([field, word]) => (
                <th key={field} scope="col">
                  {word}
                </th>
              ))}
              <th scope="col">
                <span className="sr-only">Change</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {leaflets.map((leaflet) => (
              <tr key={leaflet.id}>
                <td className="min-w-44 font-semibold">{leaflet.model}</td>
                {SHOWN.map(([field]) => (
                  <td key={field} className={field === "addressing" || field === "gives" ? "" : "mono"}>
                    {leafletText(leaflet, field)}
                  </td>
                ))}
                <td>
                  <button
                    type="button"
                    className="button !min-h-6"
                    aria-label={`Forget the leaflet of ${leaflet.model}`}
                    onClick={() => forget(leaflet.id)}
                  >
                    Forget
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

/** A table of leaflets from a spreadsheet, its heads in the first row. */
function PasteLeaflets({ close }: { close: () => void }) {
  const edit = usePlan((state) => state.edit);
  const [text, setText] = useState("");
  const [refusal, setRefusal] = useState<string | null>(null);
  const take = () => {
    const found = rowsIn(text);
    const sentence = "refusal" in found ? found.refusal : edit(pasteLeaflets({ rows: found.rows }));
    setRefusal(sentence);
    if (sentence === null) close();
  };
  return (
    <form
      className="flex flex-col gap-2 px-4 pb-3 text-13"
      onSubmit={(event) => {
        event.preventDefault();
        take();
      }}
    >
      <label className="flex flex-col gap-1 text-ink2">
        Rows with their heads: Model, {LEAFLET_FIELDS.map(([, word]) => word).join(", ")}; in any order, not
        all needed
        <textarea
          className="field mono h-24 p-2 text-12 text-ink"
          spellCheck={false}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      {refusal === null ? null : (
        <p role="alert" className="text-stop">
          {refusal}
        </p>
      )}
      <p>
        <button type="submit" className="button go" disabled={text.trim() === ""}>
          Take them
        </button>
      </p>
    </form>
  );
}
