import { SIGNALS } from '@barys/core/signal';
import { formatPlain } from '@barys/core/text';
import { PRESSURE_UNITS } from '@barys/core/units';
import { listBodies, turndownOf } from '@barys/store/registers';
import Link from 'next/link';
import { database } from '@/server/database';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Bodies' };

export default async function BodiesPage() {
  return (
    <>
      <PageHead
        title="Bodies"
        about="Models that the plant has: what each can be ranged to, and how it is exchanged."
      >
        <LinkButton href="/office/bodies/new">Add a body</LinkButton>
      </PageHead>
      <Sheet>
        <DataTable
          label="Bodies"
          none="None yet. Add the first: instruments are ranged within what their body can do."
          rows={await listBodies(database())}
          keyOf={({ id }) => id}
          columns={[
            [
              'Model',
              ({ id, model }) => (
                <Link prefetch={false} href={`/office/bodies/${id}`}>
                  {model}
                </Link>
              ),
            ],
            ['Kind', ({ kind }) => kind],
            ['Technology', ({ technology }) => technology],
            [
              'Limits',
              ({ lowerRangeLimit, upperRangeLimit, unit }) => (
                <Figure>
                  {formatPlain(lowerRangeLimit)} … {formatPlain(upperRangeLimit)} {PRESSURE_UNITS[unit].label}
                </Figure>
              ),
            ],
            ['Least span', ({ leastSpan }) => <Figure>{formatPlain(leastSpan)}</Figure>],
            ['Turndown', (body) => <Figure>{formatPlain(Number(turndownOf(body).toPrecision(3)))}:1</Figure>],
            ['Outputs', ({ outputs }) => outputs.map((signal) => SIGNALS[signal].label).join(', ')],
          ]}
        />
      </Sheet>
    </>
  );
}
