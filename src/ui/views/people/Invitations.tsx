"use client";

import { useState } from "react";
import type { PeopleAnswer, Role } from "@/http/contracts/answers";
import { FormRefusal } from "../../kit/FormField";
import { useOneAtATime } from "../../kit/use-one-at-a-time";
import { hereText } from "../sites/here-text";
import { MadeKey } from "./MadeKey";
import { firstPlace, PlaceChoice, RoleChoice } from "./PlaceChoice";
import { usePeopleOrder } from "./use-people-order";
import { placeText, ROLE_MEANS } from "./words";

const NEW = "";

/** Lets somebody in by a one-time link, which is shown here and sent by whoever makes it. */
export function Invitations({ people }: { people: PeopleAnswer }) {
  const [on, setOn] = useState(firstPlace(people));
  const [role, setRole] = useState<Role>("editor");
  const [person, setPerson] = useState(NEW);
  const [link, setLink] = useState<string | null>(null);
  const { refusal, order } = usePeopleOrder();
  const once = useOneAtATime();
  const send = async () => {
    const made = await order({ do: "invite", person: person === NEW ? null : person, on, role });
    const key = made?.key ?? null;
    setLink(key === null ? null : `${location.origin}/enter?key=${key}`);
  };
  const byName = people.people.filter(({ hasAccount }) => !hasAccount);
  return (
    <section className="border-t border-hair p-4" aria-label="Invite">
      <h2 className="mb-2 text-15">Invite somebody</h2>
      <form
        className="flex flex-wrap items-end gap-3 text-13"
        onSubmit={(event) => {
          event.preventDefault();
          void once(send);
        }}
      >
        <label className="flex flex-col gap-1">
          Whom
          <select className="field" value={person} onChange={(event) => setPerson(event.target.value)}>
            <option value={NEW}>somebody new, or with an account</option>
            {byName.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}, known by name
              </option>
            ))}
          </select>
        </label>
        <PlaceChoice people={people} value={on} onChoose={setOn} />
        <RoleChoice value={role} onChoose={setRole} />
        <button type="submit" className="button go">
          Make the link
        </button>
      </form>
      <p className="pt-2 text-13 text-ink2">{ROLE_MEANS[role]}</p>
      <FormRefusal sentence={refusal} />
      {link === null ? null : (
        <MadeKey words="Send this link; it works once, within a day, and is not shown again." text={link} />
      )}
      <Waiting people={people} onWithdraw={(id) => void order({ do: "withdrawInvitation", id })} />
    </section>
  );
}

/** Links that nobody has used yet. */
function Waiting({ people, onWithdraw }: { people: PeopleAnswer; onWithdraw: (id: string) => void }) {
  if (people.invitations.length === 0) return null;
  return (
    <ul className="pt-3 text-13" aria-label="Invitations that wait">
      {people.invitations.map(({ id, name, purpose, endsAt }) =>
        purpose.kind !== "invite" ? null : (
          <li key={id} className="flex flex-wrap items-center gap-2 border-t border-hair py-2">
            <span className="min-w-[14rem] flex-1">
              <b className="font-semibold">{purpose.grant.role}</b>, {placeText(purpose.grant.on, people)},
              for {name ?? "whoever opens it"}
              <span className="text-ink2" suppressHydrationWarning>
                {" "}
                until {hereText(endsAt)}
              </span>
            </span>
            <button type="button" className="button" onClick={() => onWithdraw(id)}>
              Withdraw
            </button>
          </li>
        ),
      )}
    </ul>
  );
}
