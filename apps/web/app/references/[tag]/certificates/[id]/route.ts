import { fileOfCertificate } from '@barys/store/registers';
import { database } from '@/server/database';
import { problemResponse } from '@/server/problem';
import { routeId } from '@/server/routeId';
import { requireReader } from '@/server/person';

/** The file of a certificate, as it was attached; never shown by the browser itself. */
export async function GET(
  _request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  try {
    await requireReader();
    const id = await routeId(params);
    const { name, bytes } = await fileOfCertificate(database(), id);
    return new Response(new Uint8Array(bytes), {
      headers: {
        'content-type': 'application/octet-stream',
        'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
        'cache-control': 'private, no-store',
      },
    });
  } catch (error) {
    return problemResponse(error);
  }
}
