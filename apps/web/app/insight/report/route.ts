import { calibrationQuerySchema, listCalibrations } from '@barys/store/insight';
import { findSite } from '@barys/store/people';
import dayjs from 'dayjs';
import { z } from 'zod';
import { renderReport } from '@/pdf/report/render';
import { loadOverview } from '@/places/insight/overview/load';
import { database } from '@/server/database';
import { localDate, showMoment } from '@/server/dates';
import { noteExport } from '@/server/exported';
import { requireReader } from '@/server/person';
import { pdfResponse, problemResponse } from '@/server/problem';

const MONTHS = 12;

const asked = z.object({
  month: z.string().regex(/^\d{4}-(0[1-9]|1[0-2])$/, 'Write the month as 2026-05.'),
  paper: z.enum(['a4', 'letter']).catch('a4'),
});

/** The report of a month (`?month=2026-05`) as PDF, A4 or (`&paper=letter`) Letter; of the present month up to today. */
export async function GET(request: Request): Promise<Response> {
  try {
    const reader = await requireReader();
    const now = new Date();
    const today = localDate(now);
    const { month, paper } = asked
      .refine((given) => given.month <= today.slice(0, 7), {
        error: 'This month has not come yet.',
        path: ['month'],
      })
      .parse(Object.fromEntries(new URL(request.url).searchParams));
    await noteExport(reader, `report of ${month}`);
    const db = database();
    const first = `${month}-01`;
    const end = [dayjs(first).endOf('month').format('YYYY-MM-DD'), today].sort()[0] ?? today;
    const [site, overview, outside] = await Promise.all([
      findSite(db),
      loadOverview({ months: MONTHS, end, today }),
      listCalibrations(
        db,
        calibrationQuerySchema.parse({ from: first, to: end, kind: 'as-found', verdict: 'outside' }),
      ),
    ]);
    const pdf = await renderReport({
      ...overview,
      site: site?.siteName ?? '',
      month: dayjs(first).format('MMMM YYYY'),
      madeAt: showMoment(now),
      outside,
      paper: paper === 'a4' ? 'A4' : 'LETTER',
    });
    return pdfResponse(pdf, `calibrations-${month}.pdf`);
  } catch (error) {
    return problemResponse(error);
  }
}
