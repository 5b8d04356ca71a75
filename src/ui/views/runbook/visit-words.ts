import type { PlanIndex } from "@/core/plan";

/** A moment as the site's clock has it: "29 Nov, 09:41". */
export const moment = ({ plan }: PlanIndex, at: string): string =>
  new Intl.DateTimeFormat("en-GB", {
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
    timeZone: plan.site.timeZone,
  }).format(new Date(at));
