import "server-only";
import { headers } from "next/headers";
import { redirect } from "next/navigation";
import type { Person } from "@/application/stores";
import { authorise } from "./authorise";

/** For pages: who asks, by the same rule as for every route; a stranger is led to the door. */
export async function requirePerson(): Promise<Person> {
  const admission = await authorise({ headers: await headers(), method: "GET" });
  if (!admission.admitted) redirect("/enter");
  return admission.person;
}
