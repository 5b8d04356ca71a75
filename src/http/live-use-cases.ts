import "server-only";
import type { AppError } from "@/application/errors";
import type { Person } from "@/application/stores";
import { live, stores } from "@/composition";
import { ok, type Result } from "@/core/kernel";
import { authorise, roleFor } from "./authorise";
import type { BodyOf } from "./contracts/contract";
import type { presenceContract } from "./contracts/live-contracts";
import { eventStream } from "./event-stream";
import type { Reply } from "./route";

type Answer = Promise<Result<Reply, AppError>>;
interface OfSite {
  readonly params: { readonly site: string };
  readonly person: Person;
}

/** What goes on at the site, as it goes on. */
export function siteEvents({ params: { site }, headers }: OfSite & { headers: Headers }): Answer {
  const stream = eventStream({
    watch: (listener) => live().watch(site, listener),
    mayStay: async () => {
      const admission = await authorise({ headers, method: "GET" });
      return admission.admitted && "role" in (await roleFor(admission.person, "viewer", site));
    },
  });
  return Promise.resolve(ok({ value: null, stream }));
}

/** Where somebody is on the site now. */
export async function tellPresence(asked: OfSite & { body: BodyOf<typeof presenceContract> }): Answer {
  const { params, person, body } = asked;
  if (body.is === "here") await stores().live.putPresence(params.site, person.id, body);
  else await stores().live.dropPresence(params.site, person.id, body.tab);
  return ok({ value: {} });
}
