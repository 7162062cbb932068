import { COLUMNS, openImport } from '@barys/store/imports';
import { ImportDesk } from '@/places/office/imports/ImportDesk';
import { database } from '@/server/database';
import { orNotFound, pageId } from '@/server/orNotFound';
import { PageHead } from '@/ui/PageHead';

export const metadata = { title: 'Import a file' };

const DELIMITERS: Record<string, string> = { ';': 'semicolons', ',': 'commas', '\t': 'tabs', '|': 'bars' };

export default async function ImportFilePage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const opened = await orNotFound(() => openImport(database(), pageId(id)));
  const { file, encoding, delimiter, header, rowCount, sample, choice } = opened;
  return (
    <>
      <PageHead
        title={`Import ${file.kind}`}
        about={`${file.name}: ${rowCount.toLocaleString('en')} rows, ${DELIMITERS[delimiter] ?? delimiter}, ${encoding}${file.importedAt === null ? '' : '; imported before'}`}
      />
      <ImportDesk
        id={file.id}
        columns={COLUMNS[file.kind]}
        header={header}
        sample={sample}
        initial={{
          mapping: { ...choice.mapping },
          answers: { dateOrder: choice.answers.dateOrder, units: { ...choice.answers.units } },
        }}
      />
    </>
  );
}
