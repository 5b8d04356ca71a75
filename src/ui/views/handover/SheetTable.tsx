import { clsx } from "clsx";
import type { PlanIndex } from "@/core/plan";
import type { IssuedSheet, Sign } from "@/core/records";
import { counted } from "@/core/repairs";
import { dayText, issuedText } from "../../kit/day-text";

interface Props {
  readonly index: PlanIndex;
  /** The revision that the server has. */
  readonly revision: number;
  readonly sheets: readonly IssuedSheet[];
  readonly open: string;
  readonly onOpen: (issue: string) => void;
}

const signedText = (sign: Sign | null): string =>
  sign === null ? "open" : `${sign.name}, ${dayText(sign.day)}`;

/** What has become of a sheet since it was issued. */
function sinceText({ issue, isWithdrawn, replacedBy }: IssuedSheet, revision: number): string {
  if (isWithdrawn) return "withdrawn";
  if (replacedBy !== null) return `replaced by ${replacedBy}`;
  const since = revision - issue.sheet.revision;
  // One that came along in a file counts the revisions of another site.
  if (since < 0) return "";
  return since === 0 ? "nothing changed" : counted(since, "change", "changes");
}

/** The sheets that were issued, the last one first. */
export function SheetTable({ index, revision, sheets, open, onOpen }: Props) {
  const { timeZone } = index.plan.site;
  return (
    <div className="overflow-x-auto border-b border-ink">
      <table className="table" aria-label="Issued sheets">
        <thead>
          <tr>
            <th scope="col">Sheet</th>
            <th scope="col" className="right">
              Revision
            </th>
            <th scope="col">Issued</th>
            <th scope="col">Checked</th>
            <th scope="col">Accepted</th>
            <th scope="col">Since then</th>
          </tr>
        </thead>
        <tbody>
          {sheets.toReversed().map((sheet) => {
            const { letter, by, issue, signed, isWithdrawn } = sheet;
            return (
              <tr key={issue.id} className={issue.id === open ? "bg-act-wash" : ""}>
                <td className="w-full min-w-48 !whitespace-normal">
                  <button
                    type="button"
                    className={clsx(
                      "min-h-8 py-1 text-left [overflow-wrap:anywhere]",
                      isWithdrawn ? "text-ink2 line-through" : "",
                    )}
                    aria-pressed={issue.id === open}
                    onClick={() => onOpen(issue.id)}
                  >
                    <b className="mr-3 font-semibold">{letter}</b>
                    {issue.sheet.name}
                  </button>
                </td>
                <td className="mono right">{issue.sheet.revision}</td>
                <td className="text-ink2">
                  {by}, {issuedText(issue.at, timeZone)}
                </td>
                <td className={signed.checked === null ? "text-ink2" : ""}>{signedText(signed.checked)}</td>
                <td className={signed.accepted === null ? "text-ink2" : ""}>{signedText(signed.accepted)}</td>
                <td>{sinceText(sheet, revision)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
