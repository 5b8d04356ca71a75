import { foldersFor, readSites, sitesInBin } from "@/http/use-cases";
import { requirePerson } from "@/http/require-person";
import { SitesView } from "@/ui/views/sites/SitesView";

export default async function SitesPage() {
  const person = await requirePerson();
  const [sites, bin, folders] = await Promise.all([
    readSites(person),
    sitesInBin(person),
    foldersFor(person),
  ]);
  return <SitesView person={person.name} sites={sites} bin={bin} folders={folders} />;
}
