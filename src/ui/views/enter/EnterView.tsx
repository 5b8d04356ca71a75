"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { Brand } from "../../kit/signs";
import { call } from "../../plan-store/api";

/** Says who comes in: the name stands in the title block and in the history. The link works one time. */
export function EnterView({ linkKey }: { linkKey: string | null }) {
  const router = useRouter();
  const [name, setName] = useState("");
  const [refusal, setRefusal] = useState<string | null>(null);
  const [entering, setEntering] = useState(false);
  const enter = async () => {
    setEntering(true);
    const answer = await call<{ name: string }>("/api/enter", "POST", { key: linkKey, name });
    if (answer.ok) router.replace("/");
    else {
      setEntering(false);
      setRefusal(answer.refused.sentence);
    }
  };
  return (
    <main className="mx-auto mt-24 max-w-[460px] border border-ink bg-panel p-6">
      <p className="mb-4 flex items-center gap-2 text-[16px] font-bold">
        <Brand />
        Dianome
      </p>
      {linkKey === null ? (
        <>
          <h1 className="mb-2 text-22">Sign in by the link</h1>
          <p className="text-15">
            The command that started the application printed a link. Open that one in this browser. It works
            one time; running the command again prints a new one.
          </p>
        </>
      ) : (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void enter();
          }}
        >
          <h1 className="mb-2 text-22">Who draws?</h1>
          <p className="mb-4 text-15 text-ink2">
            Your name stands in the title block and beside every change.
          </p>
          <label className="mb-1 block text-13" htmlFor="name">
            Your name
          </label>
          <input
            id="name"
            autoFocus
            value={name}
            maxLength={60}
            autoComplete="name"
            aria-invalid={refusal !== null}
            aria-describedby={refusal === null ? undefined : "refusal"}
            className="field mb-3 h-9 w-full"
            onChange={(event) => setName(event.target.value)}
          />
          {refusal === null ? null : (
            <p id="refusal" role="alert" className="mb-3 text-stop">
              {refusal}
            </p>
          )}
          <button type="submit" className="button go" disabled={entering}>
            {entering ? "Signing in …" : "Sign in"}
          </button>
        </form>
      )}
    </main>
  );
}
