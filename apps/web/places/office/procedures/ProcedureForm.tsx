'use client';
import type { ProcedureVersion } from '@barys/store/registers';
import Button from '@mui/material/Button';
import { Draft } from '@/ui/Draft';
import { FieldGrid, unplaced } from '@/ui/FieldGrid';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useSubmit } from '@/ui/useSubmit';
import { useTyped } from '@/ui/useTyped';
import { keepProcedureAction } from './actions';
import { fieldsOfProcedure, PROCEDURE_FIELDS, PROCEDURE_SPECS, PROCEDURE_SPECS_UNBANDED } from './fields';

/** A new procedure, or the next version of one. */
export function ProcedureForm({
  procedure,
}: {
  procedure: { readonly id: number; readonly name: string; readonly newest: ProcedureVersion } | null;
}) {
  const edited = procedure === null ? null : { id: procedure.id, version: procedure.newest.version };
  const [fields, change, draft] = useTyped(
    procedure === null ? PROCEDURE_FIELDS : fieldsOfProcedure(procedure.name, procedure.newest),
    edited === null ? 'procedure' : `procedure ${edited.id} ${edited.version}`,
  );
  const { answer, isPending, form } = useSubmit(keepProcedureAction);
  const isBanded = fields.rule === 'guard-band';
  const specs = isBanded ? PROCEDURE_SPECS : PROCEDURE_SPECS_UNBANDED;
  return (
    <form {...form(() => ({ edited, fields }), draft.forget)}>
      <Sheet
        title={procedure === null ? 'A new procedure' : `Version ${procedure.newest.version + 1}`}
        aside="In force for the next run; runs already begun keep their copy."
      >
        <Draft draft={draft} />
        <FieldGrid specs={specs} fields={fields} change={change} answer={answer} />
        <Button type="submit" variant="contained" aria-busy={isPending} sx={{ mt: 1.5 }}>
          {procedure === null ? 'Add the procedure' : 'Put this version in force'}
        </Button>
        <Refused answer={unplaced(specs, answer)} />
      </Sheet>
    </form>
  );
}
