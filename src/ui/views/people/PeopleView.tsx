"use client";

import { useState } from "react";
import { counted } from "@/core/repairs";
import type { LogAnswer, PeopleAnswer } from "@/http/contracts/answers";
import { Page } from "../../frame/Page";
import { Segmented } from "../../kit/Segmented";
import { Folders } from "./Folders";
import { Invitations } from "./Invitations";
import { LogTable } from "./LogTable";
import { PeopleTable } from "./PeopleTable";
import { Tokens } from "./Tokens";

type Part = "people" | "folders" | "machines" | "log";
const PARTS = [
  ["people", "People"],
  ["folders", "Customers"],
  ["machines", "Machines"],
  ["log", "Log"],
] as const satisfies readonly (readonly [Part, string])[];

/** Who may do what and where, the folders of sites, and who did what: as far as somebody owns it. */
export function PeopleView({
  me,
  people,
  log,
}: {
  me: { readonly id: string; readonly name: string };
  people: PeopleAnswer;
  log: LogAnswer;
}) {
  const [part, setPart] = useState<Part>("people");
  const ownsNothing = !people.ownsAll && people.customers.length + people.sites.length === 0;
  return (
    <Page at="/people" person={me.name}>
      <div className="head flex-wrap">
        <h1>People</h1>
        <p>{counted(people.people.length, "person", "people")}</p>
        {ownsNothing ? null : (
          <span className="ml-auto">
            <Segmented label="What of it" value={part} choices={PARTS} onChoose={setPart} />
          </span>
        )}
      </div>
      {ownsNothing ? (
        <p className="p-4 text-15">
          You own nothing here, so there is nobody to let in and no log to read. An owner can change that.
        </p>
      ) : (
        <>
          {part === "people" ? (
            <>
              <PeopleTable people={people} me={me.id} />
              <Invitations people={people} />
            </>
          ) : null}
          {part === "folders" ? <Folders people={people} /> : null}
          {part === "machines" ? <Tokens people={people} /> : null}
          {part === "log" ? <LogTable first={log} /> : null}
        </>
      )}
    </Page>
  );
}
