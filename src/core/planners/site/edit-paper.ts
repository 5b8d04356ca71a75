import { issueSentence, SCHEMAS, type Paper } from "../../plan";
import type { EditContext, Refusal } from "../planner";

export type PaperField = keyof Paper;

/** What is asked for in a field that is written wrong. */
const WRONG: Partial<Record<PaperField, string>> = {
  linkBase: "is no address for labels; write it as https://plans.example.net, without ? and #.",
};

/** Writes what stands on the papers: lines stay as they are typed, without blanks around the whole. */
export function editPaper({ edits }: EditContext, field: PaperField, typed: string): Refusal {
  const site = edits.need("site", edits.plan.site.id);
  const text = typed.trim().replace(/\r\n?/g, "\n");
  const read = SCHEMAS.site.shape.paper.shape[field].safeParse(text);
  if (!read.success) {
    const wrong = WRONG[field];
    if (wrong !== undefined && text.length <= 200) return `"${text}" ${wrong}`;
    const [issue] = read.error.issues;
    return issue === undefined ? "It can't be read." : issueSentence(issue, text);
  }
  edits.put("site", { ...site, paper: { ...site.paper, [field]: read.data } });
  return null;
}
