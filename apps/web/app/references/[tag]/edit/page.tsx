import { StandardForm } from '@/references/ReferenceForms';
import { loadStandard, type Params } from '../load';

export const metadata = { title: 'Change a reference' };

export default async function EditReferencePage({ params }: { params: Params }) {
  return <StandardForm standard={await loadStandard(params)} />;
}
