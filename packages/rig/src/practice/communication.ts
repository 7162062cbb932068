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

  private written({ smart, state }: SmartTested, command: Told): Written | 'beyond the limits of the body' {
    switch (command.kind) {
      case 'zero trim':
        return trimZero(smart, state);
      case 'hold':
        return hold(state, command.milliamp);
      case 'set':
        return isBeyond(command.settings, smart.sensor.upperLimit)
          ? 'beyond the limits of the body'
          : configure(state, command.settings);
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

const isBeyond = ({ lrv = 0, urv = 0 }: Partial<Settings>, limit: number): boolean =>
  Math.max(Math.abs(lrv), Math.abs(urv)) > limit;
