// Listening beyond loopback: where, with which certificate, and how a person tells that it is ours.
import { createPrivateKey, X509Certificate } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { isIPv4 } from "node:net";
import { networkInterfaces } from "node:os";
import { join, resolve } from "node:path";
import { Problem, say } from "./stage.mjs";

const DAY_MS = 86_400_000;
const DEFAULT_PORT = 4143;

/** The IPv4 addresses that others reach this machine at. */
const ownAddresses = () =>
  Object.values(networkInterfaces()).flatMap((all) =>
    (all ?? []).flatMap(({ address, internal }) => (internal || !isIPv4(address) ? [] : [address])),
  );

/** "0.0.0.0", "192.0.2.7" or "192.0.2.7:4143": where to listen, and by which addresses one gets there. */
export function readListen(text, own = ownAddresses()) {
  const [, host = "", port] = /^([^:]+)(?::(\d{1,5}))?$/.exec(text.trim()) ?? [];
  const number = port === undefined ? DEFAULT_PORT : Number(port);
  if (!isIPv4(host) || number < 1 || number > 65_535)
    throw new Problem(
      `"${text}" is nowhere to listen; write --listen 0.0.0.0 for every network this machine is in, ` +
        "or one of its addresses, such as --listen 192.0.2.7:4143.",
    );
  if (host !== "0.0.0.0" && !own.includes(host) && !host.startsWith("127."))
    throw new Problem(
      `${host} is no address of this machine; ` +
        `it has ${own.length === 0 ? "none on a network" : own.join(", ")}.`,
    );
  const addresses = host === "0.0.0.0" ? own : [host];
  if (addresses.length === 0)
    throw new Problem("This machine is in no network: there is nobody to listen to. Leave --listen away.");
  return { host, port: number, addresses, urls: addresses.map((address) => `https://${address}:${number}`) };
}

const isFit = (certificate, addresses) =>
  Date.parse(certificate.validTo) - Date.now() > 30 * DAY_MS &&
  addresses.every((address) => certificate.checkIP(address) !== undefined);

/** Made here, for a year, for these addresses; kept, so that whoever trusted it need not do it again. */
async function ownCertificate(dir, addresses) {
  const [certFile, keyFile] = [join(dir, "certificate.pem"), join(dir, "certificate-key.pem")];
  if (existsSync(certFile) && existsSync(keyFile)) {
    const known = new X509Certificate(readFileSync(certFile));
    if (isFit(known, addresses)) return { certFile, keyFile };
    say("  the certificate made before has run out, or is for other addresses: a new one is made");
  }
  // Only now: before the packages are installed there is none.
  const { generate } = await import("selfsigned");
  const made = await generate([{ name: "commonName", value: "Dianome on this machine" }], {
    keySize: 2048,
    algorithm: "sha256",
    notAfterDate: new Date(Date.now() + 397 * DAY_MS),
    extensions: [
      { name: "basicConstraints", cA: true, critical: true },
      { name: "keyUsage", digitalSignature: true, keyCertSign: true, critical: true },
      { name: "extKeyUsage", serverAuth: true },
      { name: "subjectAltName", altNames: addresses.map((ip) => ({ type: 7, ip })) },
    ],
  });
  writeFileSync(keyFile, made.private, { mode: 0o600 });
  writeFileSync(certFile, made.cert, { mode: 0o644 });
  return { certFile, keyFile };
}

/** A certificate and key given by the user: they have to be readable and to belong together. */
function givenCertificate(certFile, keyFile) {
  const read = (file) => {
    try {
      return readFileSync(file);
    } catch (error) {
      throw new Problem(`${file} can't be read (${error.code}). Give --certificate and --key as PEM files.`);
    }
  };
  const [certText, keyText] = [read(certFile), read(keyFile)];
  try {
    if (new X509Certificate(certText).checkPrivateKey(createPrivateKey(keyText)))
      return { certFile, keyFile };
  } catch {
    throw new Problem(`${certFile} or ${keyFile} is no PEM file of a certificate and its key.`);
  }
  throw new Problem(`The key in ${keyFile} is not that of the certificate in ${certFile}.`);
}

/**
 * What the server needs to listen beyond loopback; null where nobody asked for it. The fingerprint is that of
 * the certificate (SHA-256), to be compared by the person who comes in.
 * @param {string} dir
 * @param {{ listen?: string, certificate?: string, key?: string }} options
 */
export async function listening(dir, { listen, certificate, key }) {
  if (listen === undefined) {
    if (certificate !== undefined || key !== undefined)
      throw new Problem(
        "--certificate and --key are for --listen: on loopback there is nobody to hide from.",
      );
    return null;
  }
  if ((certificate === undefined) !== (key === undefined))
    throw new Problem("Give --certificate and --key together, or neither: then a certificate is made.");
  const where = readListen(listen);
  const files =
    certificate === undefined
      ? await ownCertificate(dir, where.addresses)
      : givenCertificate(resolve(certificate), resolve(key));
  const { fingerprint256 } = new X509Certificate(readFileSync(files.certFile));
  return { ...where, ...files, fingerprint: fingerprint256 };
}
