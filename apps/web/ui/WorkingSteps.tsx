/** The steps of a working, set by KaTeX; loaded when a working is opened, since few pages are read with one. */
import { stepTex, type Step } from '@barys/core/working';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import katex from 'katex';
import 'katex/dist/katex.min.css';

/** KaTeX escapes what it is given and makes no links or scripts (trust is off). */
function Formula({ tex }: { tex: string }) {
  const html = katex.renderToString(`\\displaystyle ${tex}`, {
    displayMode: false,
    throwOnError: false,
    trust: false,
  });
  return (
    <Box sx={{ py: 0.25, '& .katex': { fontSize: '1.05em' } }} dangerouslySetInnerHTML={{ __html: html }} />
  );
}

export function WorkingSteps({ steps }: { steps: readonly Step[] }) {
  return (
    <Box component="ol" sx={{ m: 0, pl: 4, '& > li': { mb: 1.25 } }}>
      {steps.map((step, index) => {
        const tex = stepTex(step);
        return (
          <li key={index}>
            <Typography variant="body2" sx={{ fontWeight: 600 }}>
              {step.what}
            </Typography>
            {tex.symbols !== '' && <Formula tex={tex.symbols} />}
            {tex.numbers !== '' && <Formula tex={tex.numbers} />}
            <Formula tex={tex.result} />
            <Typography
              variant="caption"
              sx={{ display: 'block', color: 'text.secondary', lineHeight: 1.35 }}
            >
              Source: {step.source}
            </Typography>
          </li>
        );
      })}
    </Box>
  );
}
