import { formatPlain } from '@barys/core/text';
import { listLiquids } from '@barys/store/registers';
import Link from 'next/link';
import { database } from '@/server/database';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Liquids' };

export default async function LiquidsPage() {
  return (
    <>
      <PageHead
        title="Liquids"
        about="Densities by temperature, for the ranges of levels. Water is worked out by IAPWS-IF97 and needs no entry."
      >
        <LinkButton href="/office/liquids/new">Add a liquid</LinkButton>
      </PageHead>
      <Sheet>
        <DataTable
          label="Liquids"
          rows={await listLiquids(database())}
          keyOf={({ id }) => id}
          columns={[
            [
              'Name',
              ({ id, name }) => (
                <Link prefetch={false} href={`/office/liquids/${id}`}>
                  {name}
                </Link>
              ),
            ],
            [
              'Temperatures, °C',
              ({ points }) => (
                <Figure>{`${formatPlain(points[0]?.temperatureC ?? 0)} … ${formatPlain(points.at(-1)?.temperatureC ?? 0)}`}</Figure>
              ),
            ],
            [
              'Densities, kg/m³',
              ({ points }) => (
                <Figure>{`${formatPlain(points[0]?.densityKgPerM3 ?? 0)} … ${formatPlain(points.at(-1)?.densityKgPerM3 ?? 0)}`}</Figure>
              ),
            ],
            ['From', ({ source }) => source],
          ]}
        />
      </Sheet>
    </>
  );
}
