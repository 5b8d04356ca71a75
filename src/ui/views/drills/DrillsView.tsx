"use client";

import { useEffect, useState } from "react";
import { resumeDrill, useDrill } from "../../drill-store/store";
import { Segmented } from "../../kit/Segmented";
import { useHeld } from "../../plan-store/use-plan";
import { CourseTab } from "./course/CourseTab";
import { SiteTab } from "./course/SiteTab";
import { OrderTab } from "./order/OrderTab";
import { PlayDrill } from "./play/PlayDrill";
import { ProgressTab } from "./progress/ProgressTab";
import { SumsTab } from "./sums/SumsTab";
import { useProgress } from "../../drill-store/use-progress";

type Tab = "course" | "site" | "order" | "sums" | "progress";
const TABS: readonly (readonly [Tab, string])[] = [
  ["course", "Course"],
  ["site", "This site"],
  ["order", "Order of work"],
  ["sums", "Sums"],
  ["progress", "Progress"],
];

/** Where the trade is practised: faults in copies of sites, orders of work, sums; and how far everybody is. */
export function DrillsView() {
  const { index, revision } = useHeld();
  const site = index.plan.site.id;
  const { asked, played } = useDrill();
  const [tab, setTab] = useState<Tab>("course");
  const progress = useProgress(played?.end ?? "");
  useEffect(() => resumeDrill(site, index.plan, revision), [site, index, revision]);
  if (asked !== null)
    return (
      <main className="sheet">
        <PlayDrill key={JSON.stringify(asked)} />
      </main>
    );
  return (
    <main className="sheet">
      <div className="head">
        <h1>Drills</h1>
        <span className="push" />
        <Segmented label="Drills" value={tab} choices={TABS} onChoose={setTab} />
      </div>
      <div className="min-h-0 flex-1 overflow-auto pb-6" tabIndex={-1}>
        {tab === "course" ? <CourseTab progress={progress} /> : null}
        {tab === "site" ? <SiteTab progress={progress} /> : null}
        {tab === "order" ? <OrderTab index={index} onOver={progress.reload} /> : null}
        {tab === "sums" ? <SumsTab onOver={progress.reload} /> : null}
        {tab === "progress" ? <ProgressTab progress={progress} /> : null}
      </div>
    </main>
  );
}
