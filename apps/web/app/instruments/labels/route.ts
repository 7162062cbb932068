import { instrumentsOf } from '@barys/store/registers';
import { z } from 'zod';
import { renderLabels } from '@/pdf/labels/render';
import { codeOf, originOf } from '@/server/codes';
import { database } from '@/server/database';
import { requireReader } from '@/server/person';
import { pdfResponse, problemResponse } from '@/server/problem';

const query = z.object({
  ids: z
    .string()
    .transform((text) => text.split('.').map(Number))
    .pipe(z.array(z.number().int().positive()).min(1).max(1000, 'At most 1000 labels at once.')),
  sheet: z.enum(['a4', 'single']).catch('a4'),
});

/** Labels of the instruments `?ids=1.2.3` as PDF, in the order of the walk; `&sheet=single` puts each on its own page. */
export async function GET(request: Request): Promise<Response> {
  try {
    await requireReader();
    const url = new URL(request.url);
    const { ids, sheet } = query.parse(Object.fromEntries(url.searchParams));
    const instruments = await instrumentsOf(database(), ids);
    const origin = originOf(request);
    const entries = await Promise.all(
      instruments.map(async (instrument) => ({
        instrument,
        code: await codeOf(`${origin}/instruments/${encodeURIComponent(instrument.tag)}`),
      })),
    );
    const pdf = await renderLabels(entries, sheet);
    return pdfResponse(pdf, entries.length === 1 ? `label-${entries[0]?.instrument.tag}.pdf` : 'labels.pdf');
  } catch (error) {
    return problemResponse(error);
  }
}
