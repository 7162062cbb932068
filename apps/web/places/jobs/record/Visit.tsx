import type { PressureKind } from '@barys/core/units';
import { shortHash, type Seal } from '@barys/store/db';
import type { Connection, JobFile } from '@barys/store/jobs';
import {
  checkInWords,
  daysInWords,
  headInWords,
  leakInWords,
  PLACE_WORD,
  REASON_WORD,
  sinceFacts,
} from '../words';
import { certificateWords } from '@/places/references/words';
import { showMoment } from '@/server/dates';
import { Facts } from '@/ui/Facts';
import { Sheet } from '@/ui/Sheet';

/** Who did what when, and what was connected. */
export function Visit({ job, seal }: { job: JobFile; seal: Seal | null }) {
  return (
    <Sheet title="Visit">
      <Facts
        facts={[
          ['Why', REASON_WORD[job.reason]],
          ['Opened', `${showMoment(job.openedAt)}, ${job.openedBy}`],
          ['Readings taken', daysInWords(job.runs)],
          ...(job.cancelledAt === null
            ? []
            : [
                [
                  'Cancelled',
                  `${showMoment(job.cancelledAt)}, ${job.cancelledBy ?? ''}: ${job.cancelReason}`,
                ] as const,
              ]),
          ...sinceFacts(job),
          [
            'Signed',
            job.signedAt === null ? 'not yet' : `${showMoment(job.signedAt)}, ${job.signedBy ?? ''}`,
          ],
          ...(job.remark === '' ? [] : [['Remark', job.remark] as const]),
          ...(job.signedAt === null
            ? []
            : [
                [
                  'Reviewed',
                  job.reviewedAt === null
                    ? job.stage === 'review'
                      ? 'waits for a second person'
                      : 'not asked for when it was signed'
                    : `${showMoment(job.reviewedAt)}, ${job.reviewedBy ?? ''}${job.reviewRemark === '' ? '' : `: ${job.reviewRemark}`}`,
                ] as const,
              ]),
          ...(seal === null ? [] : [['Seal', `${seal.number}, ${shortHash(seal.hash)}`] as const]),
          ...job.connections.flatMap((connection, index) =>
            connectionFacts(connection, job.instrument.kind).map(([name, value]): Fact => [
              index === 0 ? name : `${name}, again`,
              value,
            ]),
          ),
        ]}
      />
    </Sheet>
  );
}

type Fact = readonly [name: string, value: string];

/** What was connected, and in which air. */
function connectionFacts(connection: Connection, kind: PressureKind): Fact[] {
  return [
    ['Reference', `${connection.pressureReference.tag}, ${certificateWords(connection.pressureReference)}`],
    ...(connection.secondReference === null
      ? []
      : [
          [
            'Second reference',
            `${connection.secondReference.tag}, ${certificateWords(connection.secondReference)}`,
          ] as const,
        ]),
    [
      'Meter',
      connection.meter === null
        ? 'none: read by eye'
        : `${connection.meter.tag}, ${certificateWords(connection.meter)}`,
    ],
    ['Place', PLACE_WORD[connection.place]],
    ...(connection.leak === null ? [] : [['Leak check', leakInWords(connection.leak)] as const]),
    ...(connection.heightM === 0 ? [] : [['Height', headInWords(connection)] as const]),
    [
      'Ambient',
      `${connection.ambient.temperatureC} °C, ${connection.ambient.humidityPercent} %, ${connection.ambient.barometerHpa} hPa`,
    ],
    ...(connection.referenceReason === ''
      ? []
      : [['Used though unfit', connection.referenceReason] as const]),
    ['Checked', connection.checksDone.map((check) => checkInWords(check, kind)).join('; ') || 'nothing'],
  ];
}
