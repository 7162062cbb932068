import { findStandard } from '@barys/store/registers';
import { loadAddress } from '@/places/references/address/load';
import { database } from '@/server/database';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';

/** What came of the last trial of a reference at its bench. */
export async function GET(
  _request: Request,
  { params }: { params: Promise<{ tag: string }> },
): Promise<Response> {
  try {
    await requireReader();
    const { seen } = await loadAddress(await findStandard(database(), (await params).tag));
    return Response.json(seen, { headers: { 'cache-control': 'no-store, no-transform' } });
  } catch (error) {
    return problemResponse(error);
  }
}
