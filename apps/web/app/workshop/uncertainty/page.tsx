import { BudgetDesk } from '@/places/workshop/uncertainty/BudgetDesk';

export const metadata = { title: 'Uncertainty' };

export default function UncertaintyPage() {
  return <BudgetDesk />;
}
