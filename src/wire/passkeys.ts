import "server-only";
import {
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
  type AuthenticationResponseJSON,
  type RegistrationResponseJSON,
} from "@simplewebauthn/server";
import { StorageError } from "@/application/storage-error";
import type { PasskeyTools } from "@/application/passkey-stores";

/** What a library throws at an answer that does not fit is an answer that does not fit. */
const orNull = <T>(work: Promise<T>): Promise<T | null> =>
  work.catch((error: unknown) => {
    if (error instanceof StorageError) throw error;
    return null;
  });

/** Web Authentication (W3C, level 3): keys that can be found by their host, and that ask their person. */
export const passkeyTools: PasskeyTools = {
  forNew: async ({ host }, person) => {
    const options = await generateRegistrationOptions({
      rpName: "Dianome",
      rpID: host,
      userName: person.name,
      userDisplayName: person.name,
      userID: new TextEncoder().encode(person.id),
      attestationType: "none",
      authenticatorSelection: { residentKey: "required", userVerification: "required" },
    });
    return { challenge: options.challenge, options };
  },
  forKnown: async ({ host }) => {
    const options = await generateAuthenticationOptions({ rpID: host, userVerification: "required" });
    return { challenge: options.challenge, options };
  },
  made: async (answer, { host, origin }, takes) => {
    const found = await orNull(
      verifyRegistrationResponse({
        response: answer as unknown as RegistrationResponseJSON,
        expectedChallenge: takes,
        expectedOrigin: origin,
        expectedRPID: host,
        requireUserVerification: true,
      }),
    );
    if (found?.verified !== true) return null;
    const { id, publicKey, counter } = found.registrationInfo.credential;
    return { credential: id, publicKey: new Uint8Array(publicKey), counter, host };
  },
  signed: async (answer, { host, origin }, key, takes) => {
    const found = await orNull(
      verifyAuthenticationResponse({
        response: answer as unknown as AuthenticationResponseJSON,
        expectedChallenge: takes,
        expectedOrigin: origin,
        expectedRPID: host,
        requireUserVerification: true,
        credential: { id: key.credential, publicKey: key.publicKey, counter: key.counter },
      }),
    );
    return found?.verified === true ? found.authenticationInfo.newCounter : null;
  },
};
