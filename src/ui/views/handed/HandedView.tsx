"use client";

import { clsx } from "clsx";
import Link from "next/link";
import type { Handed } from "@/http/contracts/answers";
import { GroundSwitch } from "../../frame/GroundSwitch";
import { hereText } from "../sites/here-text";
import { HandedBlocks } from "./HandedBlocks";

/** The papers of an issued sheet, part by part, for whoever has the link. */
export function HandedView({ linkKey, handed }: { linkKey: string; handed: Handed }) {
  const { site, block, part, parts, replacedBy, endsAt, photos } = handed;
  return (
    <div
      className={clsx(
        "mx-auto my-6 w-[calc(100%-32px)] max-w-[1100px] border border-ink bg-panel",
        "max-[600px]:my-2 print:m-0 print:w-full print:border-0",
      )}
    >
      <TitleBlock site={site} block={block} />
      {replacedBy === null ? null : (
        <p role="note" className="border-b border-hair bg-warn-wash px-4 py-2 text-13">
          A later sheet, {replacedBy}, stands in place of this one. Ask whoever sent this link for it.
        </p>
      )}
      <div className="grid min-[800px]:grid-cols-[220px_minmax(0,1fr)]">
        <nav
          aria-label="Parts"
          className="border-hair py-3 max-[800px]:border-b min-[800px]:border-r print:hidden"
        >
          <ul className="text-13 max-[800px]:columns-2">
            {parts.map(({ key, title }) => (
              <li key={key}>
                <Link
                  href={`/handed?key=${encodeURIComponent(linkKey)}&part=${key}`}
                  prefetch={false}
                  aria-current={key === part.key ? "page" : undefined}
                  className={clsx(
                    "flex min-h-8 items-center border-l-4 border-transparent px-3 hover:bg-hover",
                    "aria-[current=page]:border-ink aria-[current=page]:font-semibold",
                  )}
                >
                  {title}
                </Link>
              </li>
            ))}
          </ul>
        </nav>
        <main className="min-w-0 px-5 py-4">
          <h1 className="mb-3 text-22">{part.title}</h1>
          <HandedBlocks blocks={part.blocks} photos={photos} />
        </main>
      </div>
      <footer className="flex flex-wrap items-center gap-x-4 border-t border-hair px-4 py-2 text-12 text-ink2">
        <span suppressHydrationWarning>This link opens until {hereText(endsAt)}.</span>
        <span>The drawing is in the printed papers.</span>
        <span className="ml-auto print:hidden">
          <GroundSwitch />
        </span>
      </footer>
    </div>
  );
}

const CELLS = [
  ["sheet", "Sheet"],
  ["reader", "Papers"],
  ["revision", "Revision"],
  ["drawn", "Drawn"],
  ["checked", "Checked"],
  ["accepted", "Accepted"],
  ["check", "Check value"],
] as const;

/** What stands on every page of it on paper. */
const TitleBlock = ({ site, block }: { site: string; block: Handed["block"] }) => (
  <header className="border-b border-ink">
    <p className="flex flex-wrap items-baseline gap-x-3 px-4 pt-3 pb-2">
      <b className="text-18">{site}</b>
      <span className="text-13 text-ink2">{block.firm}</span>
    </p>
    <dl className="flex flex-wrap border-t border-hair">
      {CELLS.map(([name, title]) =>
        block[name] === "" ? null : (
          <div key={name} className="border-r border-hair px-4 py-1 last:border-0">
            <dt className="text-12 text-ink2">{title}</dt>
            <dd className={`text-13 ${name === "check" ? "mono" : "font-semibold"}`}>{block[name]}</dd>
          </div>
        ),
      )}
    </dl>
  </header>
);
