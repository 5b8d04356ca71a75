"use client";

import { useMemo, useState } from "react";
import {
  bySegment,
  failureKey,
  failureName,
  FailureStudy,
  lossWords,
  singleFailures,
  type Loss,
} from "@/core/failure";
import { nameOf } from "@/core/plan";
import { useUi } from "../../frame/use-ui";
import { Combo } from "../../kit/Combo";
import { useIndex } from "../../plan-store/use-plan";
import { useStudy } from "../../views/failures/use-study";
import { MarginHead, Section } from "../parts";

const PARTS = [
  ["cutOff", "Cut off"],
  ["noGateway", "Without their gateway"],
  ["noInternet", "Without the internet"],
  ["noAddress", "Without a DHCP server, when their lease ends"],
] as const;

/**
 * One failure in full: who loses what, by segment; what takes over; and what happens when something else
 * fails with it.
 */
export function FailureMargin() {
  const index = useIndex();
  const selection = useUi((state) => state.selection);
  const { losses } = useStudy(index.plan.site.id);
  const [second, setSecond] = useState("");
  const key = selection?.what === "failure" ? selection.key : null;
  const loss = losses?.find((rankedLoss) => rankedLoss.key === key) ?? losses?.[0];
  const failures = useMemo(() => singleFailures(index), [index]);
  const first = loss?.failures[0];
  const other = failures.find((failure) => failureKey(failure) === second);
  const both = useMemo(
    () =>
      first === undefined || other === undefined || failureKey(first) === failureKey(other)
        ? null
        : new FailureStudy(index).fail([first, other]),
    [index, first, other],
  );
  if (loss === undefined)
    return (
      <>
        <MarginHead kick="Failures">Nothing tried yet</MarginHead>
        <p className="p-4 text-ink2">
          Each device, cable, supply and line fails in turn; choose one to see who loses what.
        </p>
      </>
    );
  return (
    <>
      <MarginHead kick="When this fails">{loss.name}</MarginHead>
      <p className="px-4 pt-3">{lossWords(loss)}</p>
      <Losses loss={loss} />
      <Section title="And at the same time">
        <div className="px-4">
          <Combo
            label="And at the same time"
            value={second}
            empty="something else"
            choices={failures
              .filter((failure) => first === undefined || failureKey(failure) !== failureKey(first))
              .map((failure) => ({
                value: failureKey(failure),
                label: failureName(index, failure),
                group: failure.what === "feed" ? "supply" : failure.what,
              }))}
            onChoose={setSecond}
          />
        </div>
        {both === null ? null : (
          <>
            <p className="px-4 pt-2">{lossWords(both)}</p>
            <Losses loss={both} />
          </>
        )}
      </Section>
    </>
  );
}

function Losses({ loss }: { loss: Loss }) {
  const index = useIndex();
  return (
    <>
      {PARTS.map(([part, title]) =>
        loss[part].length === 0 ? null : (
          <Section key={part} title={`${title}: ${loss[part].length}`}>
            <ul className="px-4 text-13">
              {bySegment(index, loss[part]).map((lossBySegment) => (
                <li key={lossBySegment.segment} className="py-[2px]">
                  <b className="font-semibold">
                    {lossBySegment.name}, {lossBySegment.count}:
                  </b>{" "}
                  <span className="text-ink2">{lossBySegment.some}</span>
                </li>
              ))}
            </ul>
          </Section>
        ),
      )}
      {loss.takeOver.length === 0 ? null : (
        <Section title="Takes over">
          <ul className="px-4 text-13">
            {[...new Set(loss.takeOver)].map((port) => (
              <li key={port}>{nameOf(index, "port", port)}, which stood by</li>
            ))}
          </ul>
        </Section>
      )}
    </>
  );
}
