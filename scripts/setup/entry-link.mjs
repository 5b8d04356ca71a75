// One-time links made on this machine. Only a link's hash is stored; it is worth one use within a day.
import { createHash, randomBytes } from "node:crypto";
import { v7 } from "uuid";
import { connectTo } from "./connection.mjs";
import { Problem } from "./stage.mjs";

const EVERYWHERE = "00000000-0000-0000-0000-000000000000";

async function withConnection(url, work) {
  const connection = await connectTo(url);
  try {
    return await work(connection);
  } finally {
    await connection.end();
  }
}

/** Keeps a link and answers it. */
async function keepLink(connection, address, kind, person) {
  const key = randomBytes(24).toString("base64url");
  await connection.execute("DELETE FROM entry_link WHERE made_at < UTC_TIMESTAMP(3) - INTERVAL 1 DAY");
  await connection.execute(
    "INSERT INTO entry_link (id, key_hash, made_at, kind, person_id) VALUES (?, ?, UTC_TIMESTAMP(3), ?, ?)",
    [v7(), createHash("sha256").update(key).digest("hex"), kind, person],
  );
  return `${address}/enter?key=${key}`;
}

async function idOf(connection, name) {
  const [[row]] = await connection.execute("SELECT id FROM person WHERE name = ? AND NOT is_out", [name]);
  return row === undefined ? null : String(row.id);
}

/** The link that makes the owner's account; null where there is one. */
export const makeFirstLink = (url, address) =>
  withConnection(url, async (connection) => {
    const [owners] = await connection.query(
      `SELECT 1 FROM role_grant g JOIN person p ON p.id = g.person_id
       WHERE g.scope = 'all' AND g.role = 'owner' AND p.password_hash IS NOT NULL LIMIT 1`,
    );
    return owners.length > 0 ? null : keepLink(connection, address, "first", null);
  });

/**
 * A link that signs in whoever has that name, without a password, as an owner of everything: for the demo and
 * tests.
 */
export const makeDemoLink = (url, address, name) =>
  withConnection(url, async (connection) => {
    await connection.execute("INSERT IGNORE INTO person (id, name) VALUES (?, ?)", [v7(), name]);
    const id = await idOf(connection, name);
    await connection.execute(
      "INSERT IGNORE INTO role_grant (person_id, scope, scope_id, role) VALUES (?, 'all', ?, 'owner')",
      [id, EVERYWHERE],
    );
    return keepLink(connection, address, "own", id);
  });

/** A link by which a person sets the password anew and the second factor is taken away. */
export const makeResetLink = (url, address, name) =>
  withConnection(url, async (connection) => {
    const id = await idOf(connection, name);
    if (id !== null) return keepLink(connection, address, "reset", id);
    const [people] = await connection.query(
      "SELECT name FROM person WHERE NOT is_out ORDER BY name LIMIT 20",
    );
    const known = people.map((row) => row.name).join(", ");
    throw new Problem(
      `Nobody here is called "${name}". ` +
        (known === ""
          ? "There is nobody yet: start it, and open the link that it prints."
          : `Known are ${known}.`),
    );
  });
