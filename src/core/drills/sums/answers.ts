import { formatAddress, formatPrefix, parseIpv4, readPrefix, type Ipv4 } from "../../address";
import type { Sum } from "./sum";

/** How an answer is read: what it has to look like, and whether it is right. */
type Reads = Pick<Sum, "answer" | "isRight" | "asks">;

/** A whole number, with or without gaps between thousands. */
export function number(answer: number): Reads {
  return {
    answer: String(answer),
    asks: "a whole number",
    isRight: (text) => {
      if (!/^\s*(\d{1,20}|\d{1,3}([\s'’.,]\d{3})+)\s*$/.test(text)) return null;
      return text.replace(/\D/g, "").replace(/^0+(?=\d)/, "") === String(answer);
    },
  };
}

export function address(answer: Ipv4): Reads {
  return {
    answer: formatAddress(answer),
    asks: "an IPv4 address, such as 10.1.2.3",
    isRight: (text) => {
      const read = parseIpv4(text.trim());
      return read === null ? null : read === answer;
    },
  };
}

/** A network with its length: 10.1.2.0/24. */
export function network(answer: string): Reads {
  return {
    answer,
    asks: "a network with its length, such as 10.1.2.0/24",
    isRight: (text) => {
      const read = readPrefix(text.replace(/\s*\/\s*/, "/"));
      if (read !== null) return formatPrefix(read) === answer;
      // With bits behind its length it looks like a network and is none.
      return /^\s*\d+(\.\d+){3}\s*\/\s*\d+\s*$/.test(text) ? false : null;
    },
  };
}

/** A length with or without its slash. */
export function length(answer: number): Reads {
  return {
    answer: `/${answer}`,
    asks: "a length, such as /24",
    isRight: (text) => {
      const [, digits] = /^\s*\/?\s*(\d{1,3})\s*$/.exec(text) ?? [];
      return digits === undefined ? null : Number(digits) === answer;
    },
  };
}

/** Yes or no. */
export function yes(answer: boolean): Reads {
  return {
    answer: answer ? "yes" : "no",
    asks: "yes or no",
    isRight: (text) => {
      const said = text.trim().toLowerCase();
      if (!["yes", "y", "no", "n"].includes(said)) return null;
      return said.startsWith("y") === answer;
    },
  };
}
