import { describe, expect, it } from 'vitest';
import { ExpressionError } from '../errors';
import { scalarColumn, textColumn } from '../table/column';
import { checkExpression } from './check';

const columns = [
  scalarColumn('boarded', 'number', [120]),
  scalarColumn('fares', 'number', [1553.25]),
  textColumn('route', ['Nessness']),
  scalarColumn('sailed', 'date', [0]),
  scalarColumn('cancelled', 'yesno', [0]),
  textColumn('Überfahrt "Süd" 渡し', ['x']),
];

/** Sound expressions with a place for a number. */
const AROUND = [
  '□',
  '□ + 1',
  '1 - □',
  '(□) * 2',
  'fares / (□)',
  '-(□)',
  'ABS(□)',
  'ROUND(□, 1)',
  'MOD(10, □)',
  'COALESCE(boarded, □)',
  'NULLIF(□, 0)',
  'CASE WHEN boarded > 1 THEN □ ELSE 2 END',
  "CASE WHEN □ > 1 THEN 'a' END",
  '□ BETWEEN 1 AND 2',
  'boarded IN (1, □)',
  '□ IS NULL',
  'NOT (□ > 1)',
  'cancelled AND □ > 1',
  'route || CAST(□ AS VARCHAR)',
  '"Überfahrt ""Süd"" 渡し" = \'é𝔸\' OR □ = 1',
  '\n  □\n  * fares',
] as const;

/** Faulty numbers, where in them the fault stands, and what its remedy speaks of. */
const FAULTY: readonly (readonly [source: string, at: number, remedy: RegExp])[] = [
  ['boraded', 0, /“boarded”/],
  ['"Boarded "" x"', 0, /“boarded”/],
  ['FLOR(boarded)', 0, /FLOOR/],
  ['ABS()', 0, /ABS\(delay\)/],
  ['ROUND(fares, 2, 3)', 0, /ROUND\(fares, 2\)/],
  ['(route + 1)', 1, /\|\|/],
  ['SQRT(route)', 5, /SQRT\(boarded\)/],
  ['(sailed + 3)', 1, /INTERVAL/],
  ['EXTRACT(WEEK FROM sailed)', 8, /YEAR/],
  ['EXTRACT(HOUR FROM sailed)', 18, /YEAR, MONTH or DAY/],
  ["EXTRACT(YEAR FROM DATE '2024-13-01')", 18, /2025-01-31/],
  ['CAST(boarded AS MONEY)', 16, /NUMERIC/],
  ['(boarded fares)', 9, /bracket/],
];

const faulty = AROUND.flatMap((around) =>
  FAULTY.map(([source, at, remedy]) => {
    const before = around.indexOf('□');
    return {
      source: around.replace('□', source),
      start: before + at,
      end: before + source.length,
      remedy,
    };
  }),
);

describe(`${faulty.length} faulty expressions`, () => {
  it.each(faulty)('$source', ({ source, start, end, remedy }) => {
    let error: unknown = null;
    try {
      checkExpression(source, columns);
    } catch (e) {
      error = e;
    }
    expect(error).toBeInstanceOf(ExpressionError);
    if (!(error instanceof ExpressionError)) return;
    // At the very piece that is wrong, wherever it stands, and no further.
    expect(error.span.start).toBe(start);
    expect(error.span.end).toBeGreaterThan(start);
    expect(error.span.end).toBeLessThanOrEqual(end);
    expect(error.remedy).toMatch(remedy);
  });

  it.each(AROUND)('and none in %s around a sound number', (around) => {
    expect(() => checkExpression(around.replace('□', '(fares * 2)'), columns)).not.toThrow();
  });
});
