import Typography from '@mui/material/Typography';
import { LinkButton } from '@/ui/LinkButton';
import { Sheet } from '@/ui/Sheet';

export default function NotFound() {
  return (
    <Sheet title="There is nothing at this address">
      <Typography sx={{ mb: 2 }}>
        It may have been mistyped, or is not for you to see. Nothing was changed.
      </Typography>
      <LinkButton href="/" isMain>
        Go to Today
      </LinkButton>
    </Sheet>
  );
}
