'use client';
import { createContext, useContext } from 'react';
import { useTyped } from '@/ui/useTyped';

/** Under which name this browser keeps the texts of an attempt. */
export const DeskName = createContext<string | null>(null);

/**
 * What is typed at a tool of the bench, or which page of it is open: it outlasts a reload, until the attempt is scored.
 * @param name of the text at this desk
 */
export function useDeskText(name: string, first: string): readonly [string, (text: string) => void] {
  const desk = useContext(DeskName);
  const [{ text }, change] = useTyped({ text: first }, desk === null ? null : `${desk} ${name}`);
  return [text, (next) => change({ text: next })];
}
