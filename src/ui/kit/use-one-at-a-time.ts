import { useRef } from "react";

/**
 * For a form whose deed makes something anew each time: a second press while the first is under way does
 * nothing. The button stays pressable, so that whoever is at it by keyboard keeps their place.
 */
export function useOneAtATime(): (deed: () => Promise<void>) => Promise<void> {
  const isUnderWay = useRef(false);
  return async (deed) => {
    if (isUnderWay.current) return;
    isUnderWay.current = true;
    try {
      await deed();
    } finally {
      isUnderWay.current = false;
    }
  };
}
