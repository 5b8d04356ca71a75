import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { requirePerson } from "@/http/require-person";
import { siteName } from "@/http/use-cases";
import { Workspace } from "@/ui/frame/Workspace";

export default async function SiteLayout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ site: string }>;
}) {
  const person = await requirePerson();
  const { site } = await params;
  const name = await siteName(site);
  if (name === null) notFound();
  return (
    <Workspace site={site} name={name} person={person.name}>
      {children}
    </Workspace>
  );
}
