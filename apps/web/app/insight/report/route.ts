import { LEAST_OF_FAMILY } from '@barys/core/interval';
import {
  adjustmentsByKind,
  calibrationQuerySchema,
  causesByName,
  costsOfIntervals,
  foundByMonth,
  listCalibrations,
  monthBefore,
  overdueByMonth,
  referencesUsed,
  workloadAhead,
} from '@barys/store/insight';
import { familySums } from '@barys/store/intervals';
import { findSite } from '@barys/store/people';
import dayjs from 'dayjs';
import { z } from 'zod';
import { renderReport } from '@/pdf/report/render';
import {
  adjustedFigure,
  causesFigure,
  familiesFigure,
  foundFigure,
  overdueFigure,
  referencesFigure,
  workloadFigure,
} from '@/places/insight/overview/figures';
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
    const from = monthBefore(end, MONTHS - 1);
    const [site, found, families, overdue, workload, adjusted, causes, references, costs, outside] =
      await Promise.all([
        findSite(db),
        foundByMonth(db, end, MONTHS),
        familySums(db, 'model'),
        overdueByMonth(db, end, MONTHS),
        workloadAhead(db, today, MONTHS),
        adjustmentsByKind(db, end, MONTHS),
        causesByName(db, end, MONTHS),
        referencesUsed(db, end, MONTHS),
        costsOfIntervals(db),
        listCalibrations(
          db,
          calibrationQuerySchema.parse({ from: first, to: end, kind: 'as-found', verdict: 'outside' }),
        ),
      ]);
    const pdf = await renderReport({
      site: site?.siteName ?? '',
      month: dayjs(first).format('MMMM YYYY'),
      madeAt: showMoment(now),
      found: foundFigure(found),
      families: familiesFigure(families, LEAST_OF_FAMILY),
      overdue: overdueFigure(overdue),
      workload: workloadFigure(workload),
      adjusted: adjustedFigure(adjusted, from),
      causes: causesFigure(causes, from),
      references: referencesFigure(references, from, today),
      costs,
      outside,
      paper: paper === 'a4' ? 'A4' : 'LETTER',
    });
    return pdfResponse(pdf, `calibrations-${month}.pdf`);
  } catch (error) {
    return problemResponse(error);
  }
}
