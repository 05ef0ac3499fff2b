import type { Shape } from './protocol';

/** What a chart shows, in as many answers as its steps take. @param ask one answer: from a step on */
export async function gatherShape(ask: (from: number) => Promise<Shape> | Shape): Promise<Shape> {
  let shape = await ask(0);
  while (shape.kind === 'series' && shape.steps.length < shape.length) {
    const more = await ask(shape.steps.length);
    if (more.kind !== 'series' || more.steps.length === 0) break;
    const { lines } = more;
    shape = {
      ...shape,
      steps: [...shape.steps, ...more.steps],
      stepKeys: [...shape.stepKeys, ...more.stepKeys],
      lines: shape.lines.map((line, k) => ({
        ...line,
        values: [...line.values, ...lines[k].values],
      })),
    };
  }
  return shape;
}
