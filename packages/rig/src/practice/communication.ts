/** What a smart transmitter makes of what it is told. */
import { configure, hold, trimOutput, trimSensor, trimZero, type Settings, type Written } from '../smart';
import type { SmartTested } from '../world';
import type { Command } from './acts';

type Told = Exclude<Command, { readonly kind: 'face' }>;

/** Keeps what was told of the one end of a trim until the other is there. */
export class Communication {
  private lower: { readonly raw: number; readonly applied: number } | null = null;
  private measured4: number | null = null;

  /** @returns what it answers */
  tell(tested: SmartTested, command: Told): string {
    const written = this.written(tested, command);
    if (typeof written === 'string') return written;
    tested.state = written;
    return 'done';
  }

  private written({ smart, state }: SmartTested, command: Told): Written | SetRefused {
    switch (command.kind) {
      case 'zero trim':
        return trimZero(smart, state);
      case 'hold':
        return hold(state, command.milliamp);
      case 'set':
        return refusedOf(command.settings, smart.sensor.upperLimit) ?? configure(state, command.settings);
      case 'sensor trim': {
        const here = { raw: state.raw, applied: command.applied };
        if (command.end === 'lower') {
          this.lower = here;
          return state;
        }
        return this.lower === null ? 'no span' : trimSensor(smart, state, this.lower, here);
      }
      case 'output trim':
        if (command.at === 4) {
          this.measured4 = command.measured;
          return state;
        }
        return this.measured4 === null ? 'no span' : trimOutput(state, this.measured4, command.measured);
    }
  }
}

type SetRefused = 'beyond the limits of the body' | 'no such damping' | 'no such start';
/** The longest damping that such a transmitter has, s. */
const LONGEST_DAMPING_S = 100;

function refusedOf(settings: Partial<Settings>, limit: number): SetRefused | null {
  const { lrv = 0, urv = 0, dampingS = 0, displayDampingS = 0, transfer, scaledTransfer } = settings;
  if (!(Math.max(Math.abs(lrv), Math.abs(urv)) <= limit)) return 'beyond the limits of the body';
  for (const damping of [dampingS, displayDampingS])
    if (!(damping >= 0 && damping <= LONGEST_DAMPING_S)) return 'no such damping';
  for (const one of [transfer, scaledTransfer])
    if (
      one?.kind === 'square-root-cut-off' &&
      !(one.cutOffPercentOfFlow >= 0 && one.cutOffPercentOfFlow < 100)
    )
      return 'no such start';
  return null;
}
