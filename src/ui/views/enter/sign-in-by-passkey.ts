import type { startAuthentication as Start } from "@simplewebauthn/browser";
import { passkeyFault } from "../../kit/passkey-fault";
import { call } from "../../plan-store/api";

type Options = Parameters<typeof Start>[0]["optionsJSON"];

/** Signs in with a key that this device has for us; null once that is done, else why not. */
export async function signInByPasskey(): Promise<string | null> {
  const asked = await call<Options>("/api/passkey", "POST", { do: "ask" });
  if (!asked.ok) return asked.refused.sentence;
  const { startAuthentication } = await import("@simplewebauthn/browser");
  const answer = await startAuthentication({ optionsJSON: asked.value }).catch((error: unknown) => error);
  if (answer instanceof Error) return passkeyFault(answer);
  const proven = await call<{ name: string }>("/api/passkey", "POST", { do: "prove", answer });
  return proven.ok ? null : proven.refused.sentence;
}
