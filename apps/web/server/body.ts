/** Bodies of requests, read no further than they may be long. */

/** The body as text, or null where it is longer than allowed: told by its header before a byte is read, else counted. */
export async function textWithin(request: Request, mostBytes: number): Promise<string | null> {
  if (Number(request.headers.get('content-length') ?? 0) > mostBytes) return null;
  if (request.body === null) return '';
  const parts: Uint8Array[] = [];
  let length = 0;
  for await (const part of request.body as unknown as AsyncIterable<Uint8Array>) {
    length += part.byteLength;
    if (length > mostBytes) return null;
    parts.push(part);
  }
  return Buffer.concat(parts).toString('utf8');
}
