import { expose } from "comlink";
import { testSheet, type TestSheet } from "@/core/commissioning";
import { PlanIndex, type Plan } from "@/core/plan";

/** Works out which readings prove a site, off the page's thread; tells how far it is. */
const workOut = (plan: Plan, tell: (done: number, all: number) => void): TestSheet =>
  testSheet(PlanIndex.of(plan), tell);

const api = { workOut };
export type TestsWorker = typeof api;

expose(api);
