"use client";

import { useEffect, useState } from "react";
import { READERS, READER_WORDS, type Reader } from "@/core/pack";
import { counted } from "@/core/repairs";
import type { IssuedSheet } from "@/core/records";
import { reaches, type LinksAnswer, type SeenPass } from "@/http/contracts/answers";
import { FormRefusal } from "../../kit/FormField";
import { dayFrom } from "../../kit/day-from";
import { formSentence } from "../../kit/form-sentence";
import { useOneAtATime } from "../../kit/use-one-at-a-time";
import { call, type Called } from "../../plan-store/api";
import { usePlan } from "../../plan-store/use-plan";
import { useRecord } from "../../record-store/use-record";
import { MadeKey } from "../people/MadeKey";
import { PassList } from "../people/PassList";
import { Line } from "./Line";

/** A link opens for so many days unless somebody says otherwise. */
const USUAL_DAYS = 30;

const NO_CONNECTION =
  "Links are made and listed with a connection only: the server does not answer just now.";

/** Why nothing was done, in words: nothing of it is kept for later, as changes of the plan are. */
const refusalOf = ({ status, refused }: Extract<Called<never>, { ok: false }>): string =>
  status === 0 ? NO_CONNECTION : formSentence(refused.sentence);

/** The links of the site, as the server has them; `again` asks anew. */
function useLinks(site: string) {
  const [links, setLinks] = useState<LinksAnswer>([]);
  const [refusal, setRefusal] = useState<string | null>(null);
  const [asked, setAsked] = useState(0);
  useEffect(() => {
    let isCurrent = true;
    void call<LinksAnswer>(`/api/sites/${site}/links`).then((answer) => {
      if (!isCurrent) return;
      if (answer.ok) setLinks(answer.value);
      else setRefusal(refusalOf(answer));
    });
    return () => {
      isCurrent = false;
    };
  }, [site, asked]);
  const send = async (body: object): Promise<string | null> => {
    const answer = await call<{ key?: string }>(`/api/sites/${site}/links`, "POST", body);
    setRefusal(answer.ok ? null : refusalOf(answer));
    setAsked((n) => n + 1);
    return answer.ok ? (answer.value.key ?? null) : null;
  };
  return { links, refusal, send };
}

const isOf = ({ opens }: SeenPass, issue: string): boolean => opens.kind === "sheet" && opens.issue === issue;

/** Hands an issued sheet on by links that are read without an account, and tells who opened them. */
export function HandOn({ sheet }: { sheet: IssuedSheet }) {
  const role = usePlan((state) => state.role);
  return reaches(role, "editor") ? <Links sheet={sheet} /> : null;
}

function Links({ sheet }: { sheet: IssuedSheet }) {
  const site = usePlan((state) => state.site);
  const { links, refusal, send } = useLinks(site);
  const { sync } = useRecord();
  const once = useOneAtATime();
  const [title, setTitle] = useState(sheet.issue.sheet.recipient);
  const [reader, setReader] = useState<Reader>("customer");
  const [lastDay, setLastDay] = useState(() => dayFrom(new Date(), USUAL_DAYS));
  const [key, setKey] = useState<string | null>(null);
  const own = links.filter((link) => isOf(link, sheet.issue.id));
  const make = async () => {
    // The server has to know the sheet, which may have been issued a moment ago.
    await sync();
    setKey(await send({ do: "make", issue: sheet.issue.id, reader, title: title.trim(), lastDay }));
  };
  return (
    <section aria-label="Hand it on" className="border-t border-hair px-4 py-3 text-13">
      <h3 className="text-15">Hand it on by a link</h3>
      <p className="pb-2 text-ink2">
        Whoever has the link reads the papers of {sheet.letter}, without an account, until its last day. They
        see nothing else of the plan and change nothing.
      </p>
      {sheet.isWithdrawn ? null : (
        <form
          className="flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            void once(make);
          }}
        >
          <div className="min-w-48 flex-1">
            <Line label="Who gets it" value={title} onChange={setTitle} most={80} />
          </div>
          <label className="flex flex-col text-ink2">
            Papers
            <select
              className="field mt-1 text-ink"
              value={reader}
              onChange={(event) =>
                setReader(READERS.find((reader) => reader === event.target.value) ?? reader)
              }
            >
              {READERS.map((reader) => (
                <option key={reader} value={reader}>
                  {READER_WORDS[reader]}
                </option>
              ))}
            </select>
          </label>
          <label className="flex flex-col text-ink2">
            Last day
            <input
              type="date"
              className="field mt-1 text-ink"
              value={lastDay}
              onChange={(event) => setLastDay(event.target.value)}
            />
          </label>
          <button type="submit" className="button go" disabled={title.trim() === "" || lastDay === ""}>
            Make the link
          </button>
        </form>
      )}
      <FormRefusal sentence={refusal} />
      {key === null ? null : (
        <MadeKey
          words="Send this link; it is not shown again. Whoever has it can read the papers."
          text={`${location.origin}/handed?key=${key}`}
        />
      )}
      <PassList
        label={`Links to ${sheet.letter}`}
        passes={own}
        about={(pass) => (pass.opens.kind === "sheet" ? READER_WORDS[pass.opens.reader] : "")}
        onWithdraw={(id) => void send({ do: "withdraw", id })}
      />
      {own.length === 0 ? null : (
        <p className="pt-1 text-ink2">{counted(own.length, "link", "links")} in all</p>
      )}
    </section>
  );
}
