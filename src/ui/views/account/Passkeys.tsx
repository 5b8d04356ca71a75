"use client";

import type { startRegistration as Start } from "@simplewebauthn/browser";
import { useState } from "react";
import type { AccountAnswer, KeyAnswer } from "@/http/contracts/answers";
import { FormField, FormRefusal } from "../../kit/FormField";
import { passkeyFault } from "../../kit/passkey-fault";
import { hereText } from "../sites/here-text";
import { useAccountOrder } from "./use-account-order";

type Options = Parameters<typeof Start>[0]["optionsJSON"];

/** Keys that a device keeps: signing in without password and code. */
export function Passkeys({ account }: { account: AccountAnswer }) {
  const { refusal, order } = useAccountOrder();
  const [title, setTitle] = useState("");
  const [password, setPassword] = useState("");
  const [fault, setFault] = useState<string | null>(null);
  const add = async () => {
    setFault(null);
    const options = await order<Options>({ do: "beginPasskey", password });
    if (options === null) return;
    const { startRegistration } = await import("@simplewebauthn/browser");
    const made = await startRegistration({ optionsJSON: options }).catch((error: unknown) => error);
    if (made instanceof Error) return setFault(passkeyFault(made));
    const answer = made as KeyAnswer;
    if ((await order({ do: "addPasskey", title: title.trim(), answer })) === null) return;
    setTitle("");
    setPassword("");
  };
  return (
    <section className="border-t border-hair p-4" aria-label="Passkeys">
      <h2 className="mb-2 text-15">Passkeys</h2>
      <p className="mb-3 max-w-[72ch] text-13 text-ink2">
        A key that stays on your device and asks for your finger, face or PIN: it signs you in without
        password and code, at this address only.
      </p>
      <ul aria-label="Your passkeys" className="text-13">
        {account.passkeys.map((key) => (
          <li key={key.id} className="flex flex-wrap items-center gap-2 border-b border-hair py-2">
            <span className="min-w-[12rem] flex-1" suppressHydrationWarning>
              <b className="font-semibold">{key.title}</b>, for {key.host}, since {hereText(key.madeAt)},{" "}
              {key.usedAt === null ? "not used yet" : `used ${hereText(key.usedAt)}`}
            </span>
            <button
              type="button"
              className="button"
              aria-label={`Remove ${key.title}`}
              onClick={() => void order({ do: "removePasskey", id: key.id })}
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
      <form
        className="max-w-[480px] pt-3"
        aria-label="New passkey"
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        <FormField label="What it is on, as “work laptop”" value={title} onChange={setTitle} maxLength={80} />
        <FormField
          label="Your password"
          type="password"
          value={password}
          onChange={setPassword}
          autoComplete="current-password"
        />
        <FormRefusal sentence={refusal ?? fault} />
        <button type="submit" className="button" disabled={title.trim() === ""}>
          Add a passkey
        </button>
      </form>
    </section>
  );
}
