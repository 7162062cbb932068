/**
 * What the plain server answers before Next: readings, which people wait for between two digits, and the words of links, which
 * come several times a second. Next takes some 8 ms of
 * processor time for a request of any kind, three times what keeping a reading takes. Bundled beside the application; the
 * guards and the acts are those of Next's own routes.
 */
import { StoreError } from '@barys/store/db';
import { personOfToken, type Actor, type Person } from '@barys/store/people';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { json } from 'node:stream/consumers';
import { beatOfLink } from './places/bench/beat';
import { keepReadings } from './places/jobs/run/keepReadings';
import { askedOfNode, programToken, type Asked } from './server/asked';
import { database } from './server/database';
import { DATA_POLICY, guard, secure } from './server/guards';
import { moment } from './server/moment';

const BEAT = '/api/v1/link/beat';
const READINGS = /^\/api\/v1\/runs\/([^/]+)\/readings$/;

async function actorOf(asked: Asked, person: Person | null): Promise<Actor> {
  const token = programToken(asked);
  const who = token === null ? person : await personOfToken(database(), token, 'write', new Date());
  if (who === null) throw new StoreError({ code: 'unknown-person' });
  return { personId: who.id, ...moment(), via: token === null ? 'session' : 'program' };
}

type Work = (asked: Asked, person: Person | null) => Promise<Response>;

/** What a request asks for here; null where it is Next's. */
function workOf(request: IncomingMessage): Work | null {
  if (request.method !== 'POST') return null;
  const path = request.url?.split('?')[0] ?? '';
  if (path === BEAT) return (asked) => beatOfLink(programToken(asked), () => json(request));
  const runId = READINGS.exec(path)?.[1];
  if (runId === undefined) return null;
  return (asked, person) =>
    keepReadings(
      runId,
      () => json(request),
      () => actorOf(asked, person),
    );
}

async function answer(asked: Asked, work: Work): Promise<Response> {
  const seen = await guard(asked);
  const response = seen.refused ?? (await work(asked, seen.person));
  secure(response.headers);
  response.headers.set('content-security-policy', DATA_POLICY);
  return response;
}

/** Answers what is answered here. @returns null where the request is Next's */
export function answerSoon(request: IncomingMessage, response: ServerResponse): Promise<void> | null {
  const work = workOf(request);
  if (work === null) return null;
  return answer(askedOfNode(request), work).then(async (answered) => {
    const text = await answered.text();
    response.writeHead(answered.status, {
      ...Object.fromEntries(answered.headers),
      'content-length': Buffer.byteLength(text),
    });
    response.end(text);
  });
}
