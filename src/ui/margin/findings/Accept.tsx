"use client";

import { acceptFinding, wakeFindings } from "@/core/commands";
import { useState, type FormEvent } from "react";
import { acceptedAs, wokenBy, type Finding } from "@/core/checks";
import { useFoundIn, usePlan } from "../../plan-store/use-plan";
import { acceptedWords } from "../../views/findings/AcceptedSections";
import { Section } from "../parts";

/** Deciding to live with a finding, with the reason; and taking that back. */
export function Accept({ finding }: { finding: Finding }) {
  const index = useFoundIn();
  const edit = usePlan((state) => state.edit);
  const acceptance = usePlan(
    (state) => state.accepted.find((accepted) => accepted.finding.key === finding.key)?.acceptance,
  );
  if (acceptance !== undefined)
    return (
      <Section title="Accepted">
        <p className="px-4">{acceptedWords(acceptance)}</p>
        <p className="px-4 pt-2">
          <button
            type="button"
            className="button"
            onClick={() => edit(wakeFindings({ acceptances: [acceptance.id] }))}
          >
            Open it again
          </button>
        </p>
      </Section>
    );
  const woken = wokenBy(index, finding);
  return (
    <Section title="Live with it">
      {woken.map(({ acceptance: old, why }) => (
        <p key={old.id} className="px-4 pb-2 text-13 text-ink2">
          It was accepted: {acceptedWords(old)}. {why}
        </p>
      ))}
      <AcceptForm key={finding.key} finding={finding} />
    </Section>
  );
}

function AcceptForm({ finding }: { finding: Finding }) {
  const index = useFoundIn();
  const edit = usePlan((state) => state.edit);
  const by = usePlan((state) => state.person);
  const [reason, setReason] = useState("");
  const [until, setUntil] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const accept = (event: FormEvent) => {
    event.preventDefault();
    setWrong(edit(acceptFinding({ ...acceptedAs(index, finding), reason, by, until })));
  };
  return (
    <form className="flex flex-col gap-2 px-4" onSubmit={accept}>
      <label className="text-13">
        Reason
        <input
          className="field w-full"
          value={reason}
          placeholder="why it may stay as it is"
          onChange={(event) => setReason(event.target.value)}
        />
      </label>
      <label className="text-13">
        Until
        <input
          className="field mono w-full"
          value={until}
          placeholder="always, or a day such as 2027-04-30"
          onChange={(event) => setUntil(event.target.value)}
        />
      </label>
      {wrong === null ? null : (
        <p role="alert" className="text-13 text-stop">
          {wrong}
        </p>
      )}
      <p>
        <button type="submit" className="button">
          Accept it
        </button>
      </p>
    </form>
  );
}
