import { notFound } from "next/navigation";
import { requirePerson } from "@/http/require-person";
import { isView } from "@/ui/frame/views";
import { Views } from "@/ui/frame/Views";

/** The view of the address; from there on views change in the browser, with or without a server. */
export default async function ViewPage({ params }: { params: Promise<{ view: string }> }) {
  await requirePerson();
  if (!isView((await params).view)) notFound();
  return <Views />;
}
