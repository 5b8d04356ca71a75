import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { requirePerson } from "@/http/require-person";
import { siteFor } from "@/http/use-cases";
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
  const found = await siteFor(site, person);
  if (found === null) notFound();
  return (
    <Workspace site={site} name={found.name} person={person.name} role={found.role}>
      {children}
    </Workspace>
  );
}
