import SwaggerParser from '@apidevtools/swagger-parser';
import { beforeAll, describe, expect, it } from 'vitest';
import { pathOf } from './answer';
import { CALCULATIONS } from './index';
import { openApiDocument } from './openapi';
import { GOOD } from './test/good';
import { at, post } from './test/parts';

describe('every calculation', () => {
  it('has a request here', () => {
    expect(Object.keys(GOOD).sort()).toEqual([...CALCULATIONS.keys()].sort());
  });

  it.each(Object.entries(GOOD))('%s answers as its schema says', async (name, [request, figure, value]) => {
    const answer = await post(name, request);
    expect(answer.body).not.toHaveProperty('errors');
    expect(answer.status).toBe(200);
    expect(at(answer.body, figure)).toEqual(value);
    const parsed = CALCULATIONS.get(name)?.output.safeParse(answer.body);
    expect(parsed?.error?.issues).toBeUndefined();
    // An answer may not hold more than is described either.
    expect(parsed?.data).toEqual(answer.body);
  });
});

describe('the description', () => {
  let document: Awaited<ReturnType<typeof SwaggerParser.validate>>;
  beforeAll(async () => {
    document = await SwaggerParser.validate(JSON.parse(JSON.stringify(openApiDocument())) as never);
  });

  it('is a valid OpenAPI 3.1 document that names every calculation', () => {
    expect(document).toHaveProperty('openapi', '3.1.0');
    expect(Object.keys(document.paths ?? {})).toHaveLength(CALCULATIONS.size);
  });

  it('says of an input which parts are needed', () => {
    const schema = at(
      document,
      'paths./api/v1/compute/convert.post.requestBody.content.application/json.schema',
    );
    expect(schema).toMatchObject({ type: 'object', required: ['value', 'from', 'to'] });
  });
});

it('a field of the core is found where the request wraps it', () => {
  expect(pathOf({ range: { urv: 1 } }, 'urv')).toEqual(['range', 'urv']);
  expect(pathOf({ range: { transferFunction: { kind: 'x' } } }, 'transferFunction.points')).toEqual([
    'range',
    'transferFunction',
    'points',
  ]);
  expect(pathOf({}, 'barometer')).toEqual(['barometer']);
  expect(pathOf(null, 'barometer')).toEqual(['barometer']);
});
