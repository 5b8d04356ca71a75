import { redirect } from "next/navigation";
import { requirePerson } from "@/http/require-person";

export default async function SitePage({ params }: { params: Promise<{ site: string }> }) {
  await requirePerson();
  redirect(`/sites/${(await params).site}/segments`);
}
