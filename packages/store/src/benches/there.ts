/** What stands at a bench now, and whether it is the instrument that is meant. */
import type { Channel } from '@barys/core/port';
import type { Queryable } from '../db/database';
import { AWAY_MS } from './benches';

export interface There {
  readonly device: string;
  readonly channel: Channel;
  readonly model: string;
  readonly serial: string;
  /** Of the reference whose address it is; null of one that was never entered. */
  readonly registered: string | null;
}

/** All that is heard of at a bench. */
export const thereAt = (tx: Queryable, bench: number, now: Date): Promise<There[]> =>
  tx.query<There>(
    `select device, channel, model, bench_value.serial, reference_standard.serial as registered
     from bench_value left join (reference_address join reference_standard on reference_standard.id = reference_id)
       on reference_address.token_id = bench_value.token_id and tag = device and reference_standard.state <> 'retired'
     where bench_value.token_id = $1 and seen_at > $2`,
    [bench, new Date(now.getTime() - AWAY_MS)],
  );

const plain = (serial: string): string => serial.toUpperCase().replaceAll(/[^A-Z0-9]/g, '');

/**
 * Why an instrument at a bench is not the one that is meant; null where it is.
 * @param tag of the reference that is meant; null where none is
 */
export function whyStrange(
  { device, model, serial, registered }: There,
  tag: string | null,
  isDemo: boolean,
): string | null {
  if (model === '') return `${device} has not said what it is.`;
  const isSimulated = model.includes('simulated');
  if (isSimulated && !isDemo) return `${device} is simulated: what it reads is no measurement.`;
  if (registered === null)
    return isSimulated ? null : `${device} is no reference whose address was entered for this bench.`;
  if (tag !== null && tag !== device) return `The job names ${tag}, and ${device} is another reference.`;
  // A transmitter on the loop of an interface has a number of its own.
  if (tag !== null && plain(registered) !== '' && plain(serial) !== '' && plain(registered) !== plain(serial))
    return `What answers as ${device} has the serial number ${serial}; the register says ${registered}.`;
  return null;
}
