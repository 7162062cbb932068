import { PersonForm } from '@/places/office/people/PersonForm';

export const metadata = { title: 'Add a person' };

export default function NewPersonPage() {
  return <PersonForm person={null} />;
}
