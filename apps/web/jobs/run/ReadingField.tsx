'use client';
/** Where a reading is typed. Digits and Enter are all that a normal point needs. */
import { CoreError, parseTyped } from '@barys/core';
import type { MadeWith } from '@barys/store';
import Box from '@mui/material/Box';
import { useEffect, useRef, useState, type ClipboardEvent, type KeyboardEvent } from 'react';
import { Figure } from '@/ui/Figure';
import type { Figures } from '@/ui/figures';
import { pointName } from './Climb';
import type { Draft } from './keep';

function whyNot(text: string): string | null {
  try {
    parseTyped(text);
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

export function ReadingField({
  point,
  draft,
  figures,
  onDraft,
  onEnter,
  onMove,
  onColumn,
  onHelp,
}: {
  point: MadeWith['points'][number];
  draft: Draft;
  figures: Figures;
  onDraft: (draft: Draft) => void;
  onEnter: (draft: Draft) => void;
  onMove: (step: 1 | -1) => void;
  onColumn: (text: string) => void;
  onHelp: () => void;
}) {
  const outputRef = useRef<HTMLInputElement>(null);
  const appliedRef = useRef<HTMLInputElement>(null);
  const [isAppliedOpen, setIsAppliedOpen] = useState(draft.applied !== null);
  const [wrong, setWrong] = useState<{ at: 'output' | 'applied'; why: string } | null>(null);

  useEffect(() => {
    outputRef.current?.focus();
    outputRef.current?.select();
  }, []);
  useEffect(() => {
    if (isAppliedOpen && draft.applied === null) {
      appliedRef.current?.focus();
      appliedRef.current?.select();
    }
  }, [isAppliedOpen, draft.applied]);

  const enter = () => {
    const appliedWrong = draft.applied === null ? null : whyNot(draft.applied);
    if (appliedWrong !== null) {
      setWrong({ at: 'applied', why: appliedWrong });
      appliedRef.current?.focus();
      return;
    }
    const outputWrong = whyNot(draft.output);
    if (outputWrong !== null) {
      setWrong({ at: 'output', why: outputWrong });
      outputRef.current?.focus();
      return;
    }
    setWrong(null);
    onEnter(draft);
  };

  const onKeyDown = (event: KeyboardEvent) => {
    const actions: Record<string, () => void> = {
      Enter: enter,
      ArrowDown: () => onMove(1),
      ArrowUp: () => onMove(-1),
      a: () => (isAppliedOpen ? appliedRef.current?.focus() : setIsAppliedOpen(true)),
      '?': onHelp,
    };
    const action =
      event.ctrlKey || event.metaKey || event.altKey
        ? undefined
        : actions[event.key === 'A' ? 'a' : event.key];
    if (action === undefined) return;
    event.preventDefault();
    action();
  };

  const onAppliedKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter' || event.key === 'ArrowDown') {
      event.preventDefault();
      outputRef.current?.focus();
    } else if (event.key === 'Escape') {
      onDraft({ ...draft, applied: null });
      setIsAppliedOpen(false);
      outputRef.current?.focus();
    }
  };

  const onPaste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text');
    if (!/[\n\t]/.test(text.trim())) return;
    event.preventDefault();
    onColumn(text);
  };

  const name = pointName(point);
  return (
    <Box sx={{ px: { sm: 0.25 }, width: { xs: 150, sm: 'auto' } }}>
      {isAppliedOpen && (
        <Box component="label" sx={{ display: 'block', fontSize: 13, textAlign: 'left', mb: 0.5 }}>
          Applied, {figures.inputUnit}
          <Figure sx={{ fontSize: 16 }}>
            <input
              ref={appliedRef}
              aria-label={`Applied value at ${name}, in ${figures.inputUnit}`}
              inputMode="decimal"
              autoComplete="off"
              value={draft.applied ?? figures.input(point.nominalApplied)}
              onChange={(event) => onDraft({ ...draft, applied: event.target.value })}
              onKeyDown={onAppliedKeyDown}
              style={inputStyle(wrong?.at === 'applied')}
            />
          </Figure>
        </Box>
      )}
      <Figure sx={{ fontSize: { xs: 22, sm: 20, md: 24 }, fontWeight: 700 }}>
        <input
          ref={outputRef}
          aria-label={`Reading at ${name}, in ${figures.outputUnit}`}
          aria-invalid={wrong?.at === 'output'}
          aria-describedby={wrong === null ? undefined : 'reading-wrong'}
          inputMode="decimal"
          autoComplete="off"
          enterKeyHint="next"
          value={draft.output}
          onChange={(event) => {
            setWrong(null);
            onDraft({ ...draft, output: event.target.value });
          }}
          onKeyDown={onKeyDown}
          onPaste={onPaste}
          style={inputStyle(wrong?.at === 'output')}
        />
      </Figure>
      {wrong !== null && (
        <Box
          id="reading-wrong"
          role="alert"
          sx={{
            position: 'absolute',
            zIndex: 2,
            maxWidth: 260,
            mt: 0.5,
            p: 1,
            fontSize: 14,
            textAlign: 'left',
            bgcolor: 'var(--sheet)',
            border: '2px solid var(--outside)',
          }}
        >
          {wrong.why}
        </Box>
      )}
    </Box>
  );
}
