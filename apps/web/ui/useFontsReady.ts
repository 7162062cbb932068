import { useEffect, useState } from 'react';
import { FIGURES } from './theme';

/**
 * True once the fonts are there: Chart.js measures its words once, and drawing before would leave them in another font. That of
 * figures is asked for by name, since nothing else on a page may have asked for it.
 */
export function useFontsReady(): boolean {
  const [isReady, setIsReady] = useState(false);
  useEffect(() => {
    // One that cannot be had does not keep a chart from being drawn.
    const asked = document.fonts.load(`12px ${FIGURES}`).catch(() => []);
    void asked.then(() => document.fonts.ready).then(() => setIsReady(true));
  }, []);
  return isReady;
}
