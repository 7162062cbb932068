/** The figures of insight of one period, from the database. */
import { LEAST_OF_FAMILY } from '@barys/core/interval';
import {
  adjustmentsByKind,
  causesByName,
  costsOfIntervals,
  foundByMonth,
  overdueByMonth,
  referencesUsed,
  workloadAhead,
} from '@barys/store/insight';
import { familySums } from '@barys/store/intervals';
import { database } from '@/server/database';
import {
  adjustedFigure,
  causesFigure,
  familiesFigure,
  foundFigure,
  overdueFigure,
  periodFrom,
  referencesFigure,
  workloadFigure,
} from './figures';

/** Months that are looked ahead. */
const AHEAD = 12;

/**
 * @param end last day of the period, ISO date; not after today
 * @param today ISO date, from which on work lies ahead
 */
export async function loadOverview({ months, end, today }: { months: number; end: string; today: string }) {
  const db = database();
  const from = periodFrom(end, months);
  const [found, families, overdue, workload, adjusted, causes, references, costs] = await Promise.all([
    foundByMonth(db, end, months),
    familySums(db, 'model'),
    overdueByMonth(db, end, months),
    workloadAhead(db, today, AHEAD),
    adjustmentsByKind(db, end, months),
    causesByName(db, end, months),
    referencesUsed(db, end, months),
    costsOfIntervals(db),
  ]);
  return {
    from,
    found: foundFigure(found),
    families: familiesFigure(families, LEAST_OF_FAMILY),
    overdue: overdueFigure(overdue),
    workload: workloadFigure(workload),
    adjusted: adjustedFigure(adjusted, from),
    causes: causesFigure(causes, from),
    references: referencesFigure(references, from, today),
    costs,
  };
}
