'use client';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { FIGURES } from '@/ui/theme';
import type { Card } from './shape';

interface Stop {
  readonly area: string;
  readonly tags: readonly string[];
}

function stopsOf(cards: readonly Card[]): Stop[] {
  const stops: { area: string; tags: string[] }[] = [];
  for (const { area, tag } of cards) {
    const last = stops.at(-1);
    if (last?.area === area) last.tags.push(tag);
    else stops.push({ area, tags: [tag] });
  }
  return stops;
}

function Place({ name, tags, isShop }: { name: string; tags: readonly string[]; isShop: boolean }) {
  return (
    <Box component="li" sx={{ flex: '1 1 0', minWidth: 92, position: 'relative', textAlign: 'center' }}>
      <Box
        aria-hidden
        sx={{ position: 'absolute', top: 8, left: 0, right: 0, borderTop: '2px dotted var(--muted)' }}
      />
      <Box
        aria-hidden
        sx={{
          position: 'relative',
          width: 16,
          height: 16,
          borderRadius: '50%',
          mx: 'auto',
          border: '2px solid var(--ink)',
          background: isShop ? 'var(--sheet)' : 'var(--ink)',
        }}
      />
      <Typography variant="body2" sx={{ fontWeight: 700, mt: 0.25, px: 0.5 }}>
        {name}
      </Typography>
      {tags.map((tag) => (
        <Typography key={tag} variant="body2" sx={{ fontFamily: FIGURES, fontSize: 12.5 }}>
          {tag}
        </Typography>
      ))}
    </Box>
  );
}

/** One day of one person, from the shop and back. */
export function WalkLine({
  title,
  cards,
  walkMinutes,
}: {
  title: string;
  /** Of one person and day. */
  cards: readonly Card[];
  walkMinutes: number;
}) {
  const ordered = [...cards]
    .filter(({ isDone }) => !isDone)
    .sort((a, b) => (a.clock ?? '').localeCompare(b.clock ?? ''));
  if (ordered.length === 0) return null;
  const stops = stopsOf(ordered);
  const taken = [...new Set(ordered.flatMap(({ references }) => references))].sort();
  return (
    <Box component="section" aria-label={title} sx={{ mt: 2 }}>
      <Typography variant="h3" sx={{ mb: 0.75 }}>
        {title}
      </Typography>
      <Box
        component="ol"
        tabIndex={0}
        sx={{ listStyle: 'none', m: 0, p: 0.5, display: 'flex', overflowX: 'auto' }}
      >
        <Place name="Shop" tags={[]} isShop />
        {stops.map(({ area, tags }, index) => (
          <Place key={`${index} ${area}`} name={area} tags={tags} isShop={false} />
        ))}
        <Place name="Shop" tags={[]} isShop />
      </Box>
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 0.5 }}>
        {(stops.length + 1) * walkMinutes} min of walking, {stops.length}{' '}
        {stops.length === 1 ? 'permit' : 'permits'}
        {taken.length === 0 ? '' : `; take ${taken.join(', ')}`}
      </Typography>
    </Box>
  );
}
