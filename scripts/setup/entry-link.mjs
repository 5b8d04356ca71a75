// The one-time link that lets a person in. Only its hash is stored; it is worth one use within a day.
import { createHash, randomBytes } from "node:crypto";
import { connectTo } from "./connection.mjs";

export async function makeEntryLink(url, address) {
  const key = randomBytes(24).toString("base64url");
  const connection = await connectTo(url);
  try {
    await connection.execute("DELETE FROM entry_link WHERE made_at < UTC_TIMESTAMP(3) - INTERVAL 1 DAY");
    await connection.execute("INSERT INTO entry_link (key_hash, made_at) VALUES (?, UTC_TIMESTAMP(3))", [
      createHash("sha256").update(key).digest("hex"),
    ]);
  } finally {
    await connection.end();
  }
  return `${address}/enter?key=${key}`;
}
