"use client";

import { useEffect, useState } from "react";
import { toldChanges } from "@/core/comparison";
import { decodeChanges } from "@/core/formats";
import { entityOf, KINDS, nameOf } from "@/core/plan";
import { TOUCHED_AT_ONCE, type TouchedAnswer } from "@/http/contracts/answers";
import { Modal } from "../kit/Modal";
import { call } from "../plan-store/api";
import { useHeld, usePlan } from "../plan-store/use-plan";
import { whenText } from "../kit/when-text";

const NEWEST = 4_000_000_000;

type Story =
  | { readonly is: "loading" }
  | { readonly is: "refused"; readonly sentence: string }
  | { readonly is: "told"; readonly entries: TouchedAnswer; readonly isWhole: boolean };

const askAbout = (site: string, about: string, before: number) =>
  call<TouchedAnswer>(`/api/sites/${site}/touched?before=${before}&about=${about}`);

/** What touched some things, newest first, page by page. */
function useStory(about: readonly string[]): { readonly story: Story; readonly more: () => void } {
  const site = usePlan((state) => state.site);
  const { revision } = useHeld();
  const [story, setStory] = useState<Story>({ is: "loading" });
  const asked = about.join(",");
  useEffect(() => {
    let isCurrent = true;
    void askAbout(site, asked, NEWEST).then((answer) => {
      if (isCurrent) setStory(storyOf(answer, []));
    });
    return () => {
      isCurrent = false;
    };
  }, [site, asked, revision]);
  const more = () => {
    if (story.is !== "told") return;
    const { entries } = story;
    void askAbout(site, asked, entries.at(-1)?.revision ?? 1).then((answer) =>
      setStory(storyOf(answer, entries)),
    );
  };
  return { story, more };
}

function storyOf(answer: Awaited<ReturnType<typeof askAbout>>, known: TouchedAnswer): Story {
  return answer.ok
    ? { is: "told", entries: [...known, ...answer.value], isWhole: answer.value.length < TOUCHED_AT_ONCE }
    : { is: "refused", sentence: answer.refused.sentence };
}

/** Opens all that ever touched a thing: who, when, meaning what, and each field with both of its values. */
export function WhySo({ about }: { about: readonly string[] }) {
  const [isOpen, setOpen] = useState(false);
  const { index } = useHeld();
  const [first = ""] = about;
  const kind = KINDS.find((kind) => entityOf(index.plan, kind, first) !== undefined);
  const name = kind === undefined ? "it" : nameOf(index, kind, first);
  return (
    <>
      <button
        type="button"
        className="button"
        aria-label={`Why is ${name} like this?`}
        onClick={() => setOpen(true)}
      >
        Why is it like this?
      </button>
      <Modal open={isOpen} onOpenChange={setOpen} title={`Why ${name} is like this`} wide>
        {isOpen ? <Told about={about} /> : null}
      </Modal>
    </>
  );
}

function Told({ about }: { about: readonly string[] }) {
  const { story, more } = useStory(about);
  if (story.is === "loading")
    return (
      <p role="status" className="text-ink2">
        Loading …
      </p>
    );
  if (story.is === "refused")
    return (
      <p role="alert" className="text-stop">
        {story.sentence}
      </p>
    );
  if (story.entries.length === 0) return <p>What made it is not saved yet.</p>;
  return (
    <>
      <ol aria-label="What touched it" className="max-h-[55vh] overflow-auto text-13" tabIndex={0}>
        {story.entries.map((entry) => (
          <Touch key={entry.id} entry={entry} isOne={about.length === 1} />
        ))}
      </ol>
      {story.isWhole ? null : (
        <button type="button" className="button mt-2" onClick={more}>
          Older ones
        </button>
      )}
    </>
  );
}

function Touch({ entry, isOne }: { entry: TouchedAnswer[number]; isOne: boolean }) {
  const { index } = useHeld();
  const told = toldChanges(index, decodeChanges(entry.changes));
  return (
    <li className="border-t border-hair py-2 first:border-t-0">
      <span className="text-ink2">
        {whenText(entry.madeAt, index.plan.site.timeZone)}, {entry.authorName}, revision {entry.revision}:
      </span>{" "}
      <b className="font-semibold">{entry.summary}</b>
      {told.map(({ id, name, words }) => (
        <span key={id} className="block [overflow-wrap:anywhere]">
          {isOne ? "" : `${name}: `}
          {words}
        </span>
      ))}
    </li>
  );
}
