"use client";

import { useState } from "react";
import type { PeopleAnswer, SeenPass } from "@/http/contracts/answers";
import { dayFrom } from "../../kit/day-from";
import { FormRefusal } from "../../kit/FormField";
import { useOneAtATime } from "../../kit/use-one-at-a-time";
import { MadeKey } from "./MadeKey";
import { PassList } from "./PassList";
import { firstPlace, PlaceChoice } from "./PlaceChoice";
import { usePeopleOrder } from "./use-people-order";
import { placeText } from "./words";

const USUAL_DAYS = 90;

/** Tokens with which machines fetch exports: what they are for, where, and until when. */
export function Tokens({ people }: { people: PeopleAnswer }) {
  const { refusal, order } = usePeopleOrder();
  const once = useOneAtATime();
  const [title, setTitle] = useState("");
  const [on, setOn] = useState(firstPlace(people));
  const [lastDay, setLastDay] = useState(() => dayFrom(new Date(), USUAL_DAYS));
  const [key, setKey] = useState<string | null>(null);
  const make = async () => {
    const made = await order({ do: "makeToken", title, on, lastDay });
    setKey(made?.key ?? null);
    if (made !== null) setTitle("");
  };
  const where = ({ opens }: SeenPass) => (opens.kind === "machine" ? placeText(opens.on, people) : "");
  return (
    <div className="p-4 text-13">
      <p className="max-w-[72ch] pb-3 text-ink2">
        With a token a machine fetches exports of the sites that it is for (tables, plan files, sheets,
        papers, the drawing), and nothing else, until its last day. It counts as long as whoever made it owns
        these sites.
      </p>
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void once(make);
        }}
      >
        <label className="flex flex-col gap-1">
          What for
          <input
            className="field w-64"
            value={title}
            maxLength={80}
            placeholder="nightly copy of the plan"
            onChange={(event) => setTitle(event.target.value)}
          />
        </label>
        <PlaceChoice people={people} value={on} onChoose={setOn} />
        <label className="flex flex-col gap-1">
          Last day
          <input
            type="date"
            className="field"
            value={lastDay}
            onChange={(event) => setLastDay(event.target.value)}
          />
        </label>
        <button type="submit" className="button go" disabled={title.trim() === "" || lastDay === ""}>
          Make the token
        </button>
      </form>
      <FormRefusal sentence={refusal} />
      {key === null ? null : <Made token={key} />}
      {people.tokens.length === 0 ? <p className="pt-3 text-ink2">No machine has a token.</p> : null}
      <PassList
        label="Tokens"
        passes={people.tokens}
        about={where}
        onWithdraw={(id) => void order({ do: "withdrawToken", id })}
      />
    </div>
  );
}

const Made = ({ token }: { token: string }) => (
  <>
    <MadeKey words="Keep this token where the machine finds it; it is not shown again." text={token} />
    <p className="mono pt-2 text-12 [overflow-wrap:anywhere] text-ink2">
      curl -H &quot;Authorization: Bearer …&quot; {location.origin}/api/sites/SITE/exports
    </p>
  </>
);
