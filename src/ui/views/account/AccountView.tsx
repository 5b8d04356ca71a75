"use client";

import type { AccountAnswer } from "@/http/contracts/answers";
import { LetIn } from "../../frame/LetIn";
import { Page } from "../../frame/Page";
import { Factor } from "./Factor";
import { NewPassword } from "./NewPassword";
import { Passkeys } from "./Passkeys";
import { Sessions } from "./Sessions";

/** One's own account: password, second factor, sessions. */
export function AccountView({ account }: { account: AccountAnswer }) {
  return (
    <Page at="/account" person={account.name}>
      <div className="head">
        <h1>Account</h1>
        <p>{account.name}</p>
      </div>
      {account.hasPassword ? (
        <div className="grid gap-x-8 p-4 min-[800px]:grid-cols-2">
          <NewPassword />
          <Factor account={account} />
        </div>
      ) : (
        <p className="p-4 text-15">
          This account has no password: it comes in by links alone, as in the demo. Whoever runs the machine
          gives it one by <span className="mono">bin/let-in</span>.
        </p>
      )}
      {account.hasPassword ? <Passkeys account={account} /> : null}
      <section className="border-t border-hair p-4" aria-label="Another browser">
        <h2 className="mb-2 text-15">Another browser</h2>
        <p className="mb-2 text-13 text-ink2">
          A link that signs you in on your phone or another machine, once.
        </p>
        <LetIn words="Make a link" />
      </section>
      <Sessions sessions={account.sessions} />
      <section className="border-t border-hair p-4" aria-label="Your data">
        <h2 className="mb-2 text-15">Your data</h2>
        <p className="mb-2 max-w-[72ch] text-13 text-ink2">
          Everything that is kept of you here: roles, sessions, what you did, changed and wrote down. No
          password, secret or key is in it.
        </p>
        <a className="button" href={`/api/people/${account.id}/data`} download>
          Save it
        </a>
      </section>
    </Page>
  );
}
