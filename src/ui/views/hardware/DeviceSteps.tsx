import { clsx } from "clsx";
import { deviceSteps, type DeviceData, type SheetStep } from "@/core/device-sheet";

/** A device's sheet as it is printed: numbered steps with a box to tick, and a line to sign. */
export function DeviceSteps({ data, revised }: { data: DeviceData; revised: string | null }) {
  const steps = deviceSteps(data);
  const where = [
    data.model,
    data.place,
    data.rackUnit === null ? "" : `height unit ${data.rackUnit}`,
    data.feed === "" ? "" : `fed by ${data.feed}${data.backupFeed === "" ? "" : ` and ${data.backupFeed}`}`,
  ]
    .filter((part) => part !== "")
    .join(", ");
  return (
    <article className="device-sheet max-w-[900px] p-4 text-13" aria-label={`Sheet of ${data.name}`}>
      <header className="mb-3 flex items-end gap-4 border-b-2 border-ink pb-1">
        <div>
          <h2 className="text-22">{data.name}</h2>
          <p className="text-ink2">{where}</p>
        </div>
        <p className="ml-auto text-right text-12 text-ink2">
          {data.site}
          <br />
          {revised === null ? "" : `as planned on ${revised}`}
        </p>
      </header>
      <ol>
        {steps.map((step, i) => (
          <Step key={step.title} number={i + 1} step={step} />
        ))}
      </ol>
      <footer className="mt-4 grid grid-cols-3 gap-6 text-12 text-ink2">
        <p className="border-t border-ink pt-1">entered by</p>
        <p className="border-t border-ink pt-1">date</p>
        <p className="border-t border-ink pt-1">checked by</p>
      </footer>
    </article>
  );
}

function Step({ number, step: { title, note, heads, rows, caution } }: { number: number; step: SheetStep }) {
  return (
    <li className="mb-3 break-inside-avoid-page">
      <h3 className="flex items-center gap-2 text-15">
        <span aria-hidden className="inline-block h-4 w-4 border border-ink" />
        <span className="mono">{number}</span>
        {title}
      </h3>
      {note === "" ? null : <p className="pt-[2px] pl-6">{note}</p>}
      {caution === "" ? null : (
        <p className="mt-1 ml-6 border-l-[3px] border-warn pl-2">
          <b className="font-semibold">Caution.</b> {caution}
        </p>
      )}
      {rows.length === 0 ? null : (
        <table className="mt-1 ml-6 w-[calc(100%-24px)] border-collapse">
          <thead>
            <tr>
              {heads.map((head) => (
                <th
                  key={head}
                  scope="col"
                  className="border-b border-ink py-[2px] pr-3 text-left text-12 font-medium text-ink2"
                >
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, i) => (
              <tr key={i}>
                {row.map((cell, column) => (
                  <td
                    key={column}
                    className={clsx(
                      "border-b border-hair py-[3px] pr-3 align-top",
                      /^[\d.,:/ a-f-]+$/i.test(cell) && /\d/.test(cell) ? "mono" : "",
                    )}
                  >
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </li>
  );
}
