/** Gives a CSV to the browser to keep. */
export function saveCsv(name: string, csv: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([csv], { type: 'text/csv' }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
