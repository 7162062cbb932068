'use client';
/** Where a reading is typed. Digits and Enter are all that a normal point needs. */
import { CoreError } from '@barys/core/errors';
import type { TypedNumber } from '@barys/core/text';
import type { ExtraColumn, MadeWith } from '@barys/store/runs';
import Box from '@mui/material/Box';
import Popper from '@mui/material/Popper';
import {
  useEffect,
  useImperativeHandle,
  useRef,
  useState,
  type ClipboardEvent,
  type KeyboardEvent,
  type RefObject,
} from 'react';
import { Figure } from '@/ui/Figure';
import { pointWords, type Figures } from '@/ui/figures';
import type { Hand } from './HandKeys';
import type { Draft } from './keep';
import { typedIn } from './typed';
import type { Doubt } from './useRunEntry';

type Column = 'output' | ExtraColumn;

/** What is wrong with a text, in words; null where it is a number. */
function whyNot(text: string, unit: string): string | null {
  try {
    typedIn(text, unit);
    return null;
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return error.message;
  }
}

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

/** The fields of a point in the order they are typed: what shows before a tap comes before what shows after it. */
export const columnsOf = ({ columns }: Pick<MadeWith, 'columns'>): readonly Column[] => [
  ...columns.filter((column) => column === 'before-tap'),
  'output',
  ...columns.filter((column) => column !== 'before-tap'),
];

