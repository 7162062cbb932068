/**
 * A stand-in that speaks HART: the smart transmitter of a simulated world behind its commands. As `instrument.ts`, from memory;
 * it has the commands 0 to 3, 6, 9, 12 to 16, 18, 33 to 38, 40 to 48 and no other.
 */
import type { Transfer } from '@barys/core/signal';
import { convertPressure, type PressureUnit } from '@barys/core/units';
import { configure, hold, trimZero, type Written } from '@barys/rig/smart';
import { byteAt, float, floatAt, NO_NUMBER, packed, uint16, uint24, unpacked } from './bytes';
import {
  CELSIUS,
  CONFIGURATION_CHANGED,
  LOOP_FIXED,
  LOOP_SATURATED,
  MALFUNCTION,
  MILLIAMPERE,
  NOT_USED,
  OUT_OF_LIMITS,
  SPECIAL_CURVE,
  TRANSFER_CODES,
  transferOfCode,
  UNIT_CODES,
  unitOfCode,
  VOLT,
} from './codes';
import type { SimulatedNow } from '../simulated';
import type { Address, Frame } from './frame';

/** Expanded device type of a manufacturer that there is not: 249, "not used" in table 8. */
export const DEVICE_TYPE = 0x39f9;
const MANUFACTURER = 249;
const OK = 0;
const INVALID = 2;
const TOO_LARGE = 3;
const TOO_SMALL = 4;
const CUT = 5;
const PROTECTED = 7;
const BEYOND = 9;
const NOT_FIXED = 11;
const UNKNOWN = 64;
/** The least share of the upper limit that its span can be. */
const LEAST_SPAN = 0.01;

/** What is refused, by its response code. */
class Refusal extends Error {
  constructor(readonly code: number) {
    super(`response code ${code}`);
  }
}

export class HartDevice {
  /** What was written over the tag of the instrument that it stands in for, and over which. */
  private written: { readonly over: string; readonly tag: string } | null = null;
  private descriptor = 'SIMULATED';
  private date: readonly [number, number, number] = [1, 1, 126];
  private readonly message = 'A SIMULATED TRANSMITTER';
  private polling = 0;
  private unit: PressureUnit | null = null;
  private isChanged = false;
  private changes = 0;

  constructor(
    private readonly seed: number,
    private readonly now: () => SimulatedNow,
  ) {}

  /** The answer to a request; null where it is for another. */
  hear({ address, command, data }: Frame): Frame | null {
    if (!this.isMe(address)) return null;
    const answer = (responseCode: number, body: Buffer): Frame => ({
      isAnswer: true,
      address,
      command,
      data: body,
      responseCode,
      deviceStatus: this.status(),
    });
    try {
      return answer(OK, this.obey(command, data));
    } catch (error) {
      const code = error instanceof Refusal ? error.code : CUT;
      return answer(code, Buffer.alloc(0));
    }
  }

  private get tag(): string {
    const { tag } = this.now();
    return this.written?.over === tag ? this.written.tag : tag;
  }

  private isMe(address: Address): boolean {
    return address.kind === 'short'
      ? address.polling === this.polling
      : address.type === (DEVICE_TYPE & 0x3fff) && address.id === this.id;
  }

  private get id(): number {
    return this.seed & 0xffffff;
  }

  private status(): number {
    const { world } = this.now();
    const { state, smart } = world.tested;
    const [low, high] = smart.stage.saturation;
    const wanted = 4 + 16 * state.output;
    return (
      (state.isFailed ? MALFUNCTION : 0) |
      (this.isChanged ? CONFIGURATION_CHANGED : 0) |
      (state.held === null ? 0 : LOOP_FIXED) |
      (state.held === null && (wanted < low || wanted > high) ? LOOP_SATURATED : 0) |
      (Math.abs(world.tested.digital) > smart.sensor.upperLimit ? OUT_OF_LIMITS : 0)
    );
  }

  /** The unit that it shows, and figures of the world in it. */
  private get shown(): { readonly code: number; readonly of: (value: number) => Buffer } {
    const { unit } = this.now();
    const own = this.unit ?? (unit in UNIT_CODES ? unit : 'kPa');
    return { code: UNIT_CODES[own] ?? 0, of: (value) => float(convertPressure(value, unit, own)) };
  }

  private obey(command: number, data: Buffer): Buffer {
    return this.read(command, data) ?? this.write(command, data) ?? refuse(UNKNOWN);
  }

