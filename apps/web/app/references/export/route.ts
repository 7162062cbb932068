import { listReferences, toCsv } from '@barys/store';
import { csvResponse } from '@/server/csv';
import { database } from '@/server/database';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';
import { unitWord } from '@/references/words';

const HEADER = [
  'Tag',
  'What it is',
  'Serial number',
  'Where it is',
  'State',
  'Module',
  'Measures',
  'Kind of pressure',
  'Unit',
  'Range from',
  'Range to',
  'Resolution',
  '% of reading',
  '% of range',
  'Floor',
  'Certificate',
  'Calibrated on',
  'Due',
  'Expanded uncertainty, % of range',
];

/** All ranges of references, with headings that an import reads back. */
export async function GET(): Promise<Response> {
  try {
    await requireReader();
    const rows = (await listReferences(database())).map((one) => [
      one.tag,
      one.description,
      one.serial,
      one.location,
      one.state,
      one.name,
      one.quantity,
      one.kind,
      unitWord(one.unit),
      one.rangeLow,
      one.rangeHigh,
      one.resolution,
      one.percentOfReading,
      one.percentOfRange,
      one.floor,
      one.certificate,
      one.calibratedOn,
      one.dueOn,
      one.uncertaintyPercentOfRange,
    ]);
    return csvResponse(toCsv(HEADER, rows), 'references.csv');
  } catch (error) {
    return problemResponse(error);
  }
}
