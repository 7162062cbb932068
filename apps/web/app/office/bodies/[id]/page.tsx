import { findBody } from '@barys/store/registers';
import { BodyForm } from '@/places/office/bodies/BodyForm';
import { database } from '@/server/database';
import { orNotFound, pageId } from '@/server/orNotFound';
import { PageHead } from '@/ui/PageHead';

export const metadata = { title: 'A body' };

export default async function BodyPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const body = await orNotFound(() => findBody(database(), pageId(id)));
  return (
    <>
      <PageHead
        title={body.model}
        about="Changes are in the trail. Ranges in force are not touched; one that no longer fits shows so on its instrument."
      />
      <BodyForm key={body.revision} body={body} />
    </>
  );
}
