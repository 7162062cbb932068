import { PersonForm } from '@/people/PersonForm';

export const metadata = { title: 'Add a person' };

export default function NewPersonPage() {
  return <PersonForm person={null} />;
}
