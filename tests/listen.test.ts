import { generateKeyPairSync, X509Certificate } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { createServer, get } from "node:https";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { listening, readListen } from "../scripts/setup/listen.mjs";

const dir = mkdtempSync(join(tmpdir(), "listen-"));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
const OWN = ["192.0.2.7", "198.51.100.9"];

test("where to listen is read with its port; everywhere is every network of this machine", () => {
  expect(readListen("192.0.2.7:5000", OWN)).toMatchObject({
    host: "192.0.2.7",
    port: 5000,
    urls: ["https://192.0.2.7:5000"],
  });
  expect(readListen(" 0.0.0.0 ", OWN).urls).toEqual(["https://192.0.2.7:4143", "https://198.51.100.9:4143"]);
});

test.each([
  ["here", OWN, /"here" is nowhere to listen/],
  ["192.0.2.7:0", OWN, /nowhere to listen/],
  ["192.0.2.7:70000", OWN, /nowhere to listen/],
  [
    "203.0.113.1",
    OWN,
    /203\.0\.113\.1 is no address of this machine; it has 192\.0\.2\.7, 198\.51\.100\.9\./,
  ],
  ["0.0.0.0", [], /This machine is in no network/],
] as const)("%s is refused with what to write instead", (text, own, says) => {
  expect(() => readListen(text, [...own])).toThrow(says);
});

test("without --listen nothing is made, and a certificate for nothing is refused", async () => {
  expect(await listening(dir, {})).toBeNull();
  await expect(listening(dir, { certificate: "a", key: "b" })).rejects.toThrow(/are for --listen/);
  await expect(listening(dir, { listen: "127.0.0.1", key: "b" })).rejects.toThrow(/together, or neither/);
});

test("a certificate is made once for these addresses, its key for its user; TLS stands with it", async () => {
  const first = await listening(dir, { listen: "127.0.0.1:4143" });
  const again = await listening(dir, { listen: "127.0.0.1:4143" });
  expect(again?.fingerprint).toBe(first?.fingerprint);
  const { certFile = "", keyFile = "", fingerprint } = first ?? {};
  expect(statSync(keyFile).mode & 0o777).toBe(0o600);
  const certificate = new X509Certificate(readFileSync(certFile));
  expect(certificate.checkIP("127.0.0.1")).toBe("127.0.0.1");
  expect(Date.parse(certificate.validTo) - Date.now()).toBeLessThan(398 * 86_400_000);
  const server = createServer({ cert: readFileSync(certFile), key: readFileSync(keyFile) }, (_, response) => {
    response.end("in");
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const seen = await new Promise((resolve, reject) => {
    const { port } = server.address() as AddressInfo;
    get({ host: "127.0.0.1", port, ca: readFileSync(certFile) }, (response) => {
      const socket = response.socket as unknown as { getPeerCertificate: () => { fingerprint256: string } };
      resolve(socket.getPeerCertificate().fingerprint256);
      response.resume();
    }).on("error", reject);
  });
  server.close();
  expect(seen).toBe(fingerprint);
});

test("a certificate that is given has to be one, and the key its own", async () => {
  const made = await listening(dir, { listen: "127.0.0.1:4143" });
  const { privateKey } = generateKeyPairSync("ec", { namedCurve: "P-256" });
  const other = join(dir, "other.pem");
  writeFileSync(other, privateKey.export({ type: "pkcs8", format: "pem" }));
  const given = (certificate: string, key: string) =>
    listening(dir, { listen: "127.0.0.1:4143", certificate, key });
  expect((await given(made?.certFile ?? "", made?.keyFile ?? ""))?.fingerprint).toBe(made?.fingerprint);
  await expect(given(made?.certFile ?? "", other)).rejects.toThrow(/is not that of the certificate/);
  await expect(given(other, other)).rejects.toThrow(/is no PEM file of a certificate and its key/);
  await expect(given(join(dir, "none.pem"), other)).rejects.toThrow(/can't be read \(ENOENT\)/);
});
