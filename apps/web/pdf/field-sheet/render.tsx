import { renderToBuffer } from '@react-pdf/renderer';
import { registerFonts } from '@/pdf/fonts';
import { FieldSheet, type FieldSheetEntry } from './FieldSheet';
import { JobLabel, type JobLabelEntry } from './JobLabel';

/** The field sheet of a job as the bytes of a PDF. */
export async function renderFieldSheet(entry: FieldSheetEntry): Promise<Buffer> {
  registerFonts();
  return renderToBuffer(<FieldSheet {...entry} />);
}

/** The label of a signed job as the bytes of a PDF. */
export async function renderJobLabel(entry: JobLabelEntry): Promise<Buffer> {
  registerFonts();
  return renderToBuffer(<JobLabel {...entry} />);
}
