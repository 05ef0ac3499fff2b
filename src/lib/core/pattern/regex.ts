import { parseRegex } from './regexParse';
import { programOf, type Step } from './regexProgram';

export { NotLinear } from './regexParse';

/**
 * Whether a regular expression is found anywhere in a text, in time linear in the text whatever the
 * expression: all ways through its automaton are followed at once (Thompson 1968; Pike's form, see
 * Cox, "Regular expression matching can be simple and fast", 2007), so that nothing is tried again.
 *
 * The form is ECMAScript's with the u flag. References back and looks ahead or behind are refused, as
 * no automaton has them; captures make no difference to whether there is a match.
 * @param exact case counts
 * @throws SyntaxError where the expression is not well formed
 * @throws NotLinear where it has what is refused, or comes to more than 2,000 steps
 * @example regexTest('^(holm|ness)', false)('Nessness') // true
 */
export function regexTest(source: string, exact: boolean): (text: string) => boolean {
  const flags = exact ? 'u' : 'iu';
  new RegExp(source, flags);
  const program = programOf(parseRegex(source), flags);
  return (text) => run(program, text);
}

const WORD = /^\w$/u;
const isWord = (codePoint: number): boolean =>
  codePoint >= 0 && codePoint < 128 && WORD.test(String.fromCharCode(codePoint));

/** Follows all ways at once. A step is in the set of ways once, at whichever place it was reached. */
function run(program: readonly Step[], text: string): boolean {
  let now: number[] = [];
  const reached = new Int32Array(program.length).fill(-1);
  const open: number[] = [];
  let place = 0;
  let before = -1;
  for (let at = 0; ; place++) {
    const here = text.codePointAt(at) ?? -1;
    open.push(0, ...now);
    const next: number[] = [];
    for (let n = open.pop(); n !== undefined; n = open.pop()) {
      if (reached[n] === place) continue;
      reached[n] = place;
      const step = program[n];
      switch (step.do) {
        case 'match':
          return true;
        case 'fork':
          for (const way of step.next) open.push(way);
          break;
        case 'edge':
          if (stands(step.at, before, here)) open.push(step.next);
          break;
        case 'character':
          if (here >= 0 && step.fits(here)) next.push(step.next);
      }
    }
    if (here < 0) return false;
    now = next;
    before = here;
    at += here > 0xffff ? 2 : 1;
  }
}

function stands(at: 'start' | 'end' | 'word' | 'noWord', before: number, here: number): boolean {
  if (at === 'start') return before < 0;
  if (at === 'end') return here < 0;
  return (isWord(before) !== isWord(here)) === (at === 'word');
}
