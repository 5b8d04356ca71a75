"use client";

import { clsx } from "clsx";
import type { LinkAnswer } from "@/http/contracts/answers";
import { Brand } from "../../kit/signs";
import { LinkForm } from "./LinkForm";
import { SignIn } from "./SignIn";

/** The door: sign in, or use a one-time link. A link that does nothing leads to signing in, and is said. */
export function EnterView({
  linkKey,
  link,
  signedIn,
}: {
  linkKey: string | null;
  link: LinkAnswer | null;
  signedIn: string | null;
}) {
  return (
    <main
      className={clsx(
        "mx-auto mt-24 mb-8 w-[calc(100%-32px)] max-w-[460px] border border-ink bg-panel p-6",
        "max-[600px]:mt-6",
      )}
    >
      <p className="mb-4 flex items-center gap-2 text-[16px] font-bold">
        <Brand />
        Dianome
      </p>
      {linkKey === null || link === null ? (
        <SignIn hasBadLink={linkKey !== null} />
      ) : (
        <LinkForm linkKey={linkKey} link={link} signedIn={signedIn} />
      )}
    </main>
  );
}