export function ReadingField({
  point,
  madeWith,
  draft,
  figures,
  doubt,
  onDraft,
  onEnter,
  onMove,
  onColumn,
  onLetter,
  hand,
}: {
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
}) {
  const columns = columnsOf(madeWith);
  const fields = useRef<Partial<Record<Column | 'applied', HTMLInputElement | null>>>({});
  const [isAppliedOpen, setIsAppliedOpen] = useState(draft.applied !== null);
  const [wrong, setWrong] = useState<{ at: Column | 'applied'; why: string } | null>(null);
  const { configuration, secondIndication } = madeWith;
  const inputUnit = configuration.inputUnit;
  const unitOf = (column: Column): string =>
    column === 'digital'
      ? inputUnit
      : column === 'second'
        ? secondIndication === 'own display'
          ? configuration.displayUnit
          : ''
        : configuration.outputUnit;
  const textOf = (column: Column): string =>
    column === 'output' ? draft.output : (draft.more?.[column] ?? '');
  const focus = (field: Column | 'applied') => {
    fields.current[field]?.focus();
    fields.current[field]?.select();
  };

  const [first = 'output'] = columns;
  useEffect(() => {
    fields.current[first]?.focus();
    fields.current[first]?.select();
  }, [first]);
  // What is doubted is selected: typing replaces it, Enter takes it.
  useEffect(() => {
    if (doubt === null) return;
    fields.current[doubt.column]?.focus();
    fields.current[doubt.column]?.select();
  }, [doubt]);
  useEffect(() => {
    if (isAppliedOpen && draft.applied === null) {
      fields.current.applied?.focus();
      fields.current.applied?.select();
    }
  }, [isAppliedOpen, draft.applied]);

  const refuse = (at: Column | 'applied', why: string) => {
    setWrong({ at, why });
    fields.current[at]?.focus();
  };

  /** Field by field, then the point: the next empty one is where the hand goes. */
  const enter = (from: Column) => {
    const wrongHere = whyNot(textOf(from), unitOf(from));
    if (wrongHere !== null) {
      refuse(from, wrongHere);
      return;
    }
    const next = columns[columns.indexOf(from) + 1];
    if (next !== undefined) {
      setWrong(null);
      focus(next);
      return;
    }
    const bad = columns.find((column) => whyNot(textOf(column), unitOf(column)) !== null);
    if (bad !== undefined) {
      refuse(bad, whyNot(textOf(bad), unitOf(bad)) ?? '');
      return;
    }
    const appliedWrong = draft.applied === null ? null : whyNot(draft.applied, inputUnit);
    if (appliedWrong !== null) {
      refuse('applied', appliedWrong);
      return;
    }
    const plain = (text: string, unit: string): TypedNumber['text'] => typedIn(text, unit).text;
    const more = Object.fromEntries(
      madeWith.columns.map((column) => [column, plain(textOf(column), unitOf(column))]),
    );
    const refused = onEnter({
      output: plain(draft.output, configuration.outputUnit),
      applied: draft.applied === null ? null : plain(draft.applied, inputUnit),
      more,
    });
    setWrong(refused === null ? null : { at: 'applied', why: refused });
  };

  /** The field that the hand is in, else the first. */
  const here = (): Column =>
    columns.find((column) => fields.current[column] === document.activeElement) ?? first;
  const write = (column: Column, text: string) =>
    onDraft(
      column === 'output'
        ? { ...draft, output: text }
        : { ...draft, more: { ...draft.more, [column]: text } },
    );
  useImperativeHandle(hand, () => ({
    enter: () => enter(here()),
    openApplied: () => (isAppliedOpen ? focus('applied') : setIsAppliedOpen(true)),
    turnSign: () => {
      if (fields.current.applied !== undefined && fields.current.applied === document.activeElement)
        onDraft({ ...draft, applied: turned(draft.applied ?? '') });
      else write(here(), turned(textOf(here())));
    },
  }));

  const onKeyDown = (column: Column) => (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const actions: Record<string, () => void> = {
      Enter: () => enter(column),
      ArrowDown: () => onMove(1),
      ArrowUp: () => onMove(-1),
      a: () => (isAppliedOpen ? focus('applied') : setIsAppliedOpen(true)),
    };
    const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
    // A letter typed after digits is the beginning of a unit.
    const isCommand = !/^[a-z]$/.test(key) || textOf(column).trim() === '' || isAllSelected(event);
    const action = isCommand ? actions[key] : undefined;
    if (action !== undefined) {
      event.preventDefault();
      action();
    } else if (isCommand && onLetter(key)) event.preventDefault();
  };

  const onAppliedKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter' || event.key === 'ArrowDown') {
      event.preventDefault();
      focus(first);
    } else if (event.key === 'Escape') {
      onDraft({ ...draft, applied: null });
      setIsAppliedOpen(false);
      focus(first);
    }
  };

  const onPaste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text');
    if (!/[\n\t]/.test(text.trim())) return;
    event.preventDefault();
    onColumn(text);
  };

  const name = pointWords(point);
  return (
    <Box sx={{ px: { sm: 0.25 }, width: { xs: 150, sm: 'auto' } }}>
      {isAppliedOpen && (
        <Labelled text={`Applied, ${figures.inputUnit}`}>
          <input
            ref={(element) => void (fields.current.applied = element)}
            aria-label={`Applied value at ${name}, in ${figures.inputUnit}`}
            inputMode="decimal"
            autoComplete="off"
            value={draft.applied ?? figures.input(point.nominalApplied - madeWith.head)}
            onChange={(event) => onDraft({ ...draft, applied: event.target.value })}
            onKeyDown={onAppliedKeyDown}
            style={inputStyle(wrong?.at === 'applied')}
          />
        </Labelled>
      )}
      {columns.map((column) => {
        const field = (
          <input
            key={column}
            ref={(element) => void (fields.current[column] = element)}
            aria-label={`${COLUMN_NAME[column]} at ${name}${unitOf(column) === '' ? '' : `, in ${column === 'digital' ? figures.inputUnit : column === 'second' ? unitOf(column) : figures.outputUnit}`}`}
            aria-invalid={wrong?.at === column}
            aria-describedby={wrong === null && doubt === null ? undefined : 'reading-wrong'}
            inputMode="decimal"
            autoComplete="off"
            enterKeyHint="next"
            value={textOf(column)}
            onChange={(event) => {
              setWrong(null);
              write(column, event.target.value);
            }}
            onKeyDown={onKeyDown(column)}
            onPaste={onPaste}
            style={inputStyle(wrong?.at === column)}
          />
        );
        return column === 'output' && columns.length === 1 ? (
          <Figure key={column} sx={{ fontSize: { xs: 22, sm: 20, md: 24 }, fontWeight: 700 }}>
            {field}
          </Figure>
        ) : (
          <Labelled key={column} text={COLUMN_LABEL[column]}>
            {field}
          </Labelled>
        );
      })}
      <Popper
        open={wrong !== null || doubt !== null}
        anchorEl={() => fields.current[wrong?.at ?? doubt?.column ?? 'output'] ?? document.body}
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

const COLUMN_NAME: Readonly<Record<Column, string>> = {
  output: 'Reading',
  'before-tap': 'Reading before a tap',
  digital: 'Digital value',
  second: 'Second indication',
};

const COLUMN_LABEL: Readonly<Record<Column, string>> = {
  output: 'reading',
  'before-tap': 'before a tap',
  digital: 'digital',
  second: 'second',
};

/** A text with its sign turned. */
const turned = (text: string): string =>
  /^\s*[-\u2212]/.test(text) ? text.replace(/[-\u2212]/, '') : `-${text}`;

const isAllSelected = ({ target }: KeyboardEvent): boolean =>
  target instanceof HTMLInputElement &&
  target.selectionStart === 0 &&
  target.selectionEnd === target.value.length;

function Labelled({ text, children }: { text: string; children: React.ReactNode }) {
  return (
    <Box component="label" sx={{ display: 'block', fontSize: 13, textAlign: 'left', mb: 0.25 }}>
      {text}
      <Figure sx={{ fontSize: 16, fontWeight: 700 }}>{children}</Figure>
    </Box>
  );
}
