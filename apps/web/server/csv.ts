/** A CSV that the browser keeps under a name; the mark at its beginning tells spreadsheets that it is UTF-8. */
export const csvResponse = (csv: string, name: string): Response =>
  new Response(`\uFEFF${csv}`, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
      'cache-control': 'private, no-store',
    },
  });
