import { z } from 'zod';
import { Recipe } from '../read/recipe';
import { Condition } from '../scope/condition';
import { Ask } from './ask';
import { AskResult } from './result';

export const SCHEMAS = ['ask', 'result', 'recipe'] as const;
export type SchemaName = (typeof SCHEMAS)[number];

const TITLES: Record<SchemaName, string> = {
  ask: 'An ask: any number of tallies over a list',
  result: 'What an ask comes to',
  recipe: 'How a file is read into a list',
};

/** JSON Schema (2020-12) of a document, made from the schema it is checked by. */
export function schemaOf(name: SchemaName): Record<string, unknown> {
  const source = { ask: Ask, result: AskResult, recipe: Recipe }[name];
  const registry = z.registry<{ id: string }>();
  registry.add(Condition, { id: 'Condition' });
  return {
    title: TITLES[name],
    ...z.toJSONSchema(source, {
      io: name === 'result' ? 'output' : 'input',
      metadata: registry,
      reused: 'ref',
    }),
  };
}
