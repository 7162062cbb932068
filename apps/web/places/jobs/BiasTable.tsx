import { formatFixed, formatSigned } from '@barys/core/text';
import type { Bias } from '@barys/store/registers';
import Link from 'next/link';
import { showMoment } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';

const percent = (value: number): string => `${formatSigned(value, 1)} %`;

/** Offsets that were entered hot, each with the pressure and the level at which it is right. */
export function BiasTable({ biases }: { biases: readonly Bias[] }) {
  return (
    <DataTable
      label="Biases"
      rows={biases}
      keyOf={({ id }) => id}
      none="None was entered."
      columns={[
        ['Bias', ({ biasPercent }) => <Figure>{percent(biasPercent)}</Figure>],
        ['At', ({ pressurePa }) => <Figure>{`${formatFixed(pressurePa / 1e5, 1)} bar absolute`}</Figure>],
        [
          'Glass and transmitter',
          ({ glassPercent, shownPercent }) => (
            <Figure>{`${formatFixed(glassPercent, 1)} %, ${formatFixed(shownPercent, 1)} %`}</Figure>
          ),
        ],
        ['Densities explain', ({ explainedPercent }) => <Figure>{percent(explainedPercent)}</Figure>],
        ['Why', ({ reason }) => reason],
        [
          'By',
          ({ madeBy, madeAt, address }) => (
            <>
              {madeBy}, {showMoment(madeAt)}
              {address !== '' && (
                <>
                  {' · '}
                  <Link prefetch={false} href={address}>
                    where it is wrong
                  </Link>
                </>
              )}
            </>
          ),
        ],
      ]}
    />
  );
}
