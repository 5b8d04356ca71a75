import { decodeChanges } from "@/core/formats";
import { planBefore, type Plan } from "@/core/plan";
import type { NewsAnswer } from "@/http/contracts/answers";
import { call } from "./api";
import type { Held } from "./held";

const MOVED_ON = "Somebody has changed the plan just now. Try again.";

/**
 * The plan as a revision had it, from what the server has of what was changed since; a sentence where that
 * can't be had now.
 */
export async function planAt(site: string, held: Held, revision: number): Promise<Plan | string> {
  if (revision > held.revision)
    return `This site has no revision ${revision}: it was made anew from a file since.`;
  if (revision === held.revision) return held.base;
  const news = await call<NewsAnswer>(`/api/sites/${site}/batches?after=${revision}`);
  if (!news.ok) return news.refused.sentence;
  if (news.value.revision !== held.revision) return MOVED_ON;
  return (
    planBefore(
      held.base,
      news.value.entries.map(({ changes }) => decodeChanges(changes)),
    ) ?? MOVED_ON
  );
}
