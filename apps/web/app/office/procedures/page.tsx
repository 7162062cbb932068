import { formatPlain } from '@barys/core/text';
import { listProcedures } from '@barys/store/registers';
import Link from 'next/link';
import { pointsInWords, ruleInWords } from '@/places/office/procedures/words';
import { database } from '@/server/database';
import { DataTable } from '@/ui/DataTable';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Procedures' };

export default async function ProceduresPage() {
  return (
    <>
      <PageHead
        title="Procedures"
        about="How a calibration is done: points, order, settling, limits, questions and cautions."
      >
        <LinkButton href="/office/procedures/new">Add a procedure</LinkButton>
      </PageHead>
      <Sheet>
        <DataTable
          label="Procedures"
          rows={await listProcedures(database())}
          keyOf={({ id }) => id}
          columns={[
            [
              'Name',
              ({ id, name }) => (
                <Link prefetch={false} href={`/office/procedures/${id}`}>
                  {name}
                </Link>
              ),
            ],
            ['Version', ({ version }) => version],
            [
              'Points',
              ({ content }) => `${pointsInWords(content)}${content.isAsFoundOnly ? '; as found only' : ''}`,
            ],
            ['Decided by', ({ content }) => ruleInWords(content.decisionRule)],
            ['Least ratio', ({ content }) => `${formatPlain(content.leastRatio)}:1`],
            ['Instruments', ({ instruments }) => instruments],
          ]}
        />
      </Sheet>
    </>
  );
}
