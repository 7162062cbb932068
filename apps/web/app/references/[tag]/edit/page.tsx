import { StandardForm } from '@/places/references/ReferenceForms';
import { loadStandard, type Params } from '@/places/references/load';

export const metadata = { title: 'Change a reference' };

export default async function EditReferencePage({ params }: { params: Params }) {
  return <StandardForm standard={await loadStandard(params)} />;
}
