/** What stands in the data of HART's commands. Command summary of the published specifications, from memory. */

/** A NaN, which says that there is none. */
export const NO_NUMBER = Buffer.from([0x7f, 0xa0, 0, 0]);

/** A single-precision number of IEEE 754, the highest byte first. */
export function float(value: number): Buffer {
  const bytes = Buffer.alloc(4);
  bytes.writeFloatBE(value);
  return bytes;
}

/** @throws Error where the data ends before, or says no number */
export function floatAt(data: Buffer, at: number): number {
  const value = data.length >= at + 4 ? data.readFloatBE(at) : NaN;
  if (!Number.isFinite(value)) throw new Error('It gives no number.');
  // The digits that four bytes hold; more are those of the conversion.
  return Number(value.toPrecision(7));
}

/** @throws Error where the data ends before */
export function byteAt(data: Buffer, at: number): number {
  const byte = data[at];
  if (byte === undefined) throw new Error('Its answer is cut.');
  return byte;
}

export const uint24 = (value: number): Buffer =>
  Buffer.from([value >> 16, (value >> 8) & 0xff, value & 0xff]);
export const uint16 = (value: number): Buffer => Buffer.from([(value >> 8) & 0xff, value & 0xff]);

/** Text of capitals, digits and signs, four in three bytes; what has no place there becomes a question mark. */
export function packed(text: string, characters: number): Buffer {
  const padded = text.toUpperCase().slice(0, characters).padEnd(characters);
  const codes = Array.from({ length: characters }, (_none, place) => {
    const code = padded.charCodeAt(place);
    return (code >= 0x20 && code <= 0x5f ? code : 0x3f) & 0x3f;
  });
  const bytes: number[] = [];
  for (let at = 0; at < codes.length; at += 4) {
    const [a = 0, b = 0, c = 0, d = 0] = codes.slice(at, at + 4);
    const all = (a << 18) | (b << 12) | (c << 6) | d;
    bytes.push((all >> 16) & 0xff, (all >> 8) & 0xff, all & 0xff);
  }
  return Buffer.from(bytes);
}

/** @throws Error where the data ends before */
export function unpacked(data: Buffer, at: number, bytes: number): string {
  if (data.length < at + bytes) throw new Error('Its answer is cut.');
  let text = '';
  for (let place = at; place < at + bytes; place += 3) {
    const all = data.readUIntBE(place, 3);
    for (const shift of [18, 12, 6, 0]) {
      const code = (all >> shift) & 0x3f;
      text += String.fromCharCode(code < 0x20 ? code | 0x40 : code);
    }
  }
  return text.trim();
}
