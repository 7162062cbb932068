'use client';
/** Where a reading is typed. Digits and Enter are all that a normal point needs. */
import type { MadeWith } from '@barys/store/runs';
import Box from '@mui/material/Box';
import Popper from '@mui/material/Popper';
import type { ClipboardEvent, KeyboardEvent, RefObject } from 'react';
import { Figure } from '@/ui/Figure';
import { pointWords, type Figures } from '@/ui/figures';
import { columnLabel, columnName } from '../columnWords';
import { textOfColumn, unitOfColumn, type Column } from './columns';
import type { Hand } from './HandKeys';
import type { Draft } from './keep';
import { pointKey } from './pointKeys';
import { usePointFields, type PointFields } from './usePointFields';
import type { Doubt } from './useRunEntry';

const inputStyle = (isWrong: boolean) => ({
  font: 'inherit',
  width: '100%',
  minWidth: 0,
  color: 'var(--ink)',
  backgroundColor: 'var(--sheet)',
  border: `2px solid ${isWrong ? 'var(--outside)' : 'var(--ink)'}`,
  borderRadius: 2,
  padding: '2px 6px',
});

interface ReadingFieldProps {
  point: MadeWith['points'][number];
  madeWith: MadeWith;
  draft: Draft;
  figures: Figures;
  /** A question about what was entered; entered once more it is taken as it is. */
  doubt: Pick<Doubt, 'column' | 'words'> | null;
  onDraft: (draft: Draft) => void;
  /** Takes what is typed, its units taken off; answers in words where it cannot be. */
  onEnter: (draft: Draft) => string | null;
  onMove: (step: 1 | -1) => void;
  onColumn: (text: string) => void;
  /** A letter that is a command and no digit. */
  onLetter: (letter: string) => boolean;
  /** Where the buttons for a hand without a keyboard find this field. */
  hand: RefObject<Hand | null>;
}

export function ReadingField(props: ReadingFieldProps) {
  const { doubt } = props;
  const fields = usePointFields(props);
  const { columns, wrong } = fields;
  return (
    <Box sx={{ px: { sm: 0.25 }, width: { xs: 150, sm: 'auto' } }}>
      {fields.isAppliedOpen && <AppliedInput {...props} fields={fields} />}
      {columns.map((column) => {
        const input = <ColumnInput key={column} {...props} column={column} fields={fields} />;
        return column === 'output' && columns.length === 1 ? (
          <Figure key={column} sx={{ fontSize: { xs: 22, sm: 20, md: 24 }, fontWeight: 700 }}>
            {input}
          </Figure>
        ) : (
          <Labelled key={column} text={columnLabel(props.madeWith, column)}>
            {input}
          </Labelled>
        );
      })}
      <Popper
        open={wrong !== null || doubt !== null}
        anchorEl={() => fields.elementOf(wrong?.at ?? doubt?.column ?? 'output') ?? document.body}
        placement="bottom-start"
        sx={{ zIndex: 2 }}
      >
        <Box
          id="reading-wrong"
          role="alert"
          sx={{
            maxWidth: 300,
            mt: 0.5,
            p: 1,
            fontSize: 14,
            textAlign: 'left',
            bgcolor: 'var(--sheet)',
            border: `2px solid ${wrong === null ? 'var(--now)' : 'var(--outside)'}`,
          }}
        >
          {wrong?.why ?? doubt?.words}
        </Box>
      </Popper>
    </Box>
  );
}

type InputProps = ReadingFieldProps & { readonly fields: PointFields };

/** The applied value, where it is read and not set. */
function AppliedInput({ point, madeWith, draft, figures, onDraft, fields }: InputProps) {
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter' || event.key === 'ArrowDown') {
      event.preventDefault();
      fields.focusFirst();
    } else if (event.key === 'Escape') fields.closeApplied();
  };
  return (
    <Labelled text={`Applied, ${figures.inputUnit}`}>
      <input
        ref={(element) => fields.keep('applied', element)}
        aria-label={`Applied value at ${pointWords(point)}, in ${figures.inputUnit}`}
        inputMode="decimal"
        autoComplete="off"
        value={draft.applied ?? figures.input(point.nominalApplied - madeWith.head)}
        onChange={(event) => onDraft({ ...draft, applied: event.target.value })}
        onKeyDown={onKeyDown}
        style={inputStyle(fields.wrong?.at === 'applied')}
      />
    </Labelled>
  );
}

/** The unit of a column in words; of a second indication as it was typed. */
function unitInWords(madeWith: MadeWith, figures: Figures, column: Column): string {
  if (column === 'digital') return figures.inputUnit;
  return column === 'second' ? unitOfColumn(madeWith, column) : figures.outputUnit;
}

/** One column of the point: the reading, or what is read beside it. */
function ColumnInput(props: InputProps & { readonly column: Column }) {
  const { point, madeWith, draft, figures, doubt, fields, column } = props;
  const text = textOfColumn(draft, column);
  const unit = unitInWords(madeWith, figures, column);
  const isWrong = fields.wrong?.at === column;
  const onKeyDown = (event: KeyboardEvent) => {
    const asked = pointKey(event, text.trim() === '');
    if (asked === null) return;
    if ('letter' in asked) {
      if (props.onLetter(asked.letter)) event.preventDefault();
      return;
    }
    event.preventDefault();
    if (asked.act === 'enter') fields.enter(column);
    else if (asked.act === 'applied') fields.openApplied();
    else props.onMove(asked.act === 'down' ? 1 : -1);
  };
  const onPaste = (event: ClipboardEvent) => {
    const pasted = event.clipboardData.getData('text');
    if (!/[\n\t]/.test(pasted.trim())) return;
    event.preventDefault();
    props.onColumn(pasted);
  };
  return (
    <input
      ref={(element) => fields.keep(column, element)}
      aria-label={`${columnName(props.madeWith, column)} at ${pointWords(point)}${unit === '' ? '' : `, in ${unit}`}`}
      aria-invalid={isWrong}
      aria-describedby={fields.wrong === null && doubt === null ? undefined : 'reading-wrong'}
      inputMode="decimal"
      autoComplete="off"
      enterKeyHint="next"
      value={text}
      onChange={(event) => fields.write(column, event.target.value)}
      onKeyDown={onKeyDown}
      onPaste={onPaste}
      style={inputStyle(isWrong)}
    />
  );
}

function Labelled({ text, children }: { text: string; children: React.ReactNode }) {
  return (
    <Box component="label" sx={{ display: 'block', fontSize: 13, textAlign: 'left', mb: 0.25 }}>
      {text}
      <Figure sx={{ fontSize: 16, fontWeight: 700 }}>{children}</Figure>
    </Box>
  );
}
