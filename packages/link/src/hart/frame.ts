/**
 * Frames of HART: delimiter, address, command, count, data, check byte. Data link layer of the published HART specifications
 * (FieldComm Group TS20081, HCF_SPEC-081), from memory.
 */

/** Bits of the delimiter: a request of a master, an answer, a burst; the bit of a long address. */
const STX = 0x02;
const ACK = 0x06;
const LONG = 0x80;
const TYPE = 0x07;
/** Expansion bytes, which no instrument of today sends; counted in the delimiter. */
const EXPANSION = 0x60;
/** In the first byte of an address: it comes from the primary master. */
const PRIMARY = 0x80;

/** By the polling address, or by the type and number that an instrument says of itself. */
export type Address =
  | { readonly kind: 'short'; readonly polling: number }
  | { readonly kind: 'long'; readonly type: number; readonly id: number };

export interface Frame {
  readonly isAnswer: boolean;
  readonly address: Address;
  readonly command: number;
  /** Of an answer without its first two bytes. */
  readonly data: Buffer;
  /** Of an answer: what became of the command, and how the instrument is. */
  readonly responseCode: number;
  readonly deviceStatus: number;
}

const checkByte = (bytes: Uint8Array): number => bytes.reduce((sum, byte) => sum ^ byte, 0);

const addressBytes = (address: Address): readonly number[] =>
  address.kind === 'short'
    ? [PRIMARY | (address.polling & 0x3f)]
    : [
        PRIMARY | ((address.type >> 8) & 0x3f),
        address.type & 0xff,
        (address.id >> 16) & 0xff,
        (address.id >> 8) & 0xff,
        address.id & 0xff,
      ];

/** A frame without preambles, as HART-IP carries it. */
export function frameBytes(frame: Frame): Buffer {
  const { isAnswer, address, command, data, responseCode, deviceStatus } = frame;
  const body = isAnswer ? Buffer.concat([Buffer.from([responseCode, deviceStatus]), data]) : data;
  const delimiter = (isAnswer ? ACK : STX) | (address.kind === 'long' ? LONG : 0);
  const bytes = Buffer.concat([
    Buffer.from([delimiter, ...addressBytes(address), command, body.length]),
    body,
  ]);
  return Buffer.concat([bytes, Buffer.from([checkByte(bytes)])]);
}

export const request = (address: Address, command: number, data: Buffer = Buffer.alloc(0)): Frame => ({
  isAnswer: false,
  address,
  command,
  data,
  responseCode: 0,
  deviceStatus: 0,
});

/** @throws Error in words where the bytes are no frame, or one that is damaged */
export function frameOf(bytes: Buffer): Frame {
  const delimiter = bytes[0] ?? 0;
  const type = delimiter & TYPE;
  if ((type !== STX && type !== ACK) || (delimiter & EXPANSION) !== 0)
    throw new Error('What came is no frame of HART.');
  const isLong = (delimiter & LONG) !== 0;
  const head = isLong ? 6 : 2;
  const count = bytes[head + 1];
  if (count === undefined || bytes.length !== head + 2 + count + 1)
    throw new Error('A frame of HART is cut, or has too much.');
  if (checkByte(bytes) !== 0) throw new Error('A frame of HART is damaged: its check byte is wrong.');
  const isAnswer = type === ACK;
  const body = bytes.subarray(head + 2, head + 2 + count);
  if (isAnswer && count < 2) throw new Error('An answer of HART says nothing of its success.');
  return {
    isAnswer,
    address: isLong
      ? {
          kind: 'long',
          type: ((bytes[1] ?? 0) & 0x3f) * 256 + (bytes[2] ?? 0),
          id: bytes.readUIntBE(3, 3),
        }
      : { kind: 'short', polling: (bytes[1] ?? 0) & 0x3f },
    command: bytes[head] ?? 0,
    data: isAnswer ? body.subarray(2) : body,
    responseCode: isAnswer ? (body[0] ?? 0) : 0,
    deviceStatus: isAnswer ? (body[1] ?? 0) : 0,
  };
}
