/**
 * What the plain server answers before Next: readings, which people wait for between two digits. Next takes some 8 ms of
 * processor time for a request of any kind, three times what keeping a reading takes. Bundled beside the application; the
 * guards and the act are those of Next's own route.
 */
import { StoreError } from '@barys/store/db';
import { personOfToken, type Actor, type Person } from '@barys/store/people';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { json } from 'node:stream/consumers';
import { keepReadings } from './places/jobs/run/keepReadings';
import { askedOfNode, programToken, type Asked } from './server/asked';
import { database } from './server/database';
import { DATA_POLICY, guard, secure } from './server/guards';
import { moment } from './server/moment';

const READINGS = /^\/api\/v1\/runs\/([^/]+)\/readings$/;

async function actorOf(asked: Asked, person: Person | null): Promise<Actor> {
  const token = programToken(asked);
  const who = token === null ? person : await personOfToken(database(), token, 'write', new Date());
  if (who === null) throw new StoreError({ code: 'unknown-person' });
  return { personId: who.id, ...moment(), via: token === null ? 'session' : 'program' };
}

async function answer(request: IncomingMessage, asked: Asked, runId: string): Promise<Response> {
  const seen = await guard(asked);
  if (seen.refused !== null) return seen.refused;
  const response = await keepReadings(
    runId,
    () => json(request),
    () => actorOf(asked, seen.person),
  );
  secure(response.headers);
  response.headers.set('content-security-policy', DATA_POLICY);
  return response;
}

/** Answers what is answered here. @returns null where the request is Next's */
export function answerSoon(request: IncomingMessage, response: ServerResponse): Promise<void> | null {
  const path = request.url?.split('?')[0] ?? '';
  const runId = request.method === 'POST' ? READINGS.exec(path)?.[1] : undefined;
  if (runId === undefined) return null;
  return answer(request, askedOfNode(request), runId).then(async (answered) => {
    const text = await answered.text();
    response.writeHead(answered.status, {
      ...Object.fromEntries(answered.headers),
      'content-length': Buffer.byteLength(text),
    });
    response.end(text);
  });
}
