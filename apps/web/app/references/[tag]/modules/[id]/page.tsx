import { notFound } from 'next/navigation';
import { ModuleForm } from '@/places/references/ReferenceForms';
import { loadStandard } from '@/places/references/load';

export const metadata = { title: 'A range of a reference' };

export default async function ModulePage({ params }: { params: Promise<{ tag: string; id: string }> }) {
  const standard = await loadStandard(params);
  const { id } = await params;
  if (id === 'new') return <ModuleForm standard={standard} module={null} />;
  const range = standard.modules.find((one) => String(one.id) === id);
  if (range === undefined) notFound();
  return <ModuleForm standard={standard} module={range} />;
}
