'use client';
import { useRef, useState } from 'react';
import { followLines } from '@/ui/followLines';
import type { Found, Line, RunRequest } from './choice';

export interface ImportRun {
  readonly progress: { readonly done: number; readonly of: number } | null;
  readonly found: Found | null;
  readonly error: string | null;
}

const IDLE: ImportRun = { progress: null, found: null, error: null };

/** Runs a check or an import on the server and follows it; stopping it stops the server as well. */
export function useImportRun(id: number) {
  const [state, setState] = useState(IDLE);
  const running = useRef<AbortController | null>(null);

  const run = async (wanted: RunRequest): Promise<void> => {
    running.current?.abort();
    const controller = new AbortController();
    running.current = controller;
    setState({ ...IDLE, progress: { done: 0, of: 1 } });
    const hear = (line: Line) => {
      if ('found' in line) setState({ progress: null, found: line.found, error: null });
      else if ('error' in line) setState({ progress: null, found: null, error: line.error });
      else setState({ progress: line, found: null, error: null });
    };
    try {
      const answer = await fetch(`/office/import/${id}/run`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(wanted),
        signal: controller.signal,
      });
      if (!answer.ok || answer.body === null) {
        const { detail } = (await answer.json()) as { detail?: string };
        hear({ error: detail ?? 'The server could not do this. Nothing was imported.' });
        return;
      }
      await followLines(answer.body, (line) => hear(line as Line));
    } catch {
      setState({
        ...IDLE,
        error: controller.signal.aborted
          ? 'Stopped. Nothing was imported.'
          : 'The server does not answer. Check again to see whether it was imported; a second import doubles nothing.',
      });
    }
  };
  return { ...state, run, stop: () => running.current?.abort(), forget: () => setState(IDLE) };
}
