"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { FormField, FormRefusal } from "../../kit/FormField";
import { call } from "../../plan-store/api";
import { signInByPasskey } from "./sign-in-by-passkey";

const BAD_LINK =
  "This link has been used, is older than a day or is not complete. Whoever gave it to you can make another.";

/** Name and password, and then the code of the second factor where there is one. */
export function SignIn({ hasBadLink }: { hasBadLink: boolean }) {
  const router = useRouter();
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const [code, setCode] = useState<string | null>(null);
  const [refusal, setRefusal] = useState<string | null>(hasBadLink ? BAD_LINK : null);
  const [isBusy, setBusy] = useState(false);
  const send = async () => {
    if (name.trim() === "" || password === "") return setRefusal("Write your name and your password.");
    setBusy(true);
    const answer = await call<{ name: string }>("/api/sign-in", "POST", { name, password, code });
    if (answer.ok) return router.replace("/");
    setBusy(false);
    if (answer.refused.code === "code-wanted") {
      setRefusal(null);
      return setCode("");
    }
    setRefusal(answer.refused.sentence);
  };
  const byPasskey = async () => {
    setBusy(true);
    const refused = await signInByPasskey();
    if (refused === null) return router.replace("/");
    setBusy(false);
    setRefusal(refused);
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <h1 className="mb-3 text-22">Sign in</h1>
      <FormField label="Your name" value={name} onChange={setName} autoComplete="username" autoFocus />
      <FormField
        label="Password"
        type="password"
        value={password}
        onChange={setPassword}
        autoComplete="current-password"
      />
      {code === null ? null : (
        <FormField
          label="Code of the second factor"
          value={code}
          onChange={setCode}
          autoComplete="one-time-code"
          autoFocus
          help="The six digits that your device shows now, or one of your recovery codes."
        />
      )}
      <FormRefusal sentence={refusal} />
      <button type="submit" className="button go" disabled={isBusy}>
        {isBusy ? "Signing in …" : "Sign in"}
      </button>
      <button type="button" className="button ml-2" disabled={isBusy} onClick={() => void byPasskey()}>
        Use a passkey
      </button>
      <p className="mt-4 text-13 text-ink2">
        No account yet? The first one is made by the link that the start command printed; its owner invites
        everybody else. Who has lost the password asks whoever runs this machine for a link:{" "}
        <span className="mono">bin/let-in NAME</span>
      </p>
    </form>
  );
}
