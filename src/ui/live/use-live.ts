"use client";

import { useEffect } from "react";
import type { LiveAnswer } from "@/http/contracts/answers";
import { call } from "../plan-store/api";
import { usePlanStore } from "../plan-store/use-plan";
import { liveStore, NOBODY, TAB } from "./live-store";

/** Holds the stream of a site while the tab is looked at, and hands on what it tells of the plan. */
export function useLive(site: string): void {
  const plan = usePlanStore();
  useEffect(() => {
    let source: EventSource | null = null;
    const hear = (event: MessageEvent<string>) => {
      const told = JSON.parse(event.data) as LiveAnswer;
      const { revision, record, present } = told;
      liveStore.setState({ revision, record, present, isOpen: true });
      void plan.getState().hear(told);
    };
    const close = () => {
      source?.close();
      source = null;
      liveStore.setState(NOBODY);
    };
    const follow = () => {
      if (document.visibilityState !== "visible") return close();
      if (source !== null && source.readyState !== EventSource.CLOSED) return;
      source = new EventSource(`/api/sites/${site}/events`);
      source.addEventListener("message", hear);
      // It comes back by itself, except where it was refused; until then everything is asked for.
      source.addEventListener("error", () => liveStore.setState({ isOpen: false }));
    };
    follow();
    document.addEventListener("visibilitychange", follow);
    window.addEventListener("online", follow);
    return () => {
      document.removeEventListener("visibilitychange", follow);
      window.removeEventListener("online", follow);
      close();
    };
  }, [site, plan]);
}

/** Often enough that nobody is thought gone. */
const STILL_HERE_MS = 25_000;
/** Somebody who goes through a table row by row is told where they stop. */
const SETTLED_MS = 250;

/** Tells where this tab is: its sheet and what is selected in it. */
export function usePresence(site: string, sheet: string, things: readonly string[]): void {
  const told = things.join(",");
  useEffect(() => {
    const path = `/api/sites/${site}/presence`;
    const tell = () => {
      if (document.visibilityState !== "visible") return;
      void call(path, "POST", { is: "here", tab: TAB, sheet, things: told === "" ? [] : told.split(",") });
    };
    const soon = setTimeout(tell, SETTLED_MS);
    const timer = setInterval(tell, STILL_HERE_MS);
    return () => {
      clearTimeout(soon);
      clearInterval(timer);
    };
  }, [site, sheet, told]);
  useEffect(() => {
    const leave = () => {
      const isGone = document.visibilityState !== "visible";
      const body = isGone
        ? { is: "gone", tab: TAB }
        : { is: "here", tab: TAB, sheet, things: told === "" ? [] : told.split(",") };
      void fetch(`/api/sites/${site}/presence`, {
        method: "POST",
        body: JSON.stringify(body),
        headers: { "content-type": "application/json" },
        keepalive: true,
      }).catch(() => undefined);
    };
    document.addEventListener("visibilitychange", leave);
    return () => document.removeEventListener("visibilitychange", leave);
  }, [site, sheet, told]);
}
