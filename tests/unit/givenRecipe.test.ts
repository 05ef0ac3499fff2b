import { describe, expect, it } from 'vitest';
import { fitRecipe, retyped } from '$lib/core/read/givenRecipe';
import { OpenedFile } from '$lib/core/read/opened';
import type { Recipe } from '$lib/core/read/recipe';
import { readText } from '../support/demo';

const { recipe } = readText('route,fares,day\nHolm,5,2025-01-02\n');
const fit = (text: string, missing?: 'blank') =>
  fitRecipe(recipe, OpenedFile.delimited(new TextEncoder().encode(text), true), missing);
const places = ({ columns }: Recipe) => columns.map((c) => [c.id, c.at]);

describe('a recipe that was given', () => {
  it('finds its columns by their headings, wherever they stand', () => {
    const fitted = fit('Day,ROUTE,crew, fares\n2025-01-03,Ness,4,6\n');
    expect(places(fitted.recipe)).toEqual([
      ['route', 1],
      ['fares', 3],
      ['day', 0],
    ]);
    expect(fitted.leftOut).toEqual(['crew']);
    expect(fitted.recipe.width).toBe(4);
  });

  it('keeps its types where the file looks otherwise', () => {
    const fitted = fit('route,fares,day\n1,2,3\n');
    expect(fitted.recipe.columns.map((c) => c.type)).toEqual(recipe.columns.map((c) => c.type));
  });

  it('is refused where a column is gone, unless it may be blank', () => {
    expect(() => fit('route,day\nHolm,2025-01-02\n')).toThrow(
      'The file has no “fares”, which the recipe takes. Its columns are “route”, “day”.',
    );
    const fitted = fit('route,day\nHolm,2025-01-02\n', 'blank');
    expect(places(fitted.recipe)).toEqual([
      ['route', 0],
      ['fares', null],
      ['day', 1],
    ]);
  });

  it('takes what it says is in no file for granted', () => {
    const without = {
      ...recipe,
      columns: recipe.columns.map((c) => (c.id === 'fares' ? { ...c, at: null } : c)),
    };
    const head = new TextEncoder().encode('route,day\nHolm,2025-01-02\n');
    expect(() => fitRecipe(without, OpenedFile.delimited(head, true))).not.toThrow();
  });

  it('goes by place where there is no header', () => {
    const bare = { ...recipe, header: false };
    const head = new TextEncoder().encode('Holm,5,2025-01-02\nNess,6,2025-01-03\n');
    expect(places(fitRecipe(bare, OpenedFile.delimited(head, true)).recipe)).toEqual(
      places(recipe),
    );
  });
});

describe('a column of another type', () => {
  it('is found by name or id, and named where it is not there', () => {
    const types = (ref: string) => retyped(recipe, new Map([[ref, 'text']])).columns[1].type;
    expect(recipe.columns[1].type).toBe('number');
    expect([types('fares'), types(' FARES ')]).toEqual(['text', 'text']);
    expect(() => types('fare')).toThrow('Did you mean “fares”?');
  });
});
