"use client";

import { useEffect } from "react";
import { create } from "zustand";
import { CACHES, isKept, planOf, runbookPageOf } from "@/service-worker/kept";

/** Whether the sites that were open here open without a connection, too; why not, where that is known. */
export type Offline = "unknown" | "ready" | "notHere" | "untrusted";

export const useOffline = create<{ readonly state: Offline }>(() => ({ state: "unknown" }));

async function keep(cache: string, path: string): Promise<void> {
  const answer = await fetch(path);
  if (isKept(answer)) await (await caches.open(cache)).put(path, answer);
}

async function start(site: string): Promise<Offline> {
  if (!("serviceWorker" in navigator)) return "notHere";
  try {
    await navigator.serviceWorker.register("/sw.js");
    await navigator.serviceWorker.ready;
    // The runbook is what is needed on the ladder, whichever page is open now.
    await keep(CACHES.pages, runbookPageOf(site));
    await keep(CACHES.plans, planOf(site));
    return "ready";
  } catch (error) {
    // A browser that was let past a certificate it does not trust takes no service worker from there.
    if (error instanceof DOMException) return "untrusted";
    if (error instanceof TypeError) return "unknown";
    throw error;
  }
}

/** So long nothing more may have changed until the plan is kept anew. */
const QUIET_MS = 15_000;

/** Makes a site open without a connection, with its plan as the server last had it. */
export function useKeepOffline(site: string, revision: number | undefined): void {
  useEffect(() => {
    void start(site).then((state) => useOffline.setState({ state }));
  }, [site]);
  useEffect(() => {
    if (revision === undefined) return undefined;
    const timer = setTimeout(() => {
      // Away just now, it is kept as it was.
      if (useOffline.getState().state === "ready") keep(CACHES.plans, planOf(site)).catch(() => undefined);
    }, QUIET_MS);
    return () => clearTimeout(timer);
  }, [site, revision]);
}

/** Forgets all pages and plans that are kept here: the next person at this browser is another one. */
export async function forgetPages(): Promise<void> {
  if (!("caches" in window)) return;
  for (const name of [CACHES.pages, CACHES.plans]) await caches.delete(name);
}
