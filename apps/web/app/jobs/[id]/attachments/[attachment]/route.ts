import { fileOfAttachment } from '@barys/store/jobs';
import { z } from 'zod';
import { database } from '@/server/database';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';

const ids = z.object({
  id: z.coerce.number().int().positive(),
  attachment: z.coerce.number().int().positive(),
});

/** A photograph or a scan of a job; shown in the page where it is a picture. */
export async function GET(
  _request: Request,
  { params }: { params: Promise<{ id: string; attachment: string }> },
): Promise<Response> {
  try {
    await requireReader();
    const { id, attachment } = ids.parse(await params);
    const { name, mediaType, bytes } = await fileOfAttachment(database(), id, attachment);
    const how = mediaType === 'application/pdf' ? 'attachment' : 'inline';
    return new Response(new Uint8Array(bytes), {
      headers: {
        'content-type': mediaType,
        'content-disposition': `${how}; filename*=UTF-8''${encodeURIComponent(name)}`,
        'cache-control': 'private, no-store',
      },
    });
  } catch (error) {
    return problemResponse(error);
  }
}
