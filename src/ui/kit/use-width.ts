"use client";

import { useEffect, useState, type RefObject } from "react";

/** The width of an element in px, followed as it changes; `first` until it is known. */
export function useWidth(element: RefObject<HTMLElement | null>, first: number): number {
  const [width, setWidth] = useState(first);
  useEffect(() => {
    const target = element.current;
    if (target === null) return;
    const observer = new ResizeObserver(([entry]) => {
      if (entry !== undefined) setWidth(Math.round(entry.contentRect.width));
    });
    observer.observe(target);
    return () => observer.disconnect();
  }, [element]);
  return width;
}
