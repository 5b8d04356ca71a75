"use client";

import { useEffect, useRef } from "react";
import { toast } from "sonner";
import { usePlanStore } from "../plan-store/use-plan";
import { useGoTo } from "./go-to";
import { useUiStore } from "./use-ui";
import { VIEWS } from "./views";

const KEPT = "dianome:single-keys";
const GO_WITHIN_MS = 1500;

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || target.matches("input, textarea, select, [role=combobox]"));

/**
 * The keys that work everywhere. Single letters can be switched off, for those who speak or whose hands
 * wander.
 */
export function useKeys(): void {
  const goTo = useGoTo();
  const store = usePlanStore();
  const ui = useUiStore();
  const going = useRef<{ since: number; digits: string } | null>(null);
  useEffect(() => {
    ui.getState().set({ singleKeys: localStorage.getItem(KEPT) !== "off" });
    return ui.subscribe((state, before) => {
      if (state.singleKeys !== before.singleKeys) localStorage.setItem(KEPT, state.singleKeys ? "on" : "off");
    });
  }, [ui]);
  useEffect(() => {
    const step = async (way: "undo" | "redo") => {
      const refusal = await store.getState()[way]();
      if (refusal !== null) toast.error(refusal, { duration: 8000 });
    };
    const onCommand = (event: KeyboardEvent): boolean => {
      const key = event.key.toLowerCase();
      if (key === "k") ui.getState().set({ commandOpen: true });
      else if (key === "z" && !isTyping(event.target)) void step(event.shiftKey ? "redo" : "undo");
      else if (key === "y" && !isTyping(event.target)) void step("redo");
      else return false;
      return true;
    };
    /** "G 0 5" or "G 5": the sheet with that number. */
    const onGoing = (event: KeyboardEvent): boolean => {
      const { current } = going;
      if (current === null || event.timeStamp - current.since > GO_WITHIN_MS || !/^\d$/.test(event.key))
        return false;
      const digits = `${current.digits}${event.key}`;
      const exact = VIEWS.find((v) => v.number === digits.padStart(2, "0"));
      const longer = VIEWS.some((v) => v.number?.startsWith(digits) === true && digits.length < 2);
      going.current = longer ? { ...current, digits } : null;
      if (exact !== undefined) goTo.view(exact.key);
      return true;
    };
    const onSingle = (event: KeyboardEvent): boolean => {
      if (!ui.getState().singleKeys || isTyping(event.target)) return false;
      if (onGoing(event)) return true;
      const key = event.key.toLowerCase();
      going.current = key === "g" ? { since: event.timeStamp, digits: "" } : null;
      if (key === "p") goTo.view("probe");
      else if (event.key === "?") ui.getState().set({ helpOpen: true });
      else return key === "g";
      return true;
    };
    const onKey = (event: KeyboardEvent) => {
      // A table or a field has taken the key. React listens at the document, too, so stopping the event there
      // doesn't stop it here.
      if (event.defaultPrevented) return;
      if (event.key === "Escape" && !isTyping(event.target) && ui.getState().selection !== null) {
        ui.getState().select(null);
        return;
      }
      const command = event.ctrlKey || event.metaKey;
      const single = () => !event.altKey && onSingle(event);
      const handled = command ? onCommand(event) : single();
      if (handled) event.preventDefault();
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  });
}
