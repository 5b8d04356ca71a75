import { logFor, peopleFor } from "@/http/account-use-cases";
import { requirePerson } from "@/http/require-person";
import { PeopleView } from "@/ui/views/people/PeopleView";

export default async function PeoplePage() {
  const person = await requirePerson();
  const [people, log] = await Promise.all([peopleFor(person), logFor(person, Number.MAX_SAFE_INTEGER)]);
  return <PeopleView me={person} people={people} log={log} />;
}
