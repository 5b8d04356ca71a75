"use client";

import { clsx } from "clsx";
import Link from "next/link";
import type { ReactNode } from "react";
import { Toaster } from "sonner";
import { Brand } from "../kit/signs";
import { GroundSwitch } from "./GroundSwitch";
import { SignOut } from "./SignOut";

const PAGES = [
  ["/", "Sites"],
  ["/people", "People"],
  ["/account", "Account"],
] as const;

/** A page above the drawings: sites, people, one's own account. */
export function Page({
  at,
  person,
  children,
}: {
  at: (typeof PAGES)[number][0];
  person: string;
  children: ReactNode;
}) {
  return (
    <div className="flex min-h-screen flex-col">
      <header className="flex min-h-11 flex-wrap items-center gap-x-4 gap-y-1 border-b border-ink px-4 py-1">
        <span className="flex items-center gap-[10px] text-[16px] font-bold">
          <Brand />
          Dianome
        </span>
        <nav aria-label="Pages" className="flex gap-1 text-13">
          {PAGES.map(([href, title]) => (
            <Link
              key={href}
              href={href}
              aria-current={href === at ? "page" : undefined}
              className={clsx(
                "flex min-h-8 items-center border-b-2 border-transparent px-2 hover:bg-hover",
                "aria-[current=page]:border-ink aria-[current=page]:font-semibold",
              )}
            >
              {title}
            </Link>
          ))}
        </nav>
        <span className="ml-auto text-13 font-semibold">{person}</span>
        <SignOut />
        <GroundSwitch />
      </header>
      <main className="mx-auto w-full max-w-[1080px] flex-1 border-x border-hair bg-panel">{children}</main>
      <Toaster position="bottom-left" />
    </div>
  );
}
