'use client';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { useRouter } from 'next/navigation';

/** Which two versions are shown side by side. */
export function ChooseVersions({
  versions,
  chosen,
}: {
  versions: readonly number[];
  chosen: readonly number[];
}) {
  const router = useRouter();
  const [left, right] = chosen;
  const choose = (patch: { left?: string; right?: string }) =>
    router.replace(`?${new URLSearchParams({ left: String(left), right: String(right), ...patch })}`);
  return (
    <Stack direction="row" sx={{ gap: 1, mb: 1.5 }}>
      {(['left', 'right'] as const).map((side) => (
        <TextField
          key={side}
          select
          label={side === 'left' ? 'Compare version' : 'with version'}
          value={String(side === 'left' ? left : right)}
          onChange={(event) => choose({ [side]: event.target.value })}
          sx={{ minWidth: 170 }}
        >
          {versions.map((version) => (
            <MenuItem key={version} value={String(version)}>
              {version}
            </MenuItem>
          ))}
        </TextField>
      ))}
    </Stack>
  );
}
