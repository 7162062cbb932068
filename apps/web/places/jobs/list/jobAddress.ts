/** What the list of jobs shows, as the query part of its address. */
import { jobQuerySchema, type JobQuery } from '@barys/store/shapes';

export type JobView = JobQuery & { readonly columns: string };

export function readJobAddress(given: Readonly<Record<string, string | string[] | undefined>>): JobView {
  const { columns } = given;
  return {
    ...jobQuerySchema.parse(given),
    columns: typeof columns === 'string' && columns.length <= 300 ? columns : '',
  };
}

/** What differs from the usual list, so that addresses stay short. */
export function jobAddress(view: JobView): string {
  const usual = readJobAddress({});
  const differing = Object.entries(view).filter(([name, value]) => value !== usual[name as keyof JobView]);
  return new URLSearchParams(differing.map(([name, value]) => [name, String(value)])).toString();
}
