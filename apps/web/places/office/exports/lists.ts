/** Lists as tables for a spreadsheet. Headings of references are those that an import reads back. */
import type { Queryable } from '@barys/store/db';
import { closedJobs, openJobs } from '@barys/store/jobs';
import { listEverybody } from '@barys/store/people';
import { listBodies, listProcedures, listReferences } from '@barys/store/registers';
import { SIGNALS } from '@barys/core/signal';
import { pointsInWords, ruleInWords } from '@/places/office/procedures/words';
import { unitWord } from '@/places/references/words';

const MOST_JOBS = 100_000;

/** A column: its heading, and what a row has there. */
type Columns<Row> = readonly (readonly [heading: string, value: (row: Row) => unknown])[];

interface Table {
  readonly header: readonly string[];
  readonly rows: readonly (readonly unknown[])[];
}

const tableOf = <Row>(columns: Columns<Row>, rows: readonly Row[]): Table => ({
  header: columns.map(([heading]) => heading),
  rows: rows.map((row) => columns.map(([, value]) => value(row))),
});

const REFERENCES: Columns<Awaited<ReturnType<typeof listReferences>>[number]> = [
  ['Tag', (one) => one.tag],
  ['What it is', (one) => one.description],
  ['Serial number', (one) => one.serial],
  ['Where it is', (one) => one.location],
  ['State', (one) => one.state],
  ['Module', (one) => one.name],
  ['Measures', (one) => one.quantity],
  ['Kind of pressure', (one) => one.kind],
  ['Unit', (one) => unitWord(one.unit)],
  ['Range from', (one) => one.rangeLow],
  ['Range to', (one) => one.rangeHigh],
  ['Resolution', (one) => one.resolution],
  ['% of reading', (one) => one.percentOfReading],
  ['% of range', (one) => one.percentOfRange],
  ['Floor', (one) => one.floor],
  ['Certificate', (one) => one.certificate],
  ['Calibrated on', (one) => one.calibratedOn],
  ['Due', (one) => one.dueOn],
  ['Expanded uncertainty, % of range', (one) => one.uncertaintyPercentOfRange],
];

const JOBS: Columns<Awaited<ReturnType<typeof openJobs>>[number]> = [
  ['Job', (job) => job.id],
  ['Tag', (job) => job.tag],
  ['Service', (job) => job.service],
  ['Area', (job) => job.area],
  ['Why', (job) => job.reason],
  ['Stage', (job) => job.stage],
  ['As found', (job) => job.asFoundVerdict],
  ['As left', (job) => job.asLeftVerdict],
  ['Opened by', (job) => job.openedBy],
  ['Opened', (job) => job.openedAt.toISOString()],
  ['Signed by', (job) => job.signedBy],
  ['Signed', (job) => job.signedAt?.toISOString()],
  ['Remark', (job) => job.remark],
];

const BODIES: Columns<Awaited<ReturnType<typeof listBodies>>[number]> = [
  ['Model', (body) => body.model],
  ['Kind of pressure', (body) => body.kind],
  ['Technology', (body) => body.technology],
  ['Unit', (body) => unitWord(body.unit)],
  ['Lower range limit', (body) => body.lowerRangeLimit],
  ['Upper range limit', (body) => body.upperRangeLimit],
  ['Least span', (body) => body.leastSpan],
  ['Greatest span', (body) => body.greatestSpan],
  ['Turndown by its stamp', (body) => body.stampedTurndown],
  ['Zero elevation at most, % of span', (body) => body.greatestElevationPercent],
  ['Zero suppression at most, % of span', (body) => body.greatestSuppressionPercent],
  ['Outputs', (body) => body.outputs.map((output) => SIGNALS[output].label).join('; ')],
  ['Trims', (body) => body.trims.join('; ')],
  ['Accuracy, % of span', (body) => body.accuracy],
];

const PROCEDURES: Columns<Awaited<ReturnType<typeof listProcedures>>[number]> = [
  ['Name', (one) => one.name],
  ['Version', (one) => one.version],
  ['Points', (one) => pointsInWords(one.content)],
  ['Decided by', (one) => ruleInWords(one.content.decisionRule)],
  ['Least ratio', (one) => one.content.leastRatio],
  ['As found only', (one) => (one.content.isAsFoundOnly ? 'yes' : 'no')],
  ['Instruments', (one) => one.instruments],
];

const PEOPLE: Columns<Awaited<ReturnType<typeof listEverybody>>[number]> = [
  ['Name', (person) => person.name],
  ['Role', (person) => person.role],
  ['Login', (person) => person.login],
  ['State', (person) => (person.isActive ? 'works here' : 'has left')],
];

export const LISTS = {
  references: async (db: Queryable) => tableOf(REFERENCES, await listReferences(db)),
  jobs: async (db: Queryable) =>
    tableOf(JOBS, [...(await openJobs(db, MOST_JOBS)), ...(await closedJobs(db, MOST_JOBS))]),
  bodies: async (db: Queryable) => tableOf(BODIES, await listBodies(db)),
  procedures: async (db: Queryable) => tableOf(PROCEDURES, await listProcedures(db)),
  people: async (db: Queryable) => tableOf(PEOPLE, await listEverybody(db)),
} as const;

export type ListName = keyof typeof LISTS;
