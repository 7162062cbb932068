import { database } from '@/server/database';
import { problemResponse } from '@/server/problem';

export const dynamic = 'force-dynamic';

export async function GET(): Promise<Response> {
  try {
    await database().query('select 1');
    return Response.json({ status: 'ready' });
  } catch (error) {
    return problemResponse(error);
  }
}