  private read(command: number, data: Buffer): Buffer | null {
    const { world } = this.now();
    const { state, smart } = world.tested;
    const { code, of } = this.shown;
    const { settings } = state;
    switch (command) {
      case 0:
        return this.identity();
      case 1:
        return Buffer.concat([Buffer.from([code]), of(world.tested.digital)]);
      case 2:
        return Buffer.concat([float(this.loopCurrent()), float(this.percent())]);
      case 3:
        return Buffer.concat([
          float(this.loopCurrent()),
          Buffer.from([code]),
          of(world.tested.digital),
          Buffer.from([CELSIUS]),
          float(world.shown.sensorC),
          Buffer.from([CELSIUS]),
          float(world.shown.electronicsC),
          Buffer.from([VOLT]),
          world.shown.terminalV === null ? NO_NUMBER : float(world.shown.terminalV),
        ]);
      case 9:
        return Buffer.concat([
          Buffer.from([0]),
          ...[...requested(data, 8)].map((slot) => this.slotWithStatus(slot)),
          // Time since midnight in 1/32 ms: it has no clock.
          Buffer.alloc(4),
        ]);
      case 12:
        return packed(this.message, 32);
      case 13:
        return Buffer.concat([packed(this.tag, 8), packed(this.descriptor, 16), Buffer.from(this.date)]);
      case 14:
        return Buffer.concat([
          uint24(this.id),
          Buffer.from([code]),
          of(smart.sensor.upperLimit),
          of(-smart.sensor.upperLimit),
          of(smart.sensor.upperLimit * LEAST_SPAN),
        ]);
      case 15:
        return Buffer.concat([
          Buffer.from([smart.stage.alarmMilliamp > 12 ? 0 : 1, transferCode(settings.transfer), code]),
          of(settings.urv),
          of(settings.lrv),
          float(settings.dampingS),
          Buffer.from([settings.isProtected ? 1 : 0, NOT_USED, 0]),
        ]);
      case 16:
        return uint24(0);
      case 33:
        return Buffer.concat([...requested(data, 4)].map((slot) => this.slot(slot)));
      case 48:
        return this.moreStatus();
    }
    return null;
  }

  private identity(): Buffer {
    return Buffer.concat([
      Buffer.from([254]),
      uint16(DEVICE_TYPE),
      // Preambles; universal revision 7; revisions of device, software and hardware; flags.
      Buffer.from([5, 7, 1, 1, 1 << 3, 0]),
      uint24(this.id),
      Buffer.from([5, 3]),
      uint16(this.changes),
      Buffer.from([0]),
      uint16(MANUFACTURER),
      uint16(MANUFACTURER),
      Buffer.from([1]),
    ]);
  }

  private loopCurrent(): number {
    const { state, smart } = this.now().world.tested;
    const [low, high] = smart.stage.saturation;
    if (state.isFailed) return smart.stage.alarmMilliamp;
    // What it believes: of the errors of its stage it knows nothing.
    return state.held ?? Math.min(high, Math.max(low, 4 + 16 * state.output));
  }

  private percent(): number {
    const { settings } = this.now().world.tested.state;
    return ((this.now().world.tested.digital - settings.lrv) / (settings.urv - settings.lrv)) * 100;
  }

  /** Code, unit and value of a variable: 0 and 246 the pressure, 1 and 247 the temperature, 244 per cent, 245 the current. */
  private slot(slot: number): Buffer {
    const { world } = this.now();
    const { code, of } = this.shown;
    const of_ = (unit: number, value: Buffer) => Buffer.concat([Buffer.from([slot, unit]), value]);
    if (slot === 0 || slot === 246) return of_(code, of(world.tested.digital));
    if (slot === 1 || slot === 247) return of_(CELSIUS, float(world.shown.sensorC));
    if (slot === 244) return of_(57, float(this.percent()));
    if (slot === 245) return of_(MILLIAMPERE, float(this.loopCurrent()));
    return of_(NOT_USED, NO_NUMBER);
  }

  private slotWithStatus(slot: number): Buffer {
    const found = this.slot(slot);
    const isThere = found[1] !== NOT_USED;
    const kind = slot === 1 || slot === 247 ? 64 : slot === 0 || slot === 246 ? 65 : 0;
    return Buffer.concat([
      found.subarray(0, 1),
      Buffer.from([kind]),
      found.subarray(1),
      // Quality good, not limited; or bad.
      Buffer.from([isThere ? 0xc0 : 0x30]),
    ]);
  }

  private moreStatus(): Buffer {
    const { state, smart } = this.now().world.tested;
    const [low, high] = smart.stage.saturation;
    const wanted = 4 + 16 * state.output;
    const isSaturated = state.held === null && (wanted < low || wanted > high);
    return Buffer.from([
      ...[0, 0, 0, 0, 0, 0],
      0,
      0,
      state.isFailed ? 0x80 : 0,
      0,
      isSaturated ? 1 : 0,
      0,
      0,
      state.held === null ? 0 : 1,
    ]);
  }

