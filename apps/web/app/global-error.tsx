'use client';

/** Shown when not even the frame of the pages can be drawn: the database does not answer, mostly. */
export default function GlobalError({ reset }: { error: Error; reset: () => void }) {
  return (
    <html lang="en">
      <body style={{ fontFamily: 'sans-serif', maxWidth: 560, margin: '64px auto', padding: '0 16px' }}>
        <title>Barys cannot be shown</title>
        <h1>Barys cannot be shown now</h1>
        <p>
          The database does not answer. Everything that Barys called saved is kept. Readings that were typed
          and not saved yet are still in this browser and are sent when it answers again.
        </p>
        <button type="button" onClick={reset} style={{ minHeight: 44, padding: '0 16px', font: 'inherit' }}>
          Try again
        </button>
      </body>
    </html>
  );
}
