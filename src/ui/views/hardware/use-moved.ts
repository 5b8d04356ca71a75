import { useEffect, useRef } from "react";
import { counted } from "@/core/repairs";
import { usePlanStore } from "../../plan-store/use-plan";

interface Point {
  readonly x: number;
  readonly y: number;
}

/** A step with an arrow key is kept once the keys have rested. */
const REST_MS = 500;

/** Keeps where boxes were moved to, all of them in one step, once they rest or the view is left. */
export function useMoved(): (device: string, to: Point) => void {
  const store = usePlanStore();
  const moved = useRef(new Map<string, Point>());
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const keep = useRef(() => {
    clearTimeout(timer.current);
    const { held, edit } = store.getState();
    const places = [...moved.current].filter(([id]) => held?.index.plan.device.has(id));
    moved.current.clear();
    const [first] = places;
    if (first === undefined) return;
    const what =
      places.length === 1
        ? (held?.index.plan.device.get(first[0])?.name ?? "")
        : counted(places.length, "device", "devices");
    edit(
      {
        planner: "place-device",
        summary: `Moved ${what} on the drawing`,
        args: { devices: Object.fromEntries(places) },
      },
      ({ draft }) => {
        for (const [id, position] of places) draft.patch("device", id, { position });
      },
    );
  });
  useEffect(() => {
    const last = keep.current;
    return () => last();
  }, []);
  return (device, { x, y }) => {
    moved.current.set(device, { x: Math.round(x), y: Math.round(y) });
    clearTimeout(timer.current);
    timer.current = setTimeout(() => keep.current(), REST_MS);
  };
}
