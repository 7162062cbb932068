import type { JobFile, Site } from '@barys/store';
import { renderToBuffer } from '@react-pdf/renderer';
import { Certificate } from './Certificate';
import { registerFonts } from '@/ui/pdfFonts';

/** The certificate of a signed job as the bytes of a PDF. */
export async function renderCertificate(
  job: JobFile,
  site: Site | null,
  paper: 'A4' | 'LETTER',
): Promise<Buffer> {
  registerFonts();
  return renderToBuffer(<Certificate job={job} site={site} paper={paper} />);
}
