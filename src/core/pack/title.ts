import { shortCheck } from "../records";
import { signText } from "./done";
import { READER_WORDS, type PackStudy, type Reader, type TitleBlock } from "./model";
import { linesOf, timeWords } from "./words";

/** What stands in the title block of papers for a reader. */
export function titleBlock({ index, sheet, revision, made }: PackStudy, reader: Reader): TitleBlock {
  const { name, paper, timeZone } = index.plan.site;
  const known = { site: name, reader: READER_WORDS[reader], firm: linesOf(paper.firm)[0] ?? "" };
  if (sheet === null)
    return {
      ...known,
      sheet: "as it stands, not issued",
      revision: String(revision),
      drawn: timeWords(made, timeZone),
      checked: "",
      accepted: "",
      check: "",
    };
  const { issue, letter, by, signed, isWithdrawn } = sheet;
  return {
    ...known,
    sheet: `${letter} ${issue.sheet.name}${isWithdrawn ? ", withdrawn" : ""}`,
    revision: String(issue.sheet.revision),
    drawn: `${by}, ${timeWords(issue.at, timeZone)}`,
    checked: signText(signed.checked),
    accepted: signText(signed.accepted),
    check: shortCheck(issue.sheet.check),
  };
}