  /** Writes; null of a command that is none. All answer with what they were told. */
  private write(command: number, data: Buffer): Buffer | null {
    const { world, unit } = this.now();
    const { tested } = world;
    const { settings } = tested.state;
    const inWorld = (at: number, code: number) => convertPressure(floatAt(data, at), unitOfCode(code), unit);
    switch (command) {
      case 6:
        this.polling = within(byteAt(data, 0), 0, 63);
        // With its loop current alive.
        return Buffer.from([this.polling, 1]);
      case 18:
        this.written = { over: this.now().tag, tag: unpacked(data, 0, 6) };
        this.descriptor = unpacked(data, 6, 12);
        this.date = [byteAt(data, 18), byteAt(data, 19), byteAt(data, 20)];
        return this.changed(data);
      case 34:
        return this.take(data, configure(tested.state, { dampingS: within(floatAt(data, 0), 0, 60) }));
      case 35: {
        const code = byteAt(data, 0);
        requireUnit(code);
        return this.range(data, inWorld(5, code), inWorld(1, code));
      }
      case 36:
        return this.range(data, settings.lrv, tested.digital);
      case 37:
        return this.range(data, tested.digital, settings.urv + tested.digital - settings.lrv);
      case 38:
        this.isChanged = false;
        return data;
      case 40: {
        const milliamp = floatAt(data, 0);
        tested.state = hold(tested.state, milliamp === 0 ? null : within(milliamp, 3.5, 22.5));
        return data;
      }
      case 41:
        return data;
      case 42:
        tested.state = hold(tested.state, null);
        return data;
      case 43:
        return this.take(data, trimZero(tested.smart, tested.state));
      case 44:
        requireUnit(byteAt(data, 0));
        this.unit = unitOfCode(byteAt(data, 0));
        return this.changed(data);
      case 45:
        return this.trim(data, 4, floatAt(data, 0));
      case 46:
        return this.trim(data, 20, floatAt(data, 0));
      case 47: {
        const code = byteAt(data, 0);
        const kind = transferOfCode(code);
        if (kind === null) return refuse(INVALID);
        return this.take(data, configure(tested.state, { transfer: { kind } }));
      }
    }
    return null;
  }

  private changed(data: Buffer): Buffer {
    this.isChanged = true;
    this.changes = (this.changes + 1) & 0xffff;
    return data;
  }

  private take(data: Buffer, written: Written): Buffer {
    if (written === 'write protected') return refuse(PROTECTED);
    if (written === 'no span') return refuse(TOO_SMALL);
    if (written === 'beyond the trim limit') return refuse(BEYOND);
    this.now().world.tested.state = written;
    return this.changed(data);
  }

  private range(data: Buffer, lrv: number, urv: number): Buffer {
    const { state, smart } = this.now().world.tested;
    const { upperLimit } = smart.sensor;
    if (Math.max(lrv, urv) > upperLimit) refuse(TOO_LARGE);
    if (Math.min(lrv, urv) < -upperLimit) refuse(TOO_SMALL);
    // The range of its display goes with it, as that of most does.
    return this.take(data, configure(state, { lrv, urv, displayLow: lrv, displayHigh: urv }));
  }

  /** Zero of the output, or its gain: what is measured while it is fixed there. */
  private trim(data: Buffer, at: 4 | 20, measured: number): Buffer {
    const { tested } = this.now().world;
    if (tested.state.held !== at) refuse(NOT_FIXED);
    if (Math.abs(measured - at) > 1) refuse(measured > at ? TOO_LARGE : TOO_SMALL);
    const { stageSlope, stageShift } = tested.state;
    const told = (milliamp: number) => stageSlope * milliamp + stageShift;
    const next =
      at === 4
        ? { stageSlope, stageShift: stageShift + (4 - measured) }
        : // About 4 mA, which was trimmed before.
          { stageSlope: (stageSlope * 16) / (measured - 4), stageShift: 0 };
    const pivot = at === 4 ? next : { ...next, stageShift: told(4) - next.stageSlope * 4 };
    if (tested.state.settings.isProtected) refuse(PROTECTED);
    return this.take(data, { ...tested.state, ...pivot });
  }
}

const transferCode = ({ kind }: Transfer): number =>
  kind === 'linear'
    ? TRANSFER_CODES.linear
    : kind === 'table'
      ? SPECIAL_CURVE
      : TRANSFER_CODES['square-root'];

function refuse(code: number): never {
  throw new Refusal(code);
}

function within(value: number, low: number, high: number): number {
  if (value > high) refuse(TOO_LARGE);
  if (value < low) refuse(TOO_SMALL);
  return value;
}

function requireUnit(code: number): void {
  if (!Object.values(UNIT_CODES).includes(code)) refuse(INVALID);
}

/** Codes of the variables that are asked for. */
function requested(data: Buffer, most: number): Buffer {
  if (data.length === 0) refuse(CUT);
  return data.subarray(0, most);
}
