'use client';
import type { ProcedureVersion } from '@barys/store/registers';
import Button from '@mui/material/Button';
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
  const [fields, change] = useTyped(
    procedure === null ? PROCEDURE_FIELDS : fieldsOfProcedure(procedure.name, procedure.newest),
  );
  const { answer, isPending, submit } = useSubmit(keepProcedureAction);
  const isBanded = fields.rule === 'guard-band';
  const specs = isBanded ? PROCEDURE_SPECS : PROCEDURE_SPECS_UNBANDED;
  return (
    <form
      method="post"
      onSubmit={(event) => {
        event.preventDefault();
        const edited = procedure === null ? null : { id: procedure.id, version: procedure.newest.version };
        submit({ edited, fields });
      }}
    >
      <Sheet
        title={procedure === null ? 'A new procedure' : `Version ${procedure.newest.version + 1}`}
        aside="In force for the next run; runs already begun keep their copy."
      >
        <FieldGrid specs={specs} fields={fields} change={change} answer={answer} />
        <Button type="submit" variant="contained" aria-busy={isPending} sx={{ mt: 1.5 }}>
          {procedure === null ? 'Add the procedure' : 'Put this version in force'}
        </Button>
        <Refused answer={unplaced(specs, answer)} />
      </Sheet>
    </form>
  );
}
