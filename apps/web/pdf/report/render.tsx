import { renderToBuffer } from '@react-pdf/renderer';
import { registerFonts } from '@/pdf/fonts';
import { MonthlyReport, type ReportEntry } from './MonthlyReport';

/** The report of a month as the bytes of a PDF. */
export async function renderReport(entry: ReportEntry): Promise<Buffer> {
  registerFonts();
  return renderToBuffer(<MonthlyReport {...entry} />);
}
