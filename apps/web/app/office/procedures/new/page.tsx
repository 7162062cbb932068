import { ProcedureForm } from '@/places/office/procedures/ProcedureForm';

export const metadata = { title: 'Add a procedure' };

export default function NewProcedurePage() {
  return <ProcedureForm procedure={null} />;
}
