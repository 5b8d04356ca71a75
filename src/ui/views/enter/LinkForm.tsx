"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { LinkAnswer } from "@/http/contracts/answers";
import { FormField, FormRefusal } from "../../kit/FormField";
import { formSentence } from "../../kit/form-sentence";
import { call } from "../../plan-store/api";
import { ROLE_MEANS } from "../people/words";

interface Words {
  readonly title: string;
  readonly about: string;
  readonly button: string;
}

/** "Ruth invites you to Fennel Street as field. Field people …". */
const invitationText = ({ by, role, place }: NonNullable<LinkAnswer["invitation"]>): string =>
  `${by} invites you to ${place ?? "all sites"} as ${role}. ${ROLE_MEANS[role]}`;

/** What a link says of itself. */
function wordsOf({ kind, name, invitation }: LinkAnswer): Words {
  switch (kind) {
    case "first":
      return {
        title: "The owner’s account",
        about:
          "You own everything here, and let others in. Your name stands in the title block and beside " +
          "every change.",
        button: "Make the account",
      };
    case "own":
      return {
        title: `Come in as ${name ?? "somebody"}`,
        about: "This link signs this browser in, once, without a password.",
        button: `Come in as ${name ?? "somebody"}`,
      };
    case "reset":
      return {
        title: `A new password for ${name ?? "somebody"}`,
        about: "The password of before, the second factor and all sessions end.",
        button: "Set the password",
      };
    case "invite":
      return {
        title: name === null ? "You are invited" : `You are invited, ${name}`,
        about: invitation === null ? "" : invitationText(invitation),
        button: "Make the account",
      };
  }
}

/** Uses a one-time link: with a new account, or as whoever is signed in already. */
export function LinkForm({
  linkKey,
  link,
  signedIn,
}: {
  linkKey: string;
  link: LinkAnswer;
  signedIn: string | null;
}) {
  const router = useRouter();
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const [refusal, setRefusal] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const { title, about, button } = wordsOf(link);
  const wantsName = link.kind === "first" || (link.kind === "invite" && link.name === null);
  const wantsPassword = link.kind !== "own";
  const send = async (own: boolean) => {
    setBusy(true);
    const account = {
      ...(wantsName ? { name } : {}),
      ...(wantsPassword ? { password } : {}),
    };
    const answer = await call<{ name: string }>("/api/enter", "POST", {
      key: linkKey,
      ...(own ? account : {}),
    });
    if (answer.ok) return router.replace("/");
    setBusy(false);
    setRefusal(formSentence(answer.refused.sentence));
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void send(true);
      }}
    >
      <h1 className="mb-2 text-22">{title}</h1>
      <p className="mb-4 text-15 text-ink2">{about}</p>
      {link.kind === "invite" && signedIn !== null ? (
        <button type="button" className="button go mb-4" disabled={isBusy} onClick={() => void send(false)}>
          Take it as {signedIn}
        </button>
      ) : null}
      {wantsName ? (
        <FormField
          label="Your name"
          value={name}
          onChange={setName}
          autoComplete="username"
          maxLength={60}
          autoFocus
        />
      ) : null}
      {wantsPassword ? (
        <FormField
          label="Password"
          type="password"
          value={password}
          onChange={setPassword}
          autoComplete="new-password"
          help="At least 12 characters; several words do well."
        />
      ) : null}
      <FormRefusal sentence={refusal} />
      <button type="submit" className="button go" disabled={isBusy}>
        {isBusy ? "One moment …" : button}
      </button>
    </form>
  );
}
