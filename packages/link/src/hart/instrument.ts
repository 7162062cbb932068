/**
 * An instrument that speaks HART, through its commands. Universal and common-practice commands of the published specifications
 * (HCF_SPEC-127 and -151), from memory; what is the instrument's own is left to its own tool.
 */
import type { HartAddress } from '@barys/core/port';
import type { PressureUnit } from '@barys/core/units';
import { byteAt, float, floatAt, unpacked } from './bytes';
import { refusalOf, TRANSFER_CODES, transferOfCode, UNIT_CODES, unitOfCode } from './codes';
import { frameBytes, frameOf, request, type Address } from './frame';
import { HartSession } from './session';

export interface Answer {
  readonly data: Buffer;
  /** Device status. */
  readonly status: number;
  /** The frame as it came, in hexadecimal. */
  readonly raw: string;
}

/** What an instrument says it is: command 0. */
export interface Unique {
  readonly type: number;
  readonly id: number;
  readonly universal: number;
  readonly software: number;
}

export class HartInstrument {
  private readonly session: HartSession;
  private unique: Unique | null = null;

  constructor(
    at: HartAddress,
    private readonly polling: number,
    answerMs: number,
  ) {
    this.session = new HartSession(at, answerMs);
  }

  /** Command 0: who is there; asked again after anything went wrong, since it may be another one by then. */
  async whoIsThere(): Promise<Unique> {
    if (this.unique !== null) return this.unique;
    const { data } = await this.exchange({ kind: 'short', polling: this.polling }, 0);
    if (byteAt(data, 0) !== 254) throw new Error('Its answer to command 0 is not that of the standard.');
    this.unique = {
      type: byteAt(data, 1) * 256 + byteAt(data, 2),
      universal: byteAt(data, 4),
      software: byteAt(data, 6),
      id: (byteAt(data, 9) << 16) | (byteAt(data, 10) << 8) | byteAt(data, 11),
    };
    return this.unique;
  }

  /** @throws Error in words where it was not done, or something else was answered */
  async command(command: number, data: Buffer = Buffer.alloc(0)): Promise<Answer> {
    const { type, id } = await this.whoIsThere();
    return this.exchange({ kind: 'long', type: type & 0x3fff, id }, command, data);
  }

  close(): void {
    this.session.close();
  }

  private async exchange(address: Address, command: number, data?: Buffer): Promise<Answer> {
    try {
      const bytes = await this.session.ask(frameBytes(request(address, command, data)));
      const answer = frameOf(bytes);
      if (!answer.isAnswer || answer.command !== command || !isSame(answer.address, address))
        throw new Error('It answers another question than was asked.');
      const refusal = refusalOf(answer.responseCode);
      if (refusal !== null) throw new Refused(`Command ${command} is not done: ${refusal}.`);
      return { data: answer.data, status: answer.deviceStatus, raw: bytes.toString('hex') };
    } catch (error) {
      // What is refused was understood by the same instrument.
      if (!(error instanceof Refused)) this.unique = null;
      throw error;
    }
  }
}

/** It was understood, and not done. */
export class Refused extends Error {}

const isSame = (one: Address, other: Address): boolean =>
  one.kind === 'long' && other.kind === 'long'
    ? one.type === other.type && one.id === other.id
    : one.kind === other.kind &&
      one.kind === 'short' &&
      other.kind === 'short' &&
      one.polling === other.polling;

/** Command 3: the loop current as it believes it to be, mA, its primary variable, and the others that it has. */
export async function readVariables(instrument: HartInstrument) {
  const { data, status, raw } = await instrument.command(3);
  const others: { readonly code: number; readonly value: number }[] = [];
  for (let at = 9; at + 5 <= data.length; at += 5)
    // One that is not there is a NaN.
    if (Number.isFinite(data.readFloatBE(at + 1)))
      others.push({ code: byteAt(data, at), value: floatAt(data, at + 1) });
  return {
    milliamp: floatAt(data, 0),
    unit: unitOfCode(byteAt(data, 4)),
    value: floatAt(data, 5),
    others,
    status,
    raw,
  };
}

/** Command 13: its tag and descriptor. */
export async function readTag(instrument: HartInstrument) {
  const { data } = await instrument.command(13);
  return { tag: unpacked(data, 0, 6), descriptor: unpacked(data, 6, 12) };
}

/** Command 14: limits and least span of its sensor. */
export async function readLimits(instrument: HartInstrument) {
  const { data } = await instrument.command(14);
  return {
    unit: unitOfCode(byteAt(data, 3)),
    upper: floatAt(data, 4),
    lower: floatAt(data, 8),
    leastSpan: floatAt(data, 12),
  };
}

/** Command 15: how its output is made of its primary variable. */
export async function readOutput(instrument: HartInstrument) {
  const { data } = await instrument.command(15);
  return {
    /** Null where it is a curve of its own. */
    transfer: transferOfCode(byteAt(data, 1)),
    unit: unitOfCode(byteAt(data, 2)),
    urv: floatAt(data, 3),
    lrv: floatAt(data, 7),
    dampingS: floatAt(data, 11),
    isProtected: byteAt(data, 15) === 1,
  };
}

/** @throws Error for a unit without a code */
export function codeOfUnit(unit: PressureUnit): number {
  const code = UNIT_CODES[unit];
  if (code === undefined) throw new Error(`HART has no code for ${unit}.`);
  return code;
}

/** Command 34. @param seconds of the primary variable */
export const writeDamping = (instrument: HartInstrument, seconds: number) =>
  instrument.command(34, float(seconds));

/** Command 35. */
export const writeRange = (
  instrument: HartInstrument,
  { unit, lrv, urv }: { readonly unit: PressureUnit; readonly lrv: number; readonly urv: number },
) => instrument.command(35, Buffer.concat([Buffer.from([codeOfUnit(unit)]), float(urv), float(lrv)]));

/** Command 40: holds the loop at a current, mA; 0 lets it go. */
export const fixCurrent = (instrument: HartInstrument, milliamp: number) =>
  instrument.command(40, float(milliamp));

/** Command 43: what is there is zero. */
export const trimZero = (instrument: HartInstrument) => instrument.command(43);

/** Command 44. */
export const writeUnit = (instrument: HartInstrument, unit: PressureUnit) =>
  instrument.command(44, Buffer.from([codeOfUnit(unit)]));

/** Commands 45 and 46: what is measured while the loop is fixed at 4, and at 20 mA. */
export const trimOutputZero = (instrument: HartInstrument, milliamp: number) =>
  instrument.command(45, float(milliamp));
export const trimOutputGain = (instrument: HartInstrument, milliamp: number) =>
  instrument.command(46, float(milliamp));

/** Command 47. */
export const writeTransfer = (instrument: HartInstrument, transfer: keyof typeof TRANSFER_CODES) =>
  instrument.command(47, Buffer.from([TRANSFER_CODES[transfer]]));
