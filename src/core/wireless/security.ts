import type { Security } from "../plan";

interface SecurityFacts {
  readonly words: string;
  readonly weak: string | null;
  /** Whether 6 GHz admits it (IEEE 802.11 section 12.12). */ readonly in6: boolean;
  readonly secret: boolean;
}

/** By the key management of IEEE 802.11 (section 9.4.2.23); OWE is RFC 8110. */
export const SECURITY_FACTS: Readonly<Record<Security, SecurityFacts>> = {
  open: { words: "open, nothing is ciphered", weak: "everyone near reads along", in6: false, secret: false },
  owe: { words: "open and ciphered (OWE)", weak: null, in6: true, secret: false },
  wep: { words: "WEP", weak: "it is broken in minutes", in6: false, secret: true },
  pskTkip: {
    words: "passphrase with TKIP",
    weak: "TKIP is withdrawn and slows every station",
    in6: false,
    secret: true,
  },
  psk: { words: "passphrase (PSK)", weak: null, in6: false, secret: true },
  pskSae: { words: "passphrase (PSK and SAE)", weak: null, in6: false, secret: true },
  sae: { words: "passphrase (SAE)", weak: null, in6: true, secret: true },
  enterprise: { words: "sign-in by name (802.1X)", weak: null, in6: true, secret: false },
  enterprise192: { words: "sign-in by name, 192 bit (802.1X)", weak: null, in6: true, secret: false },
};
