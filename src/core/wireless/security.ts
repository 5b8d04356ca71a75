import type { Security } from "../plan";

interface SecurityFacts {
  readonly words: string;
  readonly weak: string | null;
  /** Whether 6 GHz admits it (IEEE 802.11 section 12.12). */ readonly in6: boolean;
  readonly secret: boolean;
  /** Whether a server is asked who may join (IEEE 802.1X). */ readonly signsIn: boolean;
}

/** By the key management of IEEE 802.11 (section 9.4.2.23); OWE is RFC 8110. */
export const SECURITY_FACTS: Readonly<Record<Security, SecurityFacts>> = {
  open: {
    words: "open, nothing is ciphered",
    weak: "everyone near reads along",
    in6: false,
    secret: false,
    signsIn: false,
  },
  owe: { words: "open and ciphered (OWE)", weak: null, in6: true, secret: false, signsIn: false },
  wep: { words: "WEP", weak: "it is broken in minutes", in6: false, secret: true, signsIn: false },
  pskTkip: {
    words: "passphrase with TKIP",
    weak: "TKIP is withdrawn and slows every station",
    in6: false,
    secret: true,
    signsIn: false,
  },
  psk: { words: "passphrase (PSK)", weak: null, in6: false, secret: true, signsIn: false },
  pskSae: { words: "passphrase (PSK and SAE)", weak: null, in6: false, secret: true, signsIn: false },
  sae: { words: "passphrase (SAE)", weak: null, in6: true, secret: true, signsIn: false },
  enterprise: { words: "sign-in by name (802.1X)", weak: null, in6: true, secret: false, signsIn: true },
  enterprise192: {
    words: "sign-in by name, 192 bit (802.1X)",
    weak: null,
    in6: true,
    secret: false,
    signsIn: true,
  },
};
