import { renderToBuffer } from '@react-pdf/renderer';
import { registerFonts } from '@/pdf/fonts';
import { LabelSheets, SingleLabels, type LabelEntry } from './Labels';

/** Labels as the bytes of a PDF: many on a sheet, or each on a page of its own. */
export async function renderLabels(entries: readonly LabelEntry[], sheet: 'a4' | 'single'): Promise<Buffer> {
  registerFonts();
  return renderToBuffer(
    sheet === 'a4' ? <LabelSheets entries={entries} /> : <SingleLabels entries={entries} />,
  );
}
