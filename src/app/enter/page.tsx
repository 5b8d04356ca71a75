import { EnterView } from "@/ui/views/enter/EnterView";

/**
 * The door: the one page without a session. Its form is taken by the door's own route, which checks the link.
 */
export default async function EnterPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const { key } = await searchParams;
  return <EnterView linkKey={typeof key === "string" ? key : null} />;
}
