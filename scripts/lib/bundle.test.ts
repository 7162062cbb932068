import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { bundle } from './bundle.mjs';

const folder = mkdtempSync(join(tmpdir(), 'barys-bundle-'));
const script = join(folder, 'say.ts');
const part = join(folder, 'part.ts');
const made: string[] = [];
afterAll(() => {
  for (const path of [folder, ...made]) rmSync(path, { recursive: true, force: true });
});

async function bundled(): Promise<string> {
  const file = await bundle(script);
  made.push(file, `${file}.json`);
  return file;
}
const said = (file: string) => execFileSync(process.execPath, [file], { encoding: 'utf8' }).trim();

/** Files that were written some time ago, as they are when somebody starts Barys. */
function write(path: string, text: string, secondsAgo: number): void {
  writeFileSync(path, text);
  const then = Date.now() / 1000 - secondsAgo;
  utimesSync(path, then, then);
}

beforeEach(() => {
  write(part, `export const word: string = 'one';`, 100);
  write(script, `import { word } from './part'; console.log(word, import.meta.url);`, 100);
});

describe('a bundle', () => {
  it('says what its modules say, each where it stood', async () => {
    expect(said(await bundled())).toBe(`one ${pathToFileURL(script).href}`);
  });

  it('is made once while nothing changes', async () => {
    const file = await bundled();
    const { ino } = statSync(file);
    expect(statSync(await bundled()).ino).toBe(ino);
  });

  it.each([
    ['newer', 50],
    ['older, as a checkout of an earlier version is', 200],
  ])('is made anew once a module it imports is %s', async (_name, secondsAgo) => {
    await bundled();
    write(part, `export const word: string = 'two';`, secondsAgo);
    expect(said(await bundled())).toMatch(/^two /);
  });

  it('is made anew once a module is gone, and says so where it is needed', async () => {
    await bundled();
    rmSync(part);
    await expect(bundle(script)).rejects.toThrow('Could not resolve "./part"');
  });

  it('is made anew where an earlier start was killed before its list was written', async () => {
    const file = await bundled();
    writeFileSync(file, 'half of');
    rmSync(`${file}.json`);
    expect(said(await bundled())).toMatch(/^one /);
  });

  it('is not taken for fresh where a module was written to while it was made', async () => {
    write(part, `export const word: string = 'one';`, -60);
    const file = await bundled();
    write(part, `export const word: string = 'two';`, -60);
    expect(said(await bundled())).toMatch(/^two /);
    expect(file).toBe(await bundled());
  });

  it('is whole when several start at once', async () => {
    write(part, `export const word: string = 'three';`, 10);
    const files = await Promise.all(Array.from({ length: 6 }, bundled));
    expect(new Set(files).size).toBe(1);
    expect(said(files[0] ?? '')).toMatch(/^three /);
  });
});
