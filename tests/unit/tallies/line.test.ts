import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fitLine, fitLines } from '$lib/core/measure/line';
import { finish } from '$lib/core/task/task';
import { scalarColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { key, near, sql, table } from '../../support/againstSql';
import { answered, behind, faultsOf, groups, rows, answeredOn } from '../../support/ask';

const xy = (x: readonly number[], y: readonly number[]): Table => ({
  length: x.length,
  columns: [scalarColumn('X', 'number', [...x]), scalarColumn('Y', 'number', [...y])],
});
const line = (more: object = {}) => ({ kind: 'line', x: 'X', y: 'Y', ...more });

describe('the line against certified values', () => {
  // NIST StRD, linear regression through the origin: NoInt1 (11 points) and NoInt2 (3 points).
  it.each([
    {
      set: 'NoInt1',
      x: [60, 61, 62, 63, 64, 65, 66, 67, 68, 69, 70],
      y: [130, 131, 132, 133, 134, 135, 136, 137, 138, 139, 140],
      slope: 2.07438016528926,
      se: 0.0165289256198347,
      sd: 3.56753034006338,
      r2: 0.999365492298663,
    },
    {
      set: 'NoInt2',
      x: [4, 5, 6],
      y: [3, 4, 4],
      slope: 0.727272727272727,
      se: 0.0420827318078432,
      sd: 0.369274472937998,
      r2: 0.993348115299335,
    },
  ])('$set, through the origin', ({ x, y, slope, se, sd, r2 }) => {
    const [got] = rows(answered(xy(x, y), { tallies: [line({ origin: true })] }));
    const close = (v: number) => expect.closeTo(v, 12);
    expect([
      got['Slope'],
      got['Standard error of the slope'],
      got['Residual deviation'],
      got['Explained r²'],
      got['Intercept'],
      got['Standard error of the intercept'],
    ]).toEqual([close(slope), close(se), close(sd), close(r2), 0, null]);
  });

  it('keeps its digits where x and y lie far from 0', () => {
    const x = [1, 2, 3, 4, 5].map((v) => v + 1e9);
    const y = [2, 4, 5, 4, 5].map((v) => v + 1e12);
    const near0 = fitLine([1, 2, 3, 4, 5], [2, 4, 5, 4, 5]);
    expect(fitLine(x, y)?.slope).toBeCloseTo(near0?.slope ?? NaN, 12);
    expect(fitLine(x, y)?.residualSd).toBeCloseTo(near0?.residualSd ?? NaN, 12);
  });

  it('a line through exact points is exact, whatever the points', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -1000, max: 1000 }),
        fc.integer({ min: -1000, max: 1000 }),
        fc.uniqueArray(fc.integer({ min: -500, max: 500 }), { minLength: 2, maxLength: 30 }),
        (a, b, x) => {
          const found = fitLine(
            x,
            x.map((v) => a + b * v),
          );
          expect(found?.slope).toBeCloseTo(b, 9);
          expect(found?.intercept).toBeCloseTo(a, 6);
          if (x.length > 2) expect(found?.residualSd).toBeLessThan(1e-6);
        },
      ),
    );
  });

  it('leaves are fitted as each would be by itself', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.integer({ min: 0, max: 2 }),
            fc.integer({ max: 99, min: -99 }),
            fc.integer({ min: -99, max: 99 }),
          ),
          { minLength: 1, maxLength: 60 },
        ),
        (list) => {
          const lines = finish(
            fitLines({
              x: Float64Array.from(list, ([, x]) => x),
              y: Float64Array.from(list, ([, , y]) => y),
              records: Int32Array.from(list.keys()),
              leafOf: Int32Array.from(list, ([g]) => g),
              leaves: 3,
              origin: false,
            }),
          );
          [0, 1, 2].forEach((g) => {
            const own = list.filter(([of]) => of === g);
            const alone = fitLine(
              own.map(([, x]) => x),
              own.map(([, , y]) => y),
            );
            expect(lines[g].n).toBe(own.length);
            expect(lines[g].line === null).toBe(alone === null);
            for (const fact of ['n', 'slope', 'intercept', 'least', 'most'] as const)
              expect(lines[g].line?.[fact] ?? 0).toBeCloseTo(alone?.[fact] ?? 0, 9);
          });
        },
      ),
    );
  });
});

