import { renderToBuffer } from '@react-pdf/renderer';
import { registerFonts } from '@/pdf/fonts';
import { Certificate, type CertificateEntry } from './Certificate';

/** The certificate of a signed job as the bytes of a PDF. */
export async function renderCertificate(entry: CertificateEntry): Promise<Buffer> {
  registerFonts();
  return renderToBuffer(<Certificate {...entry} />);
}
