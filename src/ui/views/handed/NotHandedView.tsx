"use client";

import { clsx } from "clsx";
import type { NotHanded } from "@/http/contracts/answers";
import { Brand } from "../../kit/signs";

const WHY: Readonly<Record<NotHanded, string>> = {
  unknown: "This link is not complete, or what it led to is gone.",
  withdrawn: "This link was withdrawn.",
  over: "The last day of this link is over.",
  maker: "Whoever made this link does not work on this site any more.",
  "sheet-withdrawn": "The sheet that this link led to was withdrawn: what it says is not what is there.",
  "made-anew": "The state that was issued can’t be had any more: the site was made anew from a file since.",
  "too-large": "These papers are too large to be read here.",
};

/** A link that shows no sheet, and what to do about it. */
export const NotHandedView = ({ why }: { why: NotHanded }) => (
  <main
    className={clsx(
      "mx-auto mt-24 w-[calc(100%-32px)] max-w-[460px] border border-ink bg-panel p-6",
      "max-[600px]:mt-6",
    )}
  >
    <p className="mb-4 flex items-center gap-2 text-[16px] font-bold">
      <Brand />
      Dianome
    </p>
    <h1 className="mb-2 text-22">No papers here</h1>
    <p className="text-15 text-ink2">{WHY[why]} Ask whoever sent it for another one, or for the papers.</p>
  </main>
);
