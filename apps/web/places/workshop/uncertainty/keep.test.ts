import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { EXAMPLES } from './examples';
import { keepBudget, keptBudget } from './keep';

const [first] = EXAMPLES;
if (first === undefined) throw new Error('no example');

describe('the budget last typed', () => {
  let store: Map<string, string>;
  beforeEach(() => {
    store = new Map();
    vi.stubGlobal('window', {
      localStorage: {
        getItem: (key: string) => store.get(key) ?? null,
        setItem: (key: string, value: string) => store.set(key, value),
      },
    });
  });
  afterEach(() => vi.unstubAllGlobals());

  it('comes back as it was', () => {
    expect(keptBudget()).toBeNull();
    keepBudget({ ...first, model: '2 * a' });
    expect(keptBudget()).toEqual({ ...first, model: '2 * a' });
  });

  it('of an older shape or spoilt is left alone', () => {
    store.set('barys-budget', '{"model": 5}');
    expect(keptBudget()).toBeNull();
    store.set('barys-budget', '{not json');
    expect(keptBudget()).toBeNull();
  });

  it('is not missed in a browser that keeps nothing', () => {
    vi.stubGlobal('window', {
      localStorage: {
        getItem: () => {
          throw new Error('denied');
        },
        setItem: () => {
          throw new Error('denied');
        },
      },
    });
    expect(() => keepBudget(first)).not.toThrow();
    expect(keptBudget()).toBeNull();
  });
});
