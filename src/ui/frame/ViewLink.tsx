"use client";

import type { MouseEvent, ReactNode } from "react";
import { usePlan } from "../plan-store/use-plan";
import { showView, viewAddress, type ViewKey } from "./views";

/** A link to a view: opens it here without asking the server; with a modifier it is a link like any other. */
export function ViewLink({
  view,
  className,
  children,
  current,
}: {
  view: ViewKey;
  className: string;
  children: ReactNode;
  current: boolean;
}) {
  const site = usePlan((state) => state.site);
  const open = (event: MouseEvent) => {
    if (event.button !== 0 || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return;
    event.preventDefault();
    showView(site, view);
  };
  return (
    <a
      href={viewAddress(site, view)}
      aria-current={current ? "page" : undefined}
      className={className}
      onClick={open}
    >
      {children}
    </a>
  );
}
