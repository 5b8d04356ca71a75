// Two small pictures, 24 by 16 pixels, as an encoder writes them.

/** One scan (ITU-T T.81, baseline). */
const BASELINE =
  "/9j/2wBDABQODxIPDRQSEBIXFRQYHjIhHhwcHj0sLiQySUBMS0dARkVQWnNiUFVtVkVGZIhlbXd7gYKBTmCNl4x9lnN+gXz/" +
  "2wBDARUXFx4aHjshITt8U0ZTfHx8fHx8fHx8fHx8fHx8fHx8fHx8fHx8fHx8fHx8fHx8fHx8fHx8fHx8fHx8fHx8fHz/wAAR" +
  "CAAQABgDASIAAhEBAxEB/8QAFwABAQEBAAAAAAAAAAAAAAAABAADBf/EACcQAAECBAYABwAAAAAAAAAAAAECAwAEBRESEyEx" +
  "YYEGFCIyQpGi/8QAFQEBAQAAAAAAAAAAAAAAAAAAAAH/xAAYEQADAQEAAAAAAAAAAAAAAAAAAREhMf/aAAwDAQACEQMRAD8A" +
  "JMNin1p5pIwtqVjbAFhhOthwNR1HSqrPnaKVotmSxzRyAPUPrXqMvELeZJS04gXLKsC7D4nYk8EfqEUZ9K0YFgKSoWIOxEJk" +
  "HHQ1EmvbrFAWUGnVN6VJNm12SSbkp3BPREUVaQ//2Q==";
/** Several scans (progressive). */
const PROGRESSIVE =
  "/9j/2wBDABQODxIPDRQSEBIXFRQYHjIhHhwcHj0sLiQySUBMS0dARkVQWnNiUFVtVkVGZIhlbXd7gYKBTmCNl4x9lnN+gXz/" +
  "2wBDARUXFx4aHjshITt8U0ZTfHx8fHx8fHx8fHx8fHx8fHx8fHx8fHx8fHx8fHx8fHx8fHx8fHx8fHx8fHx8fHx8fHz/wgAR" +
  "CAAQABgDASIAAhEBAxEB/8QAFwABAQEBAAAAAAAAAAAAAAAAAwACBP/EABUBAQEAAAAAAAAAAAAAAAAAAAAB/9oADAMBAAIQ" +
  "AxAAAAEenKBQSf/EABwQAAICAgMAAAAAAAAAAAAAAAEDAAIEERITI//aAAgBAQABBQKw63NHNKbTIG6JMHmz/8QAFBEBAAAA" +
  "AAAAAAAAAAAAAAAAEP/aAAgBAwEBPwE//8QAFBEBAAAAAAAAAAAAAAAAAAAAEP/aAAgBAgEBPwE//8QAGxAAAQUBAQAAAAAA" +
  "AAAAAAAAAgABEEFRIWH/2gAIAQEABj8Cdqpej2BPIccX/8QAHRAAAgICAwEAAAAAAAAAAAAAAAERIXHwMUFhsf/aAAgBAQAB" +
  "PyGBqZzgWq0WcZAHeHjfolqHaYvrqwf/2gAMAwEAAgADAAAAEMP/AP/EABcRAAMBAAAAAAAAAAAAAAAAAAEQETH/2gAIAQMB" +
  "AT8Qw1f/xAAXEQADAQAAAAAAAAAAAAAAAAAAESEB/9oACAECAQE/EFEZT//EAB0QAQEAAgMAAwAAAAAAAAAAAAERACExYYFB" +
  "UZH/2gAIAQEAAT8QAFoIIVuHRs8y1Os9gafm/M+5km10Z8uFekxN4CI8JiuLIpavIXxM/9k=";

const bytes = (base64: string): Uint8Array<ArrayBuffer> => Uint8Array.from(Buffer.from(base64, "base64"));

export const JPEG = bytes(BASELINE);
export const PROGRESSIVE_JPEG = bytes(PROGRESSIVE);

/** The same picture with a segment more in front, as a camera writes where it was (marker 0xe1: APP1). */
export function withSegment(
  jpeg: Uint8Array<ArrayBuffer>,
  marker: number,
  text: string,
): Uint8Array<ArrayBuffer> {
  const said = Buffer.from(text, "latin1");
  const head = [0xff, marker, Math.floor((said.length + 2) / 256), (said.length + 2) % 256];
  return Uint8Array.from([...jpeg.slice(0, 2), ...head, ...said, ...jpeg.slice(2)]);
}
