import { BLANK_SIGN_IN, type SignIn } from "../src/core/plan";
import { v } from "./site-builder";

/** The practice's desks and the printers beside them: closed, with phones that go on without a server. */
export const PRACTICE_SIGN_IN: Partial<SignIn> = {
  byMac: true,
  failed: v(90),
  serverDownVoice: v(30),
  hosts: "phone",
  timers: { ...BLANK_SIGN_IN.timers, tries: 2, waitSeconds: 10, deadSeconds: 600, testSeconds: 300 },
  accountingPort: 1813,
  changePort: 3799,
  sends: [6, 8, 25],
  certificateUntil: "2028-03-31",
  secretPlace: "the practice's password manager",
  note: "staff desks and the printers beside them",
};
