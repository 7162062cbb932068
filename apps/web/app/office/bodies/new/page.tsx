import { BodyForm } from '@/places/office/bodies/BodyForm';

export const metadata = { title: 'Add a body' };

export default function NewBodyPage() {
  return <BodyForm body={null} />;
}
