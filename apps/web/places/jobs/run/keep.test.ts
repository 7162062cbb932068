import { beforeEach, expect, it, vi } from 'vitest';
import { keptStore, type Kept } from './keep';

const storage = new Map<string, string>();
const window = new EventTarget();
let runId = 0;

beforeEach(() => {
  runId += 1;
  storage.clear();
  vi.stubGlobal('window', window);
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => storage.get(key) ?? null,
    setItem: (key: string, value: string) => storage.set(key, value),
    removeItem: (key: string) => storage.delete(key),
  });
});

const KEPT: Kept = { drafts: { 3: { output: '12.0', applied: null } }, waiting: [] };

it('what is kept is in the browser’s storage at once, and gone when nothing is left', () => {
  const store = keptStore(runId);
  store.set(KEPT);
  expect(JSON.parse(storage.get(`barys.run.${runId}`) ?? '')).toEqual(KEPT);
  store.set({ drafts: {}, waiting: [] });
  expect(storage.size).toBe(0);
});

it('what an earlier page kept is found again, for its own run only', () => {
  storage.set(`barys.run.${runId}`, JSON.stringify(KEPT));
  expect(keptStore(runId).get()).toEqual(KEPT);
  expect(keptStore(runId + 1000).get()).toEqual({ drafts: {}, waiting: [] });
});

it('the same run has one store, which tells of each change until it is left', () => {
  const store = keptStore(runId);
  expect(keptStore(runId)).toBe(store);
  const onChange = vi.fn();
  const leave = store.subscribe(onChange);
  store.set(KEPT);
  expect(store.get()).toBe(KEPT);
  expect(onChange).toHaveBeenCalledTimes(1);
  leave();
  store.set({ drafts: {}, waiting: [] });
  expect(onChange).toHaveBeenCalledTimes(1);
});

it('what another tab kept for the run is taken over', () => {
  const store = keptStore(runId);
  const onChange = vi.fn();
  store.subscribe(onChange);
  store.set({ drafts: {}, waiting: [] });
  onChange.mockClear();
  storage.set(`barys.run.${runId}`, JSON.stringify(KEPT));
  window.dispatchEvent(Object.assign(new Event('storage'), { key: 'something else' }));
  expect(onChange).not.toHaveBeenCalled();
  window.dispatchEvent(Object.assign(new Event('storage'), { key: `barys.run.${runId}` }));
  expect(onChange).toHaveBeenCalledTimes(1);
  expect(store.get()).toEqual(KEPT);
});
