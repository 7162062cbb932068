import { useEffect, useState } from 'react';

/** True once the fonts are there: Chart.js measures its words once, and drawing before would leave them in another font. */
export function useFontsReady(): boolean {
  const [isReady, setIsReady] = useState(false);
  useEffect(() => void document.fonts.ready.then(() => setIsReady(true)), []);
  return isReady;
}
