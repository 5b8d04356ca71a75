import { headers } from "next/headers";
import { accountOf } from "@/http/account-use-cases";
import { requirePerson } from "@/http/require-person";
import { AccountView } from "@/ui/views/account/AccountView";

export default async function AccountPage() {
  const person = await requirePerson();
  return <AccountView account={await accountOf(person, await headers())} />;
}
