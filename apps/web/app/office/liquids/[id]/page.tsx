import { findLiquid } from '@barys/store/registers';
import { LiquidForm } from '@/places/office/liquids/LiquidForm';
import { database } from '@/server/database';
import { orNotFound, pageId } from '@/server/orNotFound';
import { PageHead } from '@/ui/PageHead';

export const metadata = { title: 'A liquid' };

export default async function LiquidPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const liquid = await orNotFound(() => findLiquid(database(), pageId(id)));
  return (
    <>
      <PageHead
        title={liquid.name}
        about="Changes are in the trail. Ranges in force are not touched; a level whose liquid has another density shows so on its instrument."
      />
      <LiquidForm key={liquid.revision} liquid={liquid} />
    </>
  );
}
