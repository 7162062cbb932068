/** A hook-up in the words of the trade. */
import { HOOK_UPS, type Arrangement, type ValveMove } from './arrangement';
import { valveOf, type HookUpFault, type HookUpLack } from './state';

/** A move as an instruction. */
export function moveInWords(arrangement: Arrangement, { valve, to }: ValveMove): string {
  const { name } = valveOf(HOOK_UPS[arrangement], valve);
  return `${to === 'open' ? 'Open' : 'Close'} ${name.toLowerCase()}`;
}

/** What is wrong, and what to do about it. */
export function faultInWords(arrangement: Arrangement, fault: HookUpFault): string {
  switch (fault) {
    case 'process-open':
      return arrangement === 'vacuum'
        ? 'Air goes into the process: the isolating valve is open while air is admitted. Close the air admittance.'
        : 'The vent is open with the process behind it. Close the vent, then the block.';
    case 'one-sided':
      return 'One side has the line pressure and the other has none: the body is loaded on one side. Equalise before anything else.';
    case 'through-flow':
      return 'Both blocks and the equaliser are open: the process flows through the manifold, hot fluid reaches the body and condensate is lost. Close one of them.';
    case 'leg-open':
      return 'The wet leg is open to the other side or to a vent: its fill runs out and the zero moves. Shut the low side block; the leg has to be filled again.';
  }
}

/** What is still to be done. */
export function lackInWords(arrangement: Arrangement, lack: HookUpLack): string {
  switch (lack.kind) {
    case 'valve':
      return `${valveOf(HOOK_UPS[arrangement], lack.valve).name} is still ${lack.to === 'open' ? 'closed' : 'open'}.`;
    case 'trapped':
      return `Pressure is trapped ${lack.side === 'middle' ? 'between the equalisers' : `on the ${lack.side} side`}: vent it.`;
  }
}
