"use client";

import type { ReactNode } from "react";
import { useUi } from "../frame/use-ui";

/** The head of the margin: what kind of thing is selected, and its name. */
export function MarginHead({ kick, children }: { kick: string; children: ReactNode }) {
  const set = useUi((state) => state.set);
  return (
    <header className="border-b border-hair px-4 pt-[11px] pb-3">
      <div className="mb-[6px] flex items-center text-12 text-ink2">
        {kick}
        <button
          type="button"
          className="ml-auto h-6 w-6 hover:text-ink"
          aria-label="Fold the margin"
          title="Fold the margin"
          onClick={() => set({ folded: true })}
        >
          ›
        </button>
      </div>
      <h2 className="flex min-h-6 items-center gap-[9px] text-18">{children}</h2>
    </header>
  );
}

export const Fact = ({ name, children }: { name: string; children: ReactNode }) => (
  <>
    <dt>{name}</dt>
    <dd>{children}</dd>
  </>
);

export const Section = ({ title, children }: { title: ReactNode; children: ReactNode }) => (
  <section className="section">
    <h3>{title}</h3>
    {children}
  </section>
);

/** A caution where it belongs: short, plain, never in the way. */
export const Caution = ({ head, children }: { head: string; children: ReactNode }) => (
  <p className="caution">
    <b className="font-semibold">{head}</b> {children}
  </p>
);
