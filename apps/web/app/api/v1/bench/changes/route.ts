import { StoreError } from '@barys/store/db';
import { cookies } from 'next/headers';
import { z } from 'zod';
import { SESSION_COOKIE } from '@/server/asked';
import { benchChanges } from '@/server/notices';
import { requireReader } from '@/server/person';
import { notNow } from '@/server/problem-details';
import { problemResponse } from '@/server/problem';

const asked = z.object({ bench: z.coerce.number().int().positive() });

/** Says that something changed at a bench, as long as a page listens; what it is, the page asks. */
export async function GET(request: Request): Promise<Response> {
  try {
    await requireReader();
    const session = (await cookies()).get(SESSION_COOKIE)?.value;
    if (session === undefined) throw new StoreError({ code: 'unknown-person' });
    const { bench } = asked.parse(Object.fromEntries(new URL(request.url).searchParams));
    return (
      benchChanges(bench, session, request.signal) ??
      notNow('Too many pages listen. This one asks now and then.')
    );
  } catch (error) {
    return problemResponse(error);
  }
}
