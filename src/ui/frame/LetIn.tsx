"use client";

import { Smartphone } from "lucide-react";
import { useState } from "react";
import { toast } from "sonner";
import type { InvitationAnswer } from "@/http/contracts/answers";
import { Modal } from "../kit/Modal";
import { call } from "../plan-store/api";

interface Link {
  readonly url: string;
  /** A QR code of it, as the address of a picture. */
  readonly picture: string;
}
interface Invitation {
  readonly links: readonly Link[];
  readonly fingerprint: string | null;
}

async function linkAt(origin: string, key: string): Promise<Link> {
  const url = `${origin}/enter?key=${key}`;
  // It comes when it is asked for.
  const { toString } = await import("qrcode");
  const svg = await toString(url, { type: "svg", errorCorrectionLevel: "M", margin: 2 });
  return { url, picture: `data:image/svg+xml;utf8,${encodeURIComponent(svg)}` };
}

const ABOUT =
  "One browser is signed in as you by this link, once, within a day. Who has it may do whatever you may.";

/** Asks for a one-time link; a sentence where there is none. */
async function newInvitation(): Promise<Invitation | string> {
  const answer = await call<InvitationAnswer>("/api/invitations", "POST");
  if (!answer.ok) return answer.refused.sentence;
  const { key, urls, fingerprint } = answer.value;
  const origins = urls.length === 0 ? [location.origin] : urls;
  return { links: await Promise.all(origins.map((origin) => linkAt(origin, key))), fingerprint };
}

/** Lets another browser in by a one-time link, shown as a QR code, too. */
export function LetIn({ words }: { words?: string }) {
  const [invitation, setInvitation] = useState<Invitation | null>(null);
  const open = async () => {
    const made = await newInvitation();
    if (typeof made === "string") toast.error(made);
    else setInvitation(made);
  };
  return (
    <>
      <button
        type="button"
        className={words === undefined ? "button square" : "button"}
        aria-label={words ?? "Let another browser in"}
        title="Let another browser in, such as a phone’s"
        onClick={() => void open()}
      >
        <Smartphone size={15} />
        {words}
      </button>
      <Modal
        open={invitation !== null}
        onOpenChange={() => setInvitation(null)}
        title="Let another browser in"
        description={ABOUT}
      >
        {invitation === null ? null : <Shown {...invitation} />}
      </Modal>
    </>
  );
}

function Shown({ links, fingerprint }: Invitation) {
  const [at, setAt] = useState(0);
  const link = links[at];
  if (link === undefined) return null;
  return (
    <div className="text-13">
      {links.length === 1 ? null : (
        <label className="mt-2 flex items-center gap-2">
          <span className="text-ink2">By the network</span>
          <select className="field" value={at} onChange={(event) => setAt(Number(event.target.value))}>
            {links.map(({ url }, number) => (
              <option key={url} value={number}>
                {new URL(url).host}
              </option>
            ))}
          </select>
        </label>
      )}
      {/* eslint-disable-next-line @next/next/no-img-element -- made here, nothing to load or to size */}
      <img src={link.picture} alt="QR code of the link" className="mx-auto my-3 block h-56 w-56 bg-[#fff]" />
      <input
        className="field mono w-full text-12"
        aria-label="The link"
        readOnly
        value={link.url}
        onFocus={(event) => event.target.select()}
      />
      {fingerprint === null ? (
        <p className="mt-3">
          It works on this machine only. For a phone start it with{" "}
          <span className="mono">--listen 0.0.0.0</span>: then it is reached over TLS from the networks this
          machine is in.
        </p>
      ) : (
        <>
          <p className="mt-3">
            The other browser will say that it does not know the certificate. Compare its SHA-256 fingerprint
            before you go on:
          </p>
          <p className="mono mt-1 break-all">{fingerprint}</p>
          <p className="mt-2">
            To work without a connection there, too, the device has to trust it:{" "}
            <a className="underline" href="/api/certificate" download>
              save the certificate
            </a>{" "}
            and install it on the device.
          </p>
        </>
      )}
    </div>
  );
}
