import { StandardForm } from '@/places/references/ReferenceForms';

export const metadata = { title: 'Add a reference' };

export default function NewReferencePage() {
  return <StandardForm standard={null} />;
}