describe('the line of a list', () => {
  const asked = line({ x: 'Boarded', y: 'Fares taken', by: [key('Vessel')] });

  it('is what SQL finds, whole and by groups', () => {
    const result = answered(table, { tallies: [asked] });
    const fit = (where: string) =>
      sql(`with m as (select avg(boarded) mx, avg(fares) my from s where boarded is not null and fares is not null and ${where})
        select count(*) n, sum((boarded - mx) * (fares - my)) / sum((boarded - mx) * (boarded - mx)) slope,
          sum((boarded - mx) * (fares - my)) / sqrt(sum((boarded - mx) * (boarded - mx)) * sum((fares - my) * (fares - my))) r
        from s, m where boarded is not null and fares is not null and ${where}`)[0];
    for (const row of rows(result)) {
      const want = fit(row['Vessel'] === 'All' ? '1' : `vessel = '${row['Vessel']}'`);
      expect([row['Points'], row['Slope'], row['Correlation r']]).toEqual([
        want.n,
        near(want.slope),
        near(want.r),
      ]);
    }
    expect(rows(result).length).toBe(10);
  });

  it('names the records far off, and opens each', () => {
    const { input, result } = answeredOn(table, { tallies: [asked] });
    const [first] = groups(result, 'far');
    const [far] = sql('select n from s order by fares desc limit 1');
    expect(first['Record']).toBe(Number(far.n) + 1);
    expect([
      ...behind(input, result.tallies[0], { table: 'far', row: 0, column: 'y' }).records,
    ]).toEqual([far.n]);
    expect(result.tallies[0].warnings.map((w) => w.code)).toContain('far-off');
  });

  it('predicts with the bounds of Student t, and says where it goes beyond the points', () => {
    // Worked out by hand: slope 0.6, intercept 2.2, residual deviation √0.8, t(0.975, 3) = 3.18245.
    const result = answered(xy([1, 2, 3, 4, 5], [2, 4, 5, 4, 5]), {
      tallies: [line({ at: [4, 9] })],
    });
    const reach = 3.182446305284263 * Math.sqrt(0.8) * Math.sqrt(1 + 1 / 5 + 1 / 10);
    const [inside, beyond] = rows(result, 'predictions');
    expect(Object.values(inside)).toEqual([4, near(4.6), near(4.6 - reach), near(4.6 + reach)]);
    expect(beyond['Predicted Y']).toEqual(near(7.6));
    const { rows: told } = result.tallies[0].tables[1];
    expect(told.map((r) => r.marks?.[0]?.kind)).toEqual([undefined, 'doubt']);
  });

  it('a series over its periods, each period opening its records', () => {
    const series = {
      column: 'Sailed on',
      period: 'year',
      measure: { kind: 'sum', column: 'Boarded' },
    };
    const { input, result } = answeredOn(table, { tallies: [{ kind: 'line', series }] });
    const years = sql(
      'select substr(sailed_on, 1, 4) y, sum(boarded) b from s group by 1 order by 1',
    );
    const want = fitLine(
      years.map((_, k) => k + 1),
      years.map((r) => Number(r.b)),
    );
    expect(rows(result)[0]['Slope']).toEqual(near(want?.slope));
    const place = { table: 'points', row: ['2024-01-01'], column: 'y' };
    expect(behind(input, result.tallies[0], place).records.length).toBe(
      sql("select count(*) n from s where sailed_on like '2024%'")[0].n,
    );
  });

  it('none where x does not vary or a single point is there; errors of coefficients need three', () => {
    const [same] = rows(answered(xy([2, 2, 2], [1, 2, 3]), { tallies: [line()] }));
    expect([same['Points'], same['Slope']]).toEqual([3, null]);
    const [single] = rows(answered(xy([2, NaN], [1, 5]), { tallies: [line()] }));
    expect([single['Points'], single['Slope']]).toEqual([1, null]);
    const [two] = rows(answered(xy([1, 2], [3, 5]), { tallies: [line()] }));
    expect([two['Slope'], two['Standard error of the slope'], two['Residual deviation']]).toEqual([
      2,
      null,
      null,
    ]);
  });

  it('says what does not fit', () => {
    const faults = (tally: object) => faultsOf(() => answered(table, { tallies: [tally] }));
    expect(faults({ kind: 'line', x: 'Vessel', y: 'Boarded' })[0]).toContain('tallies[0].x');
    expect(faults({ kind: 'line', x: 'Boarded' })[0]).toContain('A line needs two number columns');
    expect(faults({ kind: 'line', x: 'Boarded', y: 'Boarded' })[0]).toContain('on itself');
  });
});
