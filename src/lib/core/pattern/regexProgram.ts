import { NotLinear, type Regex } from './regexParse';

/** A step of a program: each names the steps that follow it. */
export type Step =
  | { readonly do: 'character'; readonly fits: (codePoint: number) => boolean; next: number }
  | { readonly do: 'edge'; readonly at: 'start' | 'end' | 'word' | 'noWord'; next: number }
  | { readonly do: 'fork'; readonly next: number[] }
  | { readonly do: 'match' };

/** Steps that an expression may come to, counted repeats written out. */
const MOST_STEPS = 2000;

/**
 * The nondeterministic automaton of a regular expression (Thompson 1968): its first step is 0.
 * @param flags of the language's own engine, which tells single characters: `u` or `iu`
 * @throws NotLinear where it comes to more than 2,000 steps
 */
export function programOf(regex: Regex, flags: 'u' | 'iu'): readonly Step[] {
  const steps: Step[] = [];
  const characters = new Map<string, (codePoint: number) => boolean>();
  const put = (step: Step): number => {
    if (steps.length >= MOST_STEPS) throw new NotLinear('repeats too much');
    return steps.push(step) - 1;
  };
  /** Writes steps from the last to the first, so that each knows what follows. */
  const write = (of: Regex, next: number): number => {
    switch (of.re) {
      case 'character': {
        let fits = characters.get(of.source);
        if (!fits) characters.set(of.source, (fits = characterTest(of.source, flags)));
        return put({ do: 'character', fits, next });
      }
      case 'edge':
        return put({ do: 'edge', at: of.at, next });
      case 'all':
        return of.of.reduceRight((after, part) => write(part, after), next);
      case 'either':
        return put({ do: 'fork', next: of.of.map((part) => write(part, next)) });
      case 'times':
        return times(of, next);
    }
  };
  const times = ({ of, least, most }: Extract<Regex, { re: 'times' }>, next: number): number => {
    let at = next;
    if (most === Infinity) {
      const loop: number[] = [];
      at = put({ do: 'fork', next: loop });
      loop.push(write(of, at), next);
    } else for (let k = least; k < most; k++) at = put({ do: 'fork', next: [write(of, at), next] });
    for (let k = 0; k < least; k++) at = write(of, at);
    return at;
  };
  const end = put({ do: 'match' });
  const begin = write(regex, end);
  return [{ do: 'fork', next: [begin + 1] }, ...steps.map((step) => moved(step))];
}

/** Places of steps, once one stands before all. */
function moved(step: Step): Step {
  if (step.do === 'match') return step;
  if (step.do === 'fork') return { do: 'fork', next: step.next.map((n) => n + 1) };
  return { ...step, next: step.next + 1 };
}

/** Asks the language's own engine of one character at a time, and remembers what it said. */
function characterTest(source: string, flags: 'u' | 'iu'): (codePoint: number) => boolean {
  const regex = new RegExp(`^${source}$`, flags);
  const known = new Map<number, boolean>();
  return (codePoint) => {
    let fits = known.get(codePoint);
    if (fits === undefined)
      known.set(codePoint, (fits = regex.test(String.fromCodePoint(codePoint))));
    return fits;
  };
}
