'use server';
/** What a person does to the register of references. */
import {
  addCertificate,
  addFinding,
  addStandard,
  certificateSchema,
  changeStandard,
  decideFindingFor,
  releaseReference,
  DECISIONS,
  findingSchema,
  keepModule,
  moduleSchema,
  standardSchema,
} from '@barys/store/registers';
import { z } from 'zod';
import { act, thenGo, thenStay } from '@/server/act';
import type { Answer } from '@/server/answer';
import { textsOf } from '@/server/texts';
import { typedNumber } from '@/ui/readNumber';
import {
  CERTIFICATE_FIELDS,
  FINDING_FIELDS,
  findingOfFields,
  MODULE_FIELDS,
  moduleOfFields,
  resultsOfForm,
  STANDARD_FIELDS,
  type FindingFields,
  type ModuleFields,
  type StandardFields,
} from './fields';

const key = z.number().int().positive();
const pageOf = (tag: string): string => `/references/${encodeURIComponent(tag)}`;

export async function addReferenceAction(entry: { fields: StandardFields }): Promise<Answer> {
  return thenGo(async () => {
    const standard = standardSchema.parse(textsOf(STANDARD_FIELDS).parse(entry.fields));
    await act((tx, actor) => addStandard(tx, actor, standard));
    return pageOf(standard.tag);
  });
}

export async function changeReferenceAction(entry: {
  id: number;
  revision: number;
  tag: string;
  fields: StandardFields;
}): Promise<Answer> {
  return thenGo(async () => {
    const { tag, ...rest } = standardSchema.parse(textsOf(STANDARD_FIELDS).parse(entry.fields));
    const edited = { id: key.parse(entry.id), revision: key.parse(entry.revision), tag };
    await act((tx, actor) => changeStandard(tx, actor, edited, rest));
    return pageOf(tag);
  });
}

export async function keepModuleAction(entry: {
  standardId: number;
  moduleId: number | null;
  tag: string;
  fields: ModuleFields;
}): Promise<Answer> {
  return thenGo(async () => {
    const range = moduleSchema.parse(moduleOfFields(textsOf(MODULE_FIELDS).parse(entry.fields)));
    await act((tx, actor) =>
      keepModule(tx, actor, key.parse(entry.standardId), key.nullable().parse(entry.moduleId), range),
    );
    return pageOf(z.string().parse(entry.tag));
  });
}

const LARGEST_FILE = 10 * 1024 * 1024;

/** Enters a certificate from a form, which may bring its file. */
export async function addCertificateAction(form: FormData): Promise<Answer> {
  return thenStay(async () => {
    const fields = textsOf(CERTIFICATE_FIELDS).parse(Object.fromEntries(form));
    const certificate = certificateSchema.parse({
      ...fields,
      uncertaintyPercentOfRange: typedNumber(fields.uncertaintyPercentOfRange),
      results: resultsOfForm(form),
    });
    const file = form.get('file');
    const attached = file instanceof File && file.size > 0 ? file : null;
    if (attached !== null && attached.size > LARGEST_FILE)
      throw new z.ZodError([
        { code: 'custom', path: ['file'], message: 'The file is larger than 10 MB.', input: '' },
      ]);
    const bytes = attached && {
      name: attached.name.slice(0, 200),
      bytes: Buffer.from(await attached.arrayBuffer()),
    };
    const standardId = z.coerce.number().int().positive().parse(form.get('standard'));
    await act((tx, actor) => addCertificate(tx, actor, standardId, certificate, bytes));
  });
}

export async function addFindingAction(entry: {
  moduleId: number;
  tag: string;
  fields: FindingFields;
}): Promise<Answer> {
  return thenGo(async () => {
    const finding = findingSchema.parse(findingOfFields(textsOf(FINDING_FIELDS).parse(entry.fields)));
    const id = await act((tx, actor) => addFinding(tx, actor, key.parse(entry.moduleId), finding));
    return `${pageOf(z.string().parse(entry.tag))}/findings/${id}`;
  });
}

export async function releaseReferenceAction(form: FormData): Promise<Answer> {
  return thenStay(async () => {
    const { finding, reason } = z
      .object({ finding: z.coerce.number().int().positive(), reason: z.string().max(500) })
      .parse(Object.fromEntries(form));
    await act((tx, actor) => releaseReference(tx, actor, finding, reason));
  });
}

export async function decideFindingAction(entry: {
  finding: number;
  runs: readonly number[];
  decision: string;
  remark: string;
}): Promise<Answer> {
  return thenStay(() =>
    act((tx, actor) =>
      decideFindingFor(tx, actor, key.parse(entry.finding), {
        runIds: z.array(key).max(500).parse(entry.runs),
        decision: z.enum(DECISIONS).parse(entry.decision),
        remark: z.string().max(500, 'At most 500 characters, please.').parse(entry.remark),
      }),
    ),
  );
}
