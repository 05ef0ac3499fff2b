import type { Column, ScalarColumn, TextColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';

/** mulberry32: the same seed gives the same list. */
export function randomFrom(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A made list of 12 columns: two text keys, dates, a time, numbers, blanks. */
export function madeTable(length: number): Table {
  const random = randomFrom(7);
  const text = (id: string, names: string[], blanks = 0): TextColumn => ({
    id,
    name: id,
    unit: '',
    type: 'text',
    codes: Int32Array.from({ length }, () =>
      random() < blanks ? -1 : Math.floor(random() * names.length),
    ),
    dictionary: names,
  });
  const scalar = (
    id: string,
    type: ScalarColumn['type'],
    make: () => number,
    decimals = 0,
    blanks = 0,
  ): ScalarColumn => ({
    id,
    name: id,
    unit: '',
    type,
    values: Float64Array.from({ length }, () => (random() < blanks ? NaN : make())),
    unread: new Map(),
    decimals,
    percent: false,
    grain: 'day',
  });
  const named = (word: string, n: number): string[] =>
    Array.from({ length: n }, (_, k) => `${word} ${k + 1}`);
  const columns: Column[] = [
    scalar('day', 'date', () => 19000 + Math.floor(random() * 1200)),
    scalar('clock', 'time', () => Math.floor(random() * 1440) * 60_000),
    text('route', named('Route', 12)),
    text('vessel', named('Vessel', 30)),
    text('weather', ['calm', 'fresh', 'rain', 'fog', 'gale'], 0.02),
    text('cause', ['loading', 'tide', 'engine'], 0.8),
    scalar('boarded', 'number', () => Math.floor(random() * 450)),
    scalar('vehicles', 'number', () => Math.floor(random() * 90)),
    scalar('fares', 'number', () => Math.round(random() * 400_000) / 100, 2),
    scalar('delay', 'number', () => Math.floor(-8 * Math.log(1 - random())), 0, 0.06),
    scalar('fuel', 'number', () => random() * 900, 6, 0.01),
    scalar('cancelled', 'yesno', () => (random() < 0.03 ? 1 : 0)),
  ];
  return { length, columns };
}

/** About `bytes` of delimited text in the shape of the demo's sailings. */
export function madeFile(bytes: number): Uint8Array {
  const random = randomFrom(11);
  const encoder = new TextEncoder();
  const out = new Uint8Array(bytes + 65_536);
  let at = encoder.encodeInto(
    'Sailed on,Time,Route,Vessel,Direction,Weather,Boarded,Vehicles,Fares taken,Delay (min),Cause,Cancelled\n',
    out,
  ).written;
  const weather = ['calm', 'fresh', 'rain', 'fog', 'gale'];
  const cause = ['', '', '', '', 'loading', 'tide'];
  const two = (n: number): string => String(n).padStart(2, '0');
  while (at < bytes) {
    let text = '';
    for (let k = 0; k < 200; k++) {
      const day = `20${20 + Math.floor(random() * 6)}-${two(1 + Math.floor(random() * 12))}-${two(1 + Math.floor(random() * 28))}`;
      const time = `${two(Math.floor(random() * 24))}:${two(Math.floor(random() * 60))}`;
      text += `${day},${time},Route ${Math.floor(random() * 12)},Vessel ${Math.floor(random() * 30)},${random() < 0.5 ? 'outward' : 'inward'},${weather[Math.floor(random() * 5)]},${Math.floor(random() * 450)},${Math.floor(random() * 90)},${(random() * 4000).toFixed(2)},${random() < 0.05 ? '' : Math.floor(random() * 40)},${cause[Math.floor(random() * 6)]},${random() < 0.03 ? 'yes' : 'no'}\n`;
    }
    at += encoder.encodeInto(text, out.subarray(at)).written;
  }
  return out.subarray(0, at);
}
