/**
 * The lines of the lists that jobs begin with, as data. Common practice; boiler rules, makers' instructions and licensed
 * people come first. Free of PostgreSQL, so that the workshop shows the same.
 */
import type { Instrument } from '../registers/instrument';
import type { JobReason } from './stages';

/** What must follow a changed range. */
export const FOLLOWS: readonly string[] = [
  'Display scale',
  'Receiver: control system, recorder, flow computer',
  'Alarms and trips that are set in %',
  'Totaliser factor',
  'Label with the new range',
  'Drawings and data sheet',
  'People told: control room, process, maintenance',
];

export const COLD_SET_UP: readonly string[] = [
  'Drum cold and without pressure; both lines and the pot safe to open',
  'Pot filled until water leaves its vent',
  'Both lines purged of air',
  'Equaliser opened only while venting, then shut',
  'Zero set at the lowest visible level',
  'Span set at the highest visible level, and not above it',
  'Checked at half',
];

export const HOT_CHECK: readonly string[] = [
  'Load and pressure steady; nobody in line with the glass or a vent',
  'Gauge glass blown down and filled again, both its valves open',
  'Drum pressure, glass and transmitter read at the same time',
  'What the densities explain looked at, before anything is entered',
  'Bias entered with its pressure and level, or left out with the reason',
  'Control room told what was found and what was entered',
];

/** Whether a kind of job is for an instrument, or why not. */
export function whyNotFor(
  reason: JobReason,
  { measures, hookUp }: Pick<Instrument, 'measures' | 'hookUp'>,
): string | null {
  return (reason === 'cold set-up' || reason === 'hot check') &&
    (measures !== 'level' || hookUp !== 'wet-leg')
    ? 'This kind of job is for the level of a drum or tank with a wet leg.'
    : null;
}
