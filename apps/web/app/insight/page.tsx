import { redirect } from 'next/navigation';

export default function InsightPage(): never {
  redirect('/insight/intervals');
}
