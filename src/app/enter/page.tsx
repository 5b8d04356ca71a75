import { headers } from "next/headers";
import { linkOf, signedInName } from "@/http/account-use-cases";
import { EnterView } from "@/ui/views/enter/EnterView";

/**
 * The door: the one page without a session. Its forms are taken by the door's own routes, which check the
 * link, or the name and the password.
 */
export default async function EnterPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const { key } = await searchParams;
  const linkKey = typeof key === "string" ? key : null;
  const link = linkKey === null ? null : await linkOf(linkKey);
  const signedIn = link?.kind === "invite" ? await signedInName(await headers()) : null;
  return <EnterView linkKey={linkKey} link={link} signedIn={signedIn} />;
}
