"use client";

import { useMemo } from "react";
import { removeSignIns, writeSignIn } from "@/core/commands";
import { choiceWord, SIGN_IN_COLUMNS, signInCellText, STAGES } from "@/core/planners";
import { signInPorts, type Host, type SignIn } from "@/core/plan";
import { counted } from "@/core/repairs";
import { stagesOf } from "@/core/guards";
import { useGoTo } from "../../frame/go-to";
import { useSlices } from "../../kit/use-slices";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { ColumnsMargin, Gone } from "../ColumnsMargin";
import { Caution, Fact, Section } from "../parts";

const MOST = 4;

const STAGE_ORDER = ["watch", "limited", "closed"] as const;

/** Whom a stage leaves without a network, the first few by name. */
function cutText(cutOff: readonly Host[], isDone: boolean): string {
  const names = cutOff.slice(0, MOST).map(({ name }) => name);
  const more = cutOff.length > MOST ? `, ${cutOff.length - MOST} more` : "";
  if (cutOff.length > 0) return `cuts off ${cutOff.length}: ${names.join(", ")}${more}`;
  return isDone ? "cuts nobody off" : "asking …";
}

/** The way from watching to closed: whom each stage would cut off, and the step to it. */
function WayThere({ profile }: { profile: SignIn }) {
  const index = useIndex();
  const goTo = useGoTo();
  const edit = usePlan((state) => state.edit);
  const { hosts, cutOffAt } = useMemo(() => stagesOf(index, profile), [index, profile]);
  const { done, all, answers } = useSlices(hosts, cutOffAt);
  const cutOff = (stage: SignIn["stage"]) =>
    answers.filter(([, stages]) => stages.includes(stage)).map(([host]) => host);
  return (
    <Section title="The way to closed">
      <ol className="flex flex-col gap-2 px-4" aria-busy={done < all}>
        {STAGE_ORDER.map((stage) => (
          <li key={stage} className="flex flex-col gap-1">
            <span>
              <b className="font-semibold">{choiceWord(STAGES, stage)}</b>
              {stage === profile.stage ? ", now" : ""}: {cutText(cutOff(stage), done === all)}
            </span>
            {stage === "watch" && profile.stage === "watch" ? (
              <p className="text-13 text-ink2">
                What it saw: paste the switch’s table of ports, VLANs and MAC addresses under{" "}
                <button type="button" className="underline" onClick={() => goTo.view("addresses")}>
                  Addresses
                </button>
                , Compare; the new ones become rows of the register.
              </p>
            ) : null}
            {stage === profile.stage ? null : (
              <button
                type="button"
                className="button !min-h-7 self-start"
                onClick={() => edit(writeSignIn({ profile: profile.id, column: "stage", text: stage }))}
              >
                Go to {choiceWord(STAGES, stage)}
              </button>
            )}
          </li>
        ))}
      </ol>
    </Section>
  );
}

/** One sign-in profile: all that is set in it, the way to closed, where it is used. */
export function SignInMargin({ id }: { id: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const profile = index.plan.signIn.get(id);
  if (profile === undefined) return <Gone word="sign-in profile" />;
  const ports = signInPorts(index).filter((signInPort) => signInPort.profile?.id === id);
  const devices = [...new Set(ports.map(({ device }) => device.name))];
  return (
    <ColumnsMargin
      word="sign-in profile"
      id={id}
      name={profile.name}
      columns={SIGN_IN_COLUMNS}
      text={(column) => signInCellText(index, profile, column)}
      write={(column, text) => edit(writeSignIn({ profile: id, column, text }))}
      remove={() => edit(removeSignIns({ profiles: [id] }))}
      facts={
        <>
          <dl className="facts">
            <Fact name="Ports">{counted(ports.length, "port asks", "ports ask")} by it</Fact>
            {devices.length === 0 ? null : <Fact name="On">{devices.join(", ")}</Fact>}
          </dl>
          <WayThere profile={profile} />
        </>
      }
      caution={
        <Caution head="Calls for help.">
          A phone without a network can’t call. Tell those on the site before you close ports.
        </Caution>
      }
    />
  );
}
