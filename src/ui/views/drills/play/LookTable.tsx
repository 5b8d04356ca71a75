import type { Played, PlayedRow } from "@/core/drills";

/** What was looked at and done, minute by minute, and how many are left. */
export function LookTable({ played, minutes }: { played: Played; minutes: number }) {
  const { rows, used, possible } = played;
  const left = Math.max(0, minutes - used);
  return (
    <section aria-label="What you looked at" className="border-t border-ink">
      <div className="flex flex-wrap items-center gap-3 px-4 py-2">
        <h2 className="text-15 font-semibold">What you looked at</h2>
        <span className="ml-auto text-13 text-ink2">
          {used} of {minutes} min used
        </span>
        <span
          role="progressbar"
          aria-label="Minutes used"
          aria-valuenow={Math.min(used, minutes)}
          aria-valuemax={minutes}
          className="h-[9px] w-40 border border-ink"
        >
          <span
            className="block h-full bg-ink"
            style={{ width: `${(100 * Math.min(used, minutes)) / minutes}%` }}
          />
        </span>
        <b className="mono text-18" aria-label={`${left} minutes are left`}>
          {left}
        </b>
      </div>
      {rows.length === 0 ? (
        <p className="px-4 pb-3 text-15">
          Nothing yet. Begin with what was complained of, or with what is nearest to it.
        </p>
      ) : (
        <div className="overflow-x-auto">
          <table className="table still" aria-label="What you looked at">
            <thead>
              <tr>
                <th scope="col" className="right">
                  Minute
                </th>
                <th scope="col">You did</th>
                <th scope="col">You saw</th>
                <th scope="col">It told</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((row, at) => (
                <Row key={`${at} ${row.did}`} row={row} />
              ))}
            </tbody>
          </table>
        </div>
      )}
      <p role="status" className="px-4 pt-2 text-13 text-ink2">
        {possible.map(({ left: fit, tried }, at) => (
          <span key={at} className="mr-4">
            {possible.length === 1 ? "" : `${at + 1}. `}
            <b className="font-semibold text-ink">
              {fit} of {tried}
            </b>{" "}
            single faults fit {at === 0 && possible.length === 1 ? "what you saw" : "for that complaint"}.
          </span>
        ))}
      </p>
    </section>
  );
}

const COLOURS = { true: "", false: "font-semibold text-stop", null: "text-ink2" } as const;

function Row({ row }: { row: PlayedRow }) {
  return (
    <tr>
      <td className="right mono">{row.minute}</td>
      <td className="min-w-44 py-1 whitespace-normal">{row.did}</td>
      <td className="mono min-w-40 py-1 whitespace-pre-wrap [overflow-wrap:anywhere]">{row.saw}</td>
      <td className={`min-w-40 whitespace-pre-wrap ${COLOURS[`${row.isSound}`]}`}>{row.told}</td>
    </tr>
  );
}
