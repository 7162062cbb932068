/**
 * HART-IP: messages with a head of eight bytes over TCP or UDP, port 5094 by custom, a session before anything else.
 * Published HART-IP specification (HCF_SPEC-085), from memory.
 */

export const VERSION = 1;
export const HEAD_BYTES = 8;
/** No message is longer: a head, a frame with the longest data, and room. */
export const LONGEST_BYTES = 1024;

export const MESSAGE = { request: 0, answer: 1, publish: 2, error: 15 } as const;
export const ABOUT = { begin: 0, end: 1, alive: 2, frame: 3 } as const;

export interface Message {
  readonly type: number;
  readonly about: number;
  readonly status: number;
  readonly sequence: number;
  readonly body: Buffer;
}

export function messageBytes({ type, about, status, sequence, body }: Message): Buffer {
  const head = Buffer.from([VERSION, type, about, status, 0, 0, 0, 0]);
  head.writeUInt16BE(sequence, 4);
  head.writeUInt16BE(HEAD_BYTES + body.length, 6);
  return Buffer.concat([head, body]);
}

/**
 * The first message of what has come; null where it is not whole yet.
 * @throws Error where it is none
 */
export function messageOf(bytes: Buffer): { readonly message: Message; readonly rest: Buffer } | null {
  if (bytes.length < HEAD_BYTES) return null;
  const length = bytes.readUInt16BE(6);
  if (bytes[0] !== VERSION || length < HEAD_BYTES || length > LONGEST_BYTES)
    throw new Error('What came is no message of HART-IP.');
  if (bytes.length < length) return null;
  return {
    message: {
      type: bytes[1] ?? 0,
      about: bytes[2] ?? 0,
      status: bytes[3] ?? 0,
      sequence: bytes.readUInt16BE(4),
      body: bytes.subarray(HEAD_BYTES, length),
    },
    rest: bytes.subarray(length),
  };
}

/** What a session is begun with: as primary master, and how long it may be silent. */
export function sessionBody(inactivityMs: number): Buffer {
  const body = Buffer.from([1, 0, 0, 0, 0]);
  body.writeUInt32BE(inactivityMs, 1);
  return body;
}
