"use client";

import { useState } from "react";
import type { AccountAnswer } from "@/http/contracts/answers";
import { counted } from "@/core/repairs";
import { FormField, FormRefusal } from "../../kit/FormField";
import { download, fileName } from "../../kit/download";
import { useOneAtATime } from "../../kit/use-one-at-a-time";
import { useAccountOrder } from "./use-account-order";

interface Secret {
  readonly text: string;
  /** A QR code of it, as the address of a picture. */
  readonly picture: string;
}

/** The key URI that authenticators read from a QR code. */
async function secretOf(name: string, secret: string): Promise<Secret> {
  const label = encodeURIComponent(`Dianome:${name}`);
  const uri = `otpauth://totp/${label}?secret=${secret}&issuer=Dianome&algorithm=SHA1&digits=6&period=30`;
  const { toString } = await import("qrcode");
  const svg = await toString(uri, { type: "svg", errorCorrectionLevel: "M", margin: 2 });
  return { text: secret, picture: `data:image/svg+xml;utf8,${encodeURIComponent(svg)}` };
}

/** The second factor: a code that a device shows, new every 30 seconds. */
export function Factor({ account }: { account: AccountAnswer }) {
  const [secret, setSecret] = useState<Secret | null>(null);
  const [codes, setCodes] = useState<readonly string[] | null>(null);
  const { refusal, order } = useAccountOrder();
  const once = useOneAtATime();
  const begin = async () => {
    const made = await order<{ secret: string }>({ do: "newSecret" });
    if (made !== null) setSecret(await secretOf(account.name, made.secret));
  };
  const finish = async (password: string, code: string) => {
    if (secret === null) return;
    const done = await order<{ codes: readonly string[] }>({
      do: "factor",
      password,
      secret: secret.text,
      code,
    });
    if (done === null) return;
    setSecret(null);
    setCodes(done.codes);
  };
  const end = async (password: string) => {
    if ((await order({ do: "noFactor", password })) !== null) setCodes(null);
  };
  return (
    <section aria-label="Second factor">
      <h2 className="mb-2 text-15">Second factor</h2>
      {codes === null ? null : <Codes codes={codes} name={account.name} />}
      {account.hasFactor ? (
        <>
          <p className="mb-3 text-13">
            Signing in asks for a code as well.{" "}
            {counted(account.codesLeft, "recovery code is", "recovery codes are")} left.
          </p>
          <PasswordForm button="Take it away" refusal={refusal} onSend={(password) => void end(password)} />
        </>
      ) : (
        <SetUp
          secret={secret}
          refusal={refusal}
          onBegin={() => void once(begin)}
          onFinish={(password, code) => once(() => finish(password, code))}
        />
      )}
    </section>
  );
}

function SetUp({
  secret,
  refusal,
  onBegin,
  onFinish,
}: {
  secret: Secret | null;
  refusal: string | null;
  onBegin: () => void;
  onFinish: (password: string, code: string) => Promise<void>;
}) {
  const [code, setCode] = useState("");
  if (secret === null)
    return (
      <>
        <p className="mb-3 text-13">
          A code that your phone shows, asked for beside the password: whoever finds out the password alone
          does not get in.
        </p>
        <FormRefusal sentence={refusal} />
        <button type="button" className="button" onClick={onBegin}>
          Set up a second factor
        </button>
      </>
    );
  return (
    <>
      <p className="text-13">
        Scan this with the device that shows your codes, then type the code that it shows.
      </p>
      {/* eslint-disable-next-line @next/next/no-img-element -- made here, nothing to load or to size */}
      <img src={secret.picture} alt="QR code of the secret" className="my-3 block h-44 w-44 bg-[#fff]" />
      <p className="mono mb-3 text-12 break-all">{secret.text.replace(/.{4}/g, "$& ").trim()}</p>
      <FormField label="Code" value={code} onChange={setCode} autoComplete="one-time-code" />
      <PasswordForm
        button="Turn it on"
        refusal={refusal}
        onSend={(password) => void onFinish(password, code)}
      />
    </>
  );
}

/** Asks for the password once more. */
function PasswordForm({
  button,
  refusal,
  onSend,
}: {
  button: string;
  refusal: string | null;
  onSend: (password: string) => void;
}) {
  const [password, setPassword] = useState("");
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        onSend(password);
      }}
    >
      <FormField
        label="Your password"
        type="password"
        value={password}
        onChange={setPassword}
        autoComplete="current-password"
      />
      <FormRefusal sentence={refusal} />
      <button type="submit" className="button">
        {button}
      </button>
    </form>
  );
}

/** Shown once: only their hashes are kept. */
function Codes({ codes, name }: { codes: readonly string[]; name: string }) {
  return (
    <div className="mb-3 border border-warn bg-warn-wash p-3 text-13">
      <p className="mb-2">
        Keep these recovery codes where your phone is not: each lets you in once without it. They are not
        shown again.
      </p>
      <ul className="mono columns-2">
        {codes.map((code) => (
          <li key={code}>{code}</li>
        ))}
      </ul>
      <button
        type="button"
        className="button mt-2"
        onClick={() => download(fileName(name, "recovery-codes.txt"), "text/plain", `${codes.join("\n")}\n`)}
      >
        Save them
      </button>
    </div>
  );
}
