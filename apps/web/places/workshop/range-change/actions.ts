'use server';
/** Holds a new range against the tolerance and the references of an instrument. */
import { isPressureUnit } from '@barys/core/units';
import { findInstrument, listReferences } from '@barys/store/registers';
import { z } from 'zod';
import { answer } from '@/server/act';
import type { Answer } from '@/server/answer';
import { database } from '@/server/database';
import { localDate } from '@/server/dates';
import { requireReader } from '@/server/person';
import { fitOfRange, type RangeFit } from './fit';

const asked = z.object({
  tag: z.string().trim().toUpperCase().max(32),
  lrv: z.number(),
  urv: z.number(),
  inputUnit: z.string().refine(isPressureUnit, 'A pressure unit is needed.'),
});

export async function fitOfRangeAction(entry: {
  tag: string;
  lrv: number;
  urv: number;
  inputUnit: string;
}): Promise<Answer & { fit?: RangeFit }> {
  const found: RangeFit[] = [];
  const result = await answer(async () => {
    await requireReader();
    const { tag, ...range } = asked.parse(entry);
    const [instrument, references] = await Promise.all([
      findInstrument(database(), { tag }),
      listReferences(database()),
    ]);
    found.push(fitOfRange(instrument, range, references, localDate(new Date())));
  });
  return found[0] === undefined ? result : { ...result, fit: found[0] };
}
