import { readSites } from "@/http/use-cases";
import { requirePerson } from "@/http/require-person";
import { SitesView } from "@/ui/views/sites/SitesView";

export default async function SitesPage() {
  const person = await requirePerson();
  return <SitesView person={person.name} sites={await readSites()} />;
}
