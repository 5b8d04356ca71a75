/** Why a browser made or used no passkey, as whoever sits before it can tell (Web Authentication, W3C). */
export function passkeyFault({ name }: Error): string {
  if (name === "NotAllowedError")
    return "Nothing was signed: it was called off, took too long, or no passkey is for this address here.";
  if (name === "InvalidStateError") return "This device has a passkey for this account already.";
  return "This browser can’t use passkeys here. Use the password.";
}
