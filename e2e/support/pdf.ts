import { readFile } from 'node:fs/promises';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** The text of each page of a PDF, parts joined by one blank. */
export async function pagesOfPdf(file: string): Promise<string[]> {
  const pdf = await getDocument({ data: new Uint8Array(await readFile(file)), verbosity: 0 }).promise;
  const pages: string[] = [];
  for (let number = 1; number <= pdf.numPages; number += 1) {
    const { items } = await (await pdf.getPage(number)).getTextContent();
    pages.push(
      items
        .map((item) => ('str' in item ? item.str : ''))
        .join(' ')
        .replace(/\s+/g, ' ')
        .replaceAll('° C', '°C'),
    );
  }
  return pages;
}
