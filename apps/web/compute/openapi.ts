/** The API described in OpenAPI 3.1, made from the schemas that check its requests. */
import { z } from 'zod';
import { CALCULATIONS_BY_SUBJECT } from './index';
import type { Calculation } from './calculation';

const json = (schema: unknown) => ({ 'application/json': { schema } });

const PROBLEM = {
  type: 'object',
  description: 'Problem details, RFC 9457',
  required: ['type', 'title', 'status', 'detail'],
  properties: {
    type: { type: 'string', format: 'uri' },
    title: { type: 'string' },
    status: { type: 'integer' },
    detail: { type: 'string', description: 'What is wrong and what would be right, in words' },
    field: { type: 'string', description: 'The entry to put right, as range.urv' },
    errors: {
      type: 'array',
      items: {
        type: 'object',
        required: ['detail', 'pointer', 'field'],
        properties: {
          detail: { type: 'string' },
          pointer: { type: 'string', description: 'JSON Pointer into the request, RFC 6901' },
          field: { type: 'string' },
        },
      },
    },
  },
} as const;

/** A schema in place, without the references of its own that a description made of many schemas cannot keep. */
function schemaOf(type: z.ZodType, io: 'input' | 'output'): unknown {
  const { $schema: _dialect, ...schema } = z.toJSONSchema(type, {
    io,
    reused: 'inline',
    metadata: z.registry(),
  });
  return schema;
}

const operation = (subject: string, { name, summary, input, output }: Calculation) => ({
  post: {
    operationId: name,
    summary,
    tags: [subject],
    requestBody: { required: true, content: json(schemaOf(input, 'input')) },
    responses: {
      '200': { description: summary, content: json(schemaOf(output, 'output')) },
      '400': { $ref: '#/components/responses/Problem' },
      '413': { $ref: '#/components/responses/Problem' },
      '422': { $ref: '#/components/responses/Problem' },
      '429': { $ref: '#/components/responses/Problem' },
    },
  },
});

export function openApiDocument() {
  const paths = Object.entries(CALCULATIONS_BY_SUBJECT).flatMap(([subject, calculations]) =>
    calculations.map((one) => [`/api/v1/compute/${one.name}`, operation(subject, one)] as const),
  );
  return {
    openapi: '3.1.0',
    info: {
      title: 'Barys',
      version: '1',
      description:
        'Every calculation of the interface. Units are part of each name or stated; a column of water or mercury always names its reference. ' +
        'A result comes with its working: each step its formula, values and source.',
      license: { name: 'All rights reserved', identifier: 'LicenseRef-Proprietary' },
    },
    servers: [{ url: '/' }],
    tags: Object.keys(CALCULATIONS_BY_SUBJECT).map((name) => ({ name })),
    paths: Object.fromEntries(paths),
    components: {
      responses: {
        Problem: {
          description: 'Nothing was computed',
          content: { 'application/problem+json': { schema: PROBLEM } },
        },
      },
    },
  };
}
