import { openApiDocument } from '@/compute/openapi';

export const dynamic = 'force-static';

export function GET(): Response {
  return Response.json(openApiDocument());
}
