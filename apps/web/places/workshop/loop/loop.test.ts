import { describe, expect, it } from 'vitest';
import { computeLoop, csvOfLoop, noteOfLoop, trimEffect } from './compute';
import {
  itemsOfText,
  LOOP_FIELDS,
  MOST_ITEMS,
  newItem,
  orLoopFault,
  textOfItems,
  type ItemFields,
  type LoopFields,
} from './fields';

const ITEMS = itemsOfText(LOOP_FIELDS.items);
const loop = (patch: Partial<LoopFields> = {}, items: readonly ItemFields[] = ITEMS): LoopFields => ({
  ...LOOP_FIELDS,
  ...patch,
  items: JSON.stringify(items),
});
/** The usual loop with readings by the names of its items. */
const read = (readings: Readonly<Record<string, string>>): readonly ItemFields[] =>
  ITEMS.map((one) => ({ ...one, read: readings[one.name] ?? '' }));
const nameAt = (result: ReturnType<typeof computeLoop>, item: number | null | undefined) =>
  item == null ? null : result.items[item]?.name;

describe('a loop as it is typed', () => {
  it('says what stands at every tap', () => {
    // By hand: a quarter of 250 mbar is half the flow: 12 mA, 3 V, 160 of 320.
    const { taps } = computeLoop(loop());
    expect(taps.map(({ expected }) => Number(expected))).toEqual([12, 12, 3, 160, 160, 50]);
    expect(taps.map(({ share }) => share)).toEqual([0.5, 0.5, 0.5, 0.5, 0.5, 0.5]);
    expect(taps.filter(({ isEnd }) => isEnd).map(({ fields }) => fields.name)).toEqual([
      'AI-3.7',
      'FI-1305',
      'FR-1305',
    ]);
  });

  it('counts the root on the way to every end', () => {
    expect(computeLoop(loop()).wrongRoots).toEqual([]);
    const twice = ITEMS.map((one) => (one.name === 'FI-1305' ? { ...one, transfer: 'root' as const } : one));
    expect(computeLoop(loop({}, twice)).wrongRoots).toEqual([{ name: 'FI-1305', roots: 2 }]);
    const never = ITEMS.map((one) => ({ ...one, transfer: 'linear' as const }));
    expect(computeLoop(loop({}, never)).wrongRoots.map(({ roots }) => roots)).toEqual([0, 0, 0]);
    expect(computeLoop(loop({ isFlow: 'no' }, never)).wrongRoots).toEqual([]);
  });

  it('names the panel meter, says what to measure next, and what a trim to it would do', () => {
    // The sketch's case: the transmitter and the card are right, the meter shows 171.5 of 320 instead of 160.
    const result = computeLoop(
      loop({}, read({ 'FT-1305': '12.004', 'AI-3.7': '160.1', 'FI-1305': '171.5' })),
    );
    const [best] = result.diagnosis?.suspicions ?? [];
    expect(nameAt(result, best?.item)).toBe('FI-1305');
    expect(best?.probability).toBeGreaterThan(0.8);
    expect(best?.offPercent).toBeCloseTo(3.6, 0);
    // The recorder is left unread, and would tell less than is worth a walk.
    expect(result.next).toBeNull();
    const fresh = computeLoop(loop({}, ITEMS));
    expect(fresh.diagnosis).toBeNull();
    expect(fresh.next?.bits).toBeGreaterThan(0.5);
    expect(fresh.doubt).toBeGreaterThan(fresh.next?.bits ?? Infinity);
    const trim = trimEffect(result);
    expect(trim?.receiver).toBe('FI-1305');
    expect(trim?.others.map(({ name }) => name)).toEqual(['AI-3.7', 'FR-1305']);
    // Trimmed down by what the meter shows too much, every other end is off by as much.
    for (const { percent } of trim?.others ?? []) expect(percent).toBeCloseTo(-(best?.offPercent ?? 0), 9);
    expect(noteOfLoop(result)).toContain('Likely wrong: FI-1305');
    const unsure = computeLoop(loop({}, read({ 'FI-1305': '171.5' })));
    expect(noteOfLoop(unsure)).toContain('cannot be told yet');
  });

  it('has no trim to speak of where the transmitter itself is wrong, or nothing is', () => {
    const off = computeLoop(loop({}, read({ 'FT-1305': '12.3', 'AI-3.7': '166.0', 'FI-1305': '166' })));
    expect(nameAt(off, off.diagnosis?.suspicions[0]?.item)).toBe('FT-1305');
    expect(trimEffect(off)).toBeNull();
    const sound = computeLoop(loop({}, read({ 'FT-1305': '12.001', 'AI-3.7': '160.0', 'FI-1305': '160.5' })));
    expect(sound.diagnosis?.suspicions[0]?.item).toBeNull();
    expect(trimEffect(sound)).toBeNull();
    expect(noteOfLoop(sound)).toContain('All inside their tolerances.');
  });

  it('says so where nothing flows and a root behind hides what stands before it', () => {
    const behind = read({ 'AI-3.7': '0' }).map((one) => ({
      ...one,
      transfer: one.name === 'AI-3.7' ? ('root' as const) : ('linear' as const),
    }));
    const { diagnosis, whyNot, taps } = computeLoop(loop({ applied: '0' }, behind));
    expect(diagnosis).toBeNull();
    expect(whyNot).toContain('Nothing flows');
    expect(taps[3]?.tolerance).toBeNull();
    // What has no tolerance is not called good.
    expect(taps[3]?.read?.verdict).toBe('not-judged');
  });

  it('judges a reading by the sum of the tolerances before it', () => {
    // By hand, all linear behind the root: 0.25 + 0.1 + 0.1 + 0.1 = 0.55 % of 320 is 1.76.
    const at = (text: string) => computeLoop(loop({}, read({ 'AI-3.7': text }))).taps[3];
    expect(at('161.7')?.tolerance?.sum).toBeCloseTo(0.55, 9);
    expect(at('161.7')?.read?.verdict).toBe('within');
    expect(at('161.76')?.read?.verdict).toBe('within');
    expect(at('161.8')?.read?.verdict).toBe('outside');
  });

  it('tells what is wrong at the field of its item', () => {
    const wrong = (patch: Partial<ItemFields>, place: number, more: Partial<LoopFields> = {}) =>
      orLoopFault(() =>
        computeLoop(
          loop(
            more,
            ITEMS.map((one, i) => (i === place ? { ...one, ...patch } : one)),
          ),
        ),
      );
    expect(wrong({ outHigh: '4' }, 1)).toMatchObject({ field: 'items.1.outHigh' });
    expect(wrong({ inLow: 'x' }, 2)).toMatchObject({ field: 'items.2.inLow' });
    expect(wrong({ tolerance: '-1' }, 3)).toMatchObject({ field: 'items.3.tolerance' });
    expect(wrong({ tolerance: '' }, 3)).toMatchObject({ field: 'items.3.tolerance' });
    expect(wrong({ read: '12,3,4' }, 4)).toMatchObject({ field: 'items.4.read' });
    expect(wrong({ cutOff: '200' }, 0)).toMatchObject({ field: 'items.0.cutOff' });
    expect(wrong({ from: 'f' }, 1)).toMatchObject({ field: 'items.1.from' });
    expect(wrong({}, 0, { meter: '0' })).toMatchObject({ field: 'meter' });
    expect(wrong({}, 0, { applied: '' })).toMatchObject({ field: 'applied' });
  });

  it('takes an address as it is, and leaves out what is no item', () => {
    expect(itemsOfText('no json')).toEqual(ITEMS);
    expect(itemsOfText('{"a":1}')).toEqual(ITEMS);
    expect(
      itemsOfText('[1, null, {"id":"z","name":"T","kind":"kettle","transfer":"odd","inLow":5}, {"id":"z"}]'),
    ).toEqual([
      expect.objectContaining({ id: 'z', name: 'T', kind: 'transmitter', transfer: 'linear', inLow: '4' }),
    ]);
    expect(
      itemsOfText(JSON.stringify(Array.from({ length: 60 }, (_, i) => ({ id: String(i) })))),
    ).toHaveLength(20);
    const added = newItem(ITEMS);
    expect(ITEMS.some(({ id }) => id === added.id)).toBe(false);
    expect(added).toMatchObject({ from: 'f', inLow: '0', inHigh: '100', inUnit: '%' });
  });

  it('fits an address, as long as it can get, and comes back as it was', () => {
    let items = ITEMS;
    while (items.length < MOST_ITEMS)
      items = [...items, { ...newItem(items), name: 'A receiver with a long name', read: '123.456' }];
    const text = textOfItems(items);
    expect(itemsOfText(text)).toEqual(items);
    // The longest text that a page takes from its address.
    expect(text.length).toBeLessThan(6000);
    expect(itemsOfText(textOfItems(ITEMS))).toEqual(ITEMS);
  });

  it('leaves as CSV', () => {
    const csv = csvOfLoop(computeLoop(loop({}, read({ 'FI-1305': '171.5' }))));
    expect(csv.split('\r\n')[5]).toBe('FI-1305,indicator,m³/h,160.00,171.5,+3.594,2.350,2.018,1');
  });
});
