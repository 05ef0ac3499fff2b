import { RangeSetBuilder } from '@codemirror/state';
import {
  Decoration,
  ViewPlugin,
  type DecorationSet,
  type EditorView,
  type ViewUpdate,
} from '@codemirror/view';
import { tokens, type Token } from '../../core/expression/lex';
import { RESERVED } from '../../core/expression/parse';

/** The look of each sort of word, by the tokens that the expressions themselves are cut into. */
const LOOKS = {
  name: Decoration.mark({ class: 'ex-name' }),
  word: Decoration.mark({ class: 'ex-word' }),
  text: Decoration.mark({ class: 'ex-text' }),
  number: Decoration.mark({ class: 'ex-number' }),
};

function lookOf(token: Token, next: Token | undefined): Decoration | null {
  switch (token.kind) {
    case 'quoted':
      return LOOKS.name;
    case 'text':
      return LOOKS.text;
    case 'number':
      return LOOKS.number;
    case 'word':
      return RESERVED.has(token.text) || next?.text === '(' ? LOOKS.word : LOOKS.name;
    default:
      return null;
  }
}

function marked(view: EditorView): DecorationSet {
  const builder = new RangeSetBuilder<Decoration>();
  try {
    const all = tokens(view.state.doc.toString());
    all.forEach((token, k) => {
      const look = lookOf(token, all[k + 1]);
      if (look) builder.add(token.span.start, token.span.end, look);
    });
  } catch {
    // What cannot be cut into words yet is shown plain; the fault is told beside it.
  }
  return builder.finish();
}

export const marking = ViewPlugin.fromClass(
  class {
    decorations: DecorationSet;
    constructor(view: EditorView) {
      this.decorations = marked(view);
    }
    update(update: ViewUpdate): void {
      if (update.docChanged) this.decorations = marked(update.view);
    }
  },
  { decorations: (plugin) => plugin.decorations },
);
