/** What a list shows, as the query part of its address. */
import { listQuerySchema, type ListQuery } from '@barys/store/shapes';

export type ListView = ListQuery & { readonly columns: string };

export function readListAddress(given: Readonly<Record<string, string | string[] | undefined>>): ListView {
  const { columns } = given;
  return {
    ...listQuerySchema.parse(given),
    columns: typeof columns === 'string' && columns.length <= 300 ? columns : '',
  };
}

/** What differs from the usual list, so that addresses stay short. */
export function listAddress(view: ListView): string {
  const usual = readListAddress({});
  const differing = Object.entries(view).filter(([name, value]) => value !== usual[name as keyof ListView]);
  return new URLSearchParams(differing.map(([name, value]) => [name, String(value)])).toString();
}
