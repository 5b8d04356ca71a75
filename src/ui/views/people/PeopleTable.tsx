"use client";

import { X } from "lucide-react";
import { useState } from "react";
import type { PeopleAnswer } from "@/http/contracts/answers";
import { FormRefusal } from "../../kit/FormField";
import { hereText } from "../sites/here-text";
import { GiveRole } from "./GiveRole";
import { TakeOut } from "./TakeOut";
import { usePeopleOrder } from "./use-people-order";
import { placeKey, placeText } from "./words";

type Line = PeopleAnswer["people"][number];

/** How somebody comes in. */
function accountText({ hasAccount, hasFactor }: Line): string {
  if (!hasAccount) return "no password";
  return hasFactor ? "password and code" : "password";
}

/** Everybody with a role on something that one owns. */
export function PeopleTable({ people, me }: { people: PeopleAnswer; me: string }) {
  const { refusal, order } = usePeopleOrder();
  const [giving, setGiving] = useState<Line | null>(null);
  const [takingOut, setTakingOut] = useState<Line | null>(null);
  return (
    <div className="overflow-x-auto">
      <table className="table lead" aria-label="People">
        <thead>
          <tr>
            <th scope="col">Name</th>
            <th scope="col">Comes in by</th>
            <th scope="col">Last seen</th>
            <th scope="col">Roles</th>
            <th scope="col">
              <span className="sr-only">What to do</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {people.people.map((line) => (
            <tr key={line.id}>
              <td className="font-semibold">
                {line.name}
                {line.id === me ? <span className="font-normal text-ink2">, you</span> : null}
              </td>
              <td>{accountText(line)}</td>
              <td suppressHydrationWarning>{line.seenAt === null ? "–" : hereText(line.seenAt)}</td>
              <td>
                <Roles
                  line={line}
                  people={people}
                  onWithdraw={(on) => void order({ do: "withdraw", person: line.id, on })}
                />
              </td>
              <td className="right">
                <span className="flex justify-end gap-[6px]">
                  <button
                    type="button"
                    className="button"
                    aria-label={`Give ${line.name} a role`}
                    onClick={() => setGiving(line)}
                  >
                    Role …
                  </button>
                  {people.ownsAll ? (
                    <a
                      className="button"
                      href={`/api/people/${line.id}/data`}
                      download
                      aria-label={`Save what is kept of ${line.name}`}
                    >
                      Data
                    </a>
                  ) : null}
                  {people.ownsAll && line.id !== me ? (
                    <button
                      type="button"
                      className="button"
                      aria-label={`Take ${line.name} out`}
                      onClick={() => setTakingOut(line)}
                    >
                      Take out …
                    </button>
                  ) : null}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="px-4 pt-3">
        <FormRefusal sentence={refusal} />
      </div>
      {giving === null ? null : <GiveRole person={giving} people={people} close={() => setGiving(null)} />}
      {takingOut === null ? null : <TakeOut person={takingOut} close={() => setTakingOut(null)} />}
    </div>
  );
}

function Roles({
  line,
  people,
  onWithdraw,
}: {
  line: Line;
  people: PeopleAnswer;
  onWithdraw: (on: Line["grants"][number]["on"]) => void;
}) {
  if (line.grants.length === 0) return <span className="text-ink2">none: known by name only</span>;
  return (
    <ul className="flex flex-wrap gap-1 py-1">
      {line.grants.map(({ on, role }) => (
        <li key={placeKey(on)} className="flex items-center gap-1 border border-rule pl-2">
          <b className="font-semibold">{role}</b>
          <span className="text-ink2">{placeText(on, people)}</span>
          <button
            type="button"
            className="px-1 py-1 hover:bg-hover"
            aria-label={`Withdraw ${role} on ${placeText(on, people)} from ${line.name}`}
            onClick={() => onWithdraw(on)}
          >
            <X size={13} />
          </button>
        </li>
      ))}
    </ul>
  );
}
