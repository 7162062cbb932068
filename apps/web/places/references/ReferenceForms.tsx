'use client';
import type { NewModule, Standard } from '@barys/store/registers';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { FieldGrid, unplaced, type FieldSpec } from '@/ui/FieldGrid';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useAct } from '@/ui/useAct';
import { useSubmit } from '@/ui/useSubmit';
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
} from './fields';

/** A reference to enter, or to change; its tag stays, since its runs are found by it. */
export function StandardForm({ standard }: { standard: Standard | null }) {
  const [fields, change] = useTyped(standard === null ? STANDARD_FIELDS : fieldsOfStandard(standard));
  const add = useSubmit(addReferenceAction);
  const edit = useSubmit(changeReferenceAction);
  const { answer, isPending } = standard === null ? add : edit;
  const specs = STANDARD_SPECS.filter(({ name }) => standard === null || name !== 'tag');
  return (
    <form
      method="post"
      onSubmit={(event) => {
        event.preventDefault();
        if (standard === null) add.submit({ fields });
        else edit.submit({ id: standard.id, revision: standard.revision, tag: standard.tag, fields });
      }}
    >
      <Sheet title={standard === null ? 'A new reference' : `Change ${standard.tag}`}>
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
  const [fields, change] = useTyped(module === null ? MODULE_FIELDS : fieldsOfModule(module));
  const { answer, isPending, submit } = useSubmit(keepModuleAction);
  return (
    <form
      method="post"
      onSubmit={(event) => {
        event.preventDefault();
        submit({ standardId: standard.id, moduleId: module?.id ?? null, tag: standard.tag, fields });
      }}
    >
      <Sheet
        title={module === null ? `A range of ${standard.tag}` : `Change a range of ${standard.tag}`}
        aside="The accuracy is the sum of its terms."
      >
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
  const [fields, change] = useTyped<Readonly<Record<string, string>>>({
    ...CERTIFICATE_FIELDS,
    ...Object.fromEntries(modules.map((range) => [resultsField(range), ''])),
  });
  const { answer, isPending, onSubmit } = useAct(addCertificateAction);
  return (
    <form method="post" onSubmit={onSubmit}>
      <input type="hidden" name="standard" value={standard} />
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
  const [fields, change] = useTyped(FINDING_FIELDS);
  const [module, setModule] = useState(modules[0]?.id ?? 0);
  const { answer, isPending, submit } = useSubmit(addFindingAction);
  return (
    <form
      method="post"
      onSubmit={(event) => {
        event.preventDefault();
        submit({ moduleId: module, tag, fields });
      }}
    >
      {modules.length > 1 && (
        <TextField
          select
          label="Range"
          value={String(module)}
          onChange={(event) => setModule(Number(event.target.value))}
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
