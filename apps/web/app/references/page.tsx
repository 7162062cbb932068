import { listReferences } from '@barys/store/registers';
import Link from 'next/link';
import { accuracyWords, rangeWords } from '@/places/references/words';
import { database } from '@/server/database';
import { dueInWords, localDate } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'References' };

export default async function ReferencesPage() {
  const references = await listReferences(database());
  const today = localDate(new Date());
  return (
    <>
      <PageHead
        title="References"
        about="What measurements are compared with: each usable range, how good it is and until when."
      >
        <LinkButton href="/office/export/references" isFile>
          CSV
        </LinkButton>
        <LinkButton href="/references/new">Add a reference</LinkButton>
      </PageHead>
      <Sheet>
        <DataTable
          label="References"
          none="None yet. Add the first, then its ranges and its certificate."
          rows={references}
          keyOf={({ id }) => id}
          columns={[
            [
              'Tag',
              ({ tag }) => (
                <Link prefetch={false} href={`/references/${tag}`}>
                  {tag}
                </Link>
              ),
            ],
            ['What it is', ({ description, name }) => [description, name].filter(Boolean).join(', ')],
            ['Range', (reference) => <Figure>{rangeWords(reference)}</Figure>],
            ['Accuracy', accuracyWords],
            ['State', ({ state, location }) => [state, location].filter(Boolean).join(', ')],
            ['Due', ({ dueOn }) => (dueOn === null ? 'no certificate' : dueInWords(dueOn, today))],
          ]}
        />
      </Sheet>
    </>
  );
}
