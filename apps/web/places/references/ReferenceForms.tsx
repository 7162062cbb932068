'use client';
import type { NewModule, Standard } from '@barys/store/registers';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { Draft } from '@/ui/Draft';
import { FieldGrid, unplaced, type FieldSpec } from '@/ui/FieldGrid';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import { useTyped } from '@/ui/useTyped';
import {
  addCertificateAction,
  addFindingAction,
  addReferenceAction,
  changeReferenceAction,
  keepModuleAction,
} from './actions';
import {
  CERTIFICATE_FIELDS,
  CERTIFICATE_SPECS,
  fieldsOfModule,
  fieldsOfStandard,
  FINDING_FIELDS,
  FINDING_SPECS,
  MODULE_FIELDS,
  MODULE_SPECS,
  resultsField,
  resultsSpec,
  type CertifiedRange,
  STANDARD_FIELDS,
  STANDARD_SPECS,
  type StandardFields,
} from './fields';

/** A reference to enter, or to change; its tag stays, since its runs are found by it. */
export function StandardForm({ standard }: { standard: Standard | null }) {
  const [fields, change, draft] = useTyped(
    standard === null ? STANDARD_FIELDS : fieldsOfStandard(standard),
    standard === null ? 'reference' : `reference ${standard.id} ${standard.revision}`,
  );
  const { answer, isPending, form } = useSubmit((entry: StandardFields) =>
    standard === null
      ? addReferenceAction({ fields: entry })
      : changeReferenceAction({
          id: standard.id,
          revision: standard.revision,
          tag: standard.tag,
          fields: entry,
        }),
  );
  const specs = STANDARD_SPECS.filter(({ name }) => standard === null || name !== 'tag');
  return (
    <form {...form(() => fields, draft.forget)}>
      <Sheet title={standard === null ? 'A new reference' : `Change ${standard.tag}`}>
        <Draft draft={draft} />
        <FieldGrid specs={specs} fields={fields} change={change} answer={answer} />
        <Button type="submit" variant="contained" aria-busy={isPending} sx={{ mt: 1.5 }}>
          {standard === null ? 'Add the reference' : 'Keep the changes'}
        </Button>
        <Refused answer={unplaced(specs, answer)} />
      </Sheet>
    </form>
  );
}

export function ModuleForm({
  standard,
  module,
}: {
  standard: Pick<Standard, 'id' | 'tag'>;
  module: (NewModule & { readonly id: number }) | null;
}) {
  const [fields, change, draft] = useTyped(
    module === null ? MODULE_FIELDS : fieldsOfModule(module),
    `range of ${standard.id} ${module?.id ?? 'new'}`,
  );
  const { answer, isPending, form } = useSubmit(keepModuleAction);
  return (
    <form
      {...form(
        () => ({ standardId: standard.id, moduleId: module?.id ?? null, tag: standard.tag, fields }),
        draft.forget,
      )}
    >
      <Sheet
        title={module === null ? `A range of ${standard.tag}` : `Change a range of ${standard.tag}`}
        aside="The accuracy is the sum of its terms."
      >
        <Draft draft={draft} />
        <FieldGrid specs={MODULE_SPECS} fields={fields} change={change} answer={answer} />
        <Button type="submit" variant="contained" aria-busy={isPending} sx={{ mt: 1.5 }}>
          {module === null ? 'Add the range' : 'Keep the changes'}
        </Button>
        <Refused answer={unplaced(MODULE_SPECS, answer)} />
      </Sheet>
    </form>
  );
}

export function CertificateForm({
  standard,
  modules,
}: {
  standard: number;
  modules: readonly CertifiedRange[];
}) {
  const specs: readonly FieldSpec[] = [...CERTIFICATE_SPECS, ...modules.map(resultsSpec)];
  const [fields, change, draft] = useTyped<Readonly<Record<string, string>>>(
    {
      ...CERTIFICATE_FIELDS,
      ...Object.fromEntries(modules.map((range) => [resultsField(range), ''])),
    },
    `certificate of ${standard}`,
  );
  const { answer, isPending, form } = useSubmit(addCertificateAction);
  return (
    <form {...form(asItStands, draft.forget)}>
      <input type="hidden" name="standard" value={standard} />
      <Draft draft={draft} />
      <FieldGrid specs={specs} fields={fields} change={change} answer={answer} />
      <Stack direction="row" sx={{ mt: 1.5, gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <label>
          File of the certificate{' '}
          <input type="file" name="file" style={{ minHeight: 44, maxWidth: '100%' }} />
        </label>
        <Button type="submit" variant="outlined" aria-busy={isPending}>
          Enter the certificate
        </Button>
      </Stack>
      <Refused answer={unplaced(specs, answer)} />
    </form>
  );
}

/** A reference that was found to read wrongly. */
export function FindingForm({
  tag,
  modules,
}: {
  tag: string;
  modules: readonly { readonly id: number; readonly words: string }[];
}) {
  const [{ module, ...fields }, change, draft] = useTyped(
    { ...FINDING_FIELDS, module: String(modules[0]?.id ?? 0) },
    `finding of ${tag}`,
  );
  const { answer, isPending, form } = useSubmit(addFindingAction);
  return (
    <form {...form(() => ({ moduleId: Number(module), tag, fields }), draft.forget)}>
      <Draft draft={draft} />
      {modules.length > 1 && (
        <TextField
          select
          label="Range"
          value={module}
          onChange={(event) => change({ module: event.target.value })}
          fullWidth
          sx={{ mb: 1.5 }}
        >
          {modules.map(({ id, words }) => (
            <MenuItem key={id} value={String(id)}>
              {words}
            </MenuItem>
          ))}
        </TextField>
      )}
      <FieldGrid specs={FINDING_SPECS} fields={fields} change={change} answer={answer} />
      <Button type="submit" variant="outlined" aria-busy={isPending} sx={{ mt: 1.5 }}>
        Enter it and see the runs
      </Button>
      <Refused answer={unplaced(FINDING_SPECS, answer)} />
    </form>
  );
}
