import { v7 } from "uuid";
import type { Browser } from "./waiting";

const TAB = "dianome:tab";
const olderKey = (site: string) => `dianome:waiting:${site}`;

/** The tab's name survives a reload and no more. */
function tabId(): string {
  if (typeof sessionStorage === "undefined") return "";
  const known = sessionStorage.getItem(TAB);
  const tab = known ?? v7();
  if (known === null) sessionStorage.setItem(TAB, tab);
  return tab;
}

const MINE = new Set<string>();

/** Holds a lock for as long as the page lives; false when another page holds it. */
function claim(tab: string): Promise<boolean> {
  if (MINE.has(tab)) return Promise.resolve(true);
  return new Promise((done, failed) => {
    navigator.locks
      .request(`dianome-tab-${tab}`, { ifAvailable: true }, (lock) => {
        if (lock !== null) MINE.add(tab);
        done(lock !== null);
        return lock === null ? undefined : new Promise<void>(() => {});
      })
      .catch(failed);
  });
}

/** The browser that this page runs in; on the server, which makes the page first, one that can do nothing. */
export const thisBrowser = (): Browser => ({
  tabId,
  claim: typeof navigator !== "undefined" && "locks" in navigator ? claim : null,
  now: () => Date.now(),
  older: (site) => ({
    text: localStorage.getItem(olderKey(site)),
    forget: () => localStorage.removeItem(olderKey(site)),
  }),
});
