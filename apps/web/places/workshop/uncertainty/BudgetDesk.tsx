'use client';
import type { Limits } from '@barys/core/conformity';
import { CoreError } from '@barys/core/errors';
import { uncertaintyBudget, type Budget, type BudgetModel } from '@barys/core/uncertainty';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useDeferredValue, useEffect } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { Columns } from '@/ui/Columns';
import { Sheet } from '@/ui/Sheet';
import { useIsMounted } from '@/ui/useIsMounted';
import { BudgetForm, type Wrong } from './BudgetForm';
import { BudgetResult } from './BudgetResult';
import { EXAMPLES } from './examples';
import { limitsOf, modelOf, probabilityOf, type BudgetFields } from './fields';
import { keepBudget, keptBudget } from './keep';
import { RiskSheet } from './RiskSheet';
import { TrialsSheet } from './TrialsSheet';

interface Computed {
  readonly model: BudgetModel;
  readonly probability: number;
  readonly limits: Limits;
  /** Null where the law of propagation has no answer, with the reason in `wrong`. */
  readonly budget: Budget | null;
}

function compute(fields: BudgetFields): { got: Computed | null; wrong: Wrong | null } {
  let got: Computed | null = null;
  try {
    const [model, probability, limits] = [modelOf(fields), probabilityOf(fields), limitsOf(fields)];
    got = { model, probability, limits, budget: null };
    return { got: { ...got, budget: uncertaintyBudget(model, { probability }) }, wrong: null };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { got, wrong: { field: error.field ?? 'model', message: error.message } };
  }
}

/** What was typed last time comes back; only the browser knows it, so the desk is built there. */
export function BudgetDesk() {
  const isMounted = useIsMounted();
  const [first] = EXAMPLES;
  const initial = isMounted ? (keptBudget() ?? first) : undefined;
  return initial === undefined ? <Sheet title="Budget">{null}</Sheet> : <Desk initial={initial} />;
}

function Desk({ initial }: { initial: BudgetFields }) {
  const form = useForm<BudgetFields>({ defaultValues: initial });
  const { control } = form;
  const fields = useWatch({ control }) as BudgetFields;
  useEffect(() => keepBudget(fields), [fields]);
  // What is typed is shown first, and what follows from it when there is time.
  const { got, wrong } = compute(useDeferredValue(fields));
  return (
    <Columns columns="1.35fr 1fr">
      <Stack sx={{ gap: 1.5 }}>
        <BudgetForm form={form} wrong={wrong} />
        <TrialsSheet tried={got} />
      </Stack>
      <Stack sx={{ gap: 1.5 }}>
        {got?.budget == null ? (
          <Sheet title="Result">
            <Typography role="alert" sx={{ color: 'var(--outside)', fontWeight: 600 }}>
              {wrong?.message}
            </Typography>
          </Sheet>
        ) : (
          <>
            <BudgetResult budget={got.budget} model={got.model} />
            {got.budget.combined > 0 && <RiskSheet budget={got.budget} limits={got.limits} />}
          </>
        )}
      </Stack>
    </Columns>
  );
}
