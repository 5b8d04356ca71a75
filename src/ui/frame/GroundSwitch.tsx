"use client";

import { ToggleGroup } from "radix-ui";
import { useState, useSyncExternalStore } from "react";

type Ground = "sheet" | "bench";
const YEAR_SECONDS = 31_536_000;
const DARK = "(prefers-color-scheme: dark)";

const follow = (changed: () => void) => {
  const query = matchMedia(DARK);
  query.addEventListener("change", changed);
  return () => query.removeEventListener("change", changed);
};

/**
 * The light sheet or the dark bench: the system's until one is chosen, then that one, kept in a cookie for
 * the first paint.
 */
export function GroundSwitch() {
  const system = useSyncExternalStore<Ground>(
    follow,
    () => (matchMedia(DARK).matches ? "bench" : "sheet"),
    () => "sheet",
  );
  const chosen = useSyncExternalStore(
    () => () => {},
    () => document.documentElement.dataset.ground as Ground | undefined,
    () => undefined,
  );
  const [own, setOwn] = useState<Ground | null>(null);
  const choose = (ground: Ground) => {
    document.documentElement.dataset.ground = ground;
    document.cookie = `ground=${ground}; path=/; max-age=${YEAR_SECONDS}; samesite=lax`;
    setOwn(ground);
  };
  const item = "h-full min-h-[26px] px-2 text-ink2 data-[state=on]:bg-ink data-[state=on]:text-paper";
  return (
    <ToggleGroup.Root
      type="single"
      value={own ?? chosen ?? system}
      onValueChange={(value) => {
        if (value === "sheet" || value === "bench") choose(value);
      }}
      aria-label="Ground"
      className="inline-flex h-7 overflow-hidden rounded max-[600px]:h-[46px] border border-rule text-13"
    >
      <ToggleGroup.Item value="sheet" className={item}>
        Sheet
      </ToggleGroup.Item>
      <ToggleGroup.Item value="bench" className={item}>
        Bench
      </ToggleGroup.Item>
    </ToggleGroup.Root>
  );
}
