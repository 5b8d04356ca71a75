import { placeDevices } from "@/core/commands";
import { useEffect, useRef } from "react";
import { usePlanStore } from "../../plan-store/use-plan";

interface Point {
  readonly x: number;
  readonly y: number;
}

/** A step with an arrow key is kept once the keys have rested. */
const REST_MS = 500;

export interface Moved {
  readonly move: (device: string, to: Point) => void;
  /** Keeps what has not come to rest yet, before something else is done to the places. */
  readonly keepNow: () => void;
}

/** Keeps where boxes were moved to, all of them in one step, once they rest or the view is left. */
export function useMoved(): Moved {
  const store = usePlanStore();
  const moved = useRef(new Map<string, Point>());
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const keep = useRef(() => {
    clearTimeout(timer.current);
    const { held, edit } = store.getState();
    const places = new Map([...moved.current].filter(([id]) => held?.index.plan.device.has(id)));
    moved.current.clear();
    if (places.size === 0) return;
    edit(placeDevices({ places }));
  });
  useEffect(() => {
    const last = keep.current;
    return () => last();
  }, []);
  return {
    move: (device, { x, y }) => {
      moved.current.set(device, { x: Math.round(x), y: Math.round(y) });
      clearTimeout(timer.current);
      timer.current = setTimeout(() => keep.current(), REST_MS);
    },
    keepNow: () => keep.current(),
  };
}
