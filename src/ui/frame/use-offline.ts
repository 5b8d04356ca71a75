"use client";

import { useEffect, useRef } from "react";
import { create } from "zustand";
import { CACHES, isKept, planOf, runbookPageOf } from "@/service-worker/kept";

/** Whether the sites that were open here open without a connection, too; why not, where that is known. */
export type Offline = "unknown" | "ready" | "notHere" | "untrusted" | "noRoom";

export const useOffline = create<{ readonly state: Offline }>(() => ({ state: "unknown" }));

/** What a page was asked with tells nothing of what is in it. */
const isThere = async (cache: Cache, path: string): Promise<boolean> =>
  (await cache.match(path, { ignoreVary: true })) !== undefined;

/** Keeps what the server answers now; without an answer, what is kept stays. Whether it lies here then. */
async function keep(name: string, path: string): Promise<boolean> {
  const cache = await caches.open(name);
  const answer = await fetch(path).catch(() => null);
  if (answer === null) return isThere(cache, path);
  if (!isKept(answer)) return false;
  await cache.put(path, answer);
  return true;
}

const stateAfter = (error: unknown): Offline => {
  if (error instanceof DOMException)
    // A browser that was let past a certificate it does not trust takes no service worker from there.
    return error.name === "QuotaExceededError" ? "noRoom" : "untrusted";
  // No connection, or a browser that fails in a way of its own: nothing is known of what lies here.
  return "unknown";
};

async function start(site: string): Promise<Offline> {
  if (!("serviceWorker" in navigator)) return "notHere";
  // Where one runs already, the plan that was just read lies here: a large one is not asked for twice.
  const wasRead = navigator.serviceWorker.controller !== null;
  try {
    await navigator.serviceWorker.register("/sw.js");
    await navigator.serviceWorker.ready;
    // The runbook is what is needed on the ladder, whichever page is open now.
    const page = await keep(CACHES.pages, runbookPageOf(site));
    const hasPlan =
      (wasRead && (await isThere(await caches.open(CACHES.plans), planOf(site)))) ||
      (await keep(CACHES.plans, planOf(site)));
    return page && hasPlan ? "ready" : "unknown";
  } catch (error) {
    return stateAfter(error);
  }
}

/** So long a site that has just been opened has the machine and the line for itself. */
const OPENING_MS = 2000;

/** So long nothing more may have changed until the plan is kept anew. */
const QUIET_MS = 15_000;

/**
 * Makes a site open without a connection, with its plan as the server last had it; `revision` is the plan's,
 * undefined while it is on its way.
 */
export function useKeepOffline(site: string, revision: number | undefined): void {
  const isOpen = revision !== undefined;
  useEffect(() => {
    if (!isOpen) return undefined;
    let isGone = false;
    const keepSite = () =>
      void start(site).then((state) => {
        if (!isGone) useOffline.setState({ state });
      });
    const timer = setTimeout(keepSite, OPENING_MS);
    // What could not be looked at or fetched without a connection is with the next one.
    window.addEventListener("online", keepSite);
    return () => {
      isGone = true;
      clearTimeout(timer);
      window.removeEventListener("online", keepSite);
    };
  }, [site, isOpen]);
  const opened = useRef<number | null>(null);
  useEffect(() => {
    opened.current = null;
  }, [site]);
  useEffect(() => {
    if (revision === undefined) return undefined;
    opened.current ??= revision;
    if (opened.current === revision) return undefined;
    const timer = setTimeout(() => {
      keep(CACHES.plans, planOf(site)).then(
        (isDone) => isDone || useOffline.setState({ state: "unknown" }),
        (error: unknown) => useOffline.setState({ state: stateAfter(error) }),
      );
    }, QUIET_MS);
    return () => clearTimeout(timer);
  }, [site, revision]);
}

/** Forgets all pages and plans that are kept here: the next person at this browser is another one. */
export async function forgetPages(): Promise<void> {
  if (!("caches" in window)) return;
  for (const name of [CACHES.pages, CACHES.plans]) await caches.delete(name);
}
