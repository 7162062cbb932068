import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { Sheet } from '@/ui/Sheet';

export default function NotFound() {
  return (
    <Sheet title="There is nothing at this address">
      <Typography sx={{ mb: 2 }}>The instrument or job may have been mistyped. Nothing was changed.</Typography>
      <Button variant="contained" component={Link} href="/">
        Go to Today
      </Button>
    </Sheet>
  );
}
