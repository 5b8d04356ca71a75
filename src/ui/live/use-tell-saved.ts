"use client";

import { useEffect } from "react";
import { SAVED } from "../kit/download";
import { call } from "../plan-store/api";

/**
 * Tells the server of each file that somebody saves here, for the log. What is saved without a connection is
 * told once there is one, as long as the page stays open.
 */
export function useTellSaved(site: string): void {
  useEffect(() => {
    let waiting: string[] = [];
    const send = async () => {
      const now = waiting;
      waiting = [];
      for (const file of now) {
        const answer = await call(`/api/sites/${site}/exports`, "POST", { file });
        if (!answer.ok && answer.status === 0) waiting.push(file);
      }
    };
    const hear = (event: Event) => {
      waiting.push((event as CustomEvent<string>).detail);
      void send();
    };
    const again = () => void send();
    window.addEventListener(SAVED, hear);
    window.addEventListener("online", again);
    return () => {
      window.removeEventListener(SAVED, hear);
      window.removeEventListener("online", again);
    };
  }, [site]);
}
