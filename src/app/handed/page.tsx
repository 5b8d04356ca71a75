import type { Metadata } from "next";
import { headers } from "next/headers";
import { handedFor } from "@/http/pass-use-cases";
import { HandedView } from "@/ui/views/handed/HandedView";
import { NotHandedView } from "@/ui/views/handed/NotHandedView";

export const metadata: Metadata = { title: "Papers", robots: { index: false, follow: false } };

/** A sheet for whoever has the link to it: no account, nothing to change. The link's key is looked at here. */
export default async function HandedPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const { key, part } = await searchParams;
  const linkKey = typeof key === "string" ? key : "";
  const handed = await handedFor(linkKey, typeof part === "string" ? part : null, await headers());
  return typeof handed === "string" ? (
    <NotHandedView why={handed} />
  ) : (
    <HandedView linkKey={linkKey} handed={handed} />
  );
}
