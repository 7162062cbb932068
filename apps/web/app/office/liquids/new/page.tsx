import { LiquidForm } from '@/places/office/liquids/LiquidForm';

export const metadata = { title: 'Add a liquid' };

export default function NewLiquidPage() {
  return <LiquidForm liquid={null} />;
}
