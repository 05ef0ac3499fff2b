import { HEAD_BYTES } from './textDecoding';
import { proposeRecipe, recipeFor, type DelimitedReading } from './delimited';
import type { Doubt } from './doubts';
import { previewOf, previewOfTable, type PreviewCell } from './preview';
import type { Recipe } from './recipe';
import type { TotalMark } from './totals';
import { asCellsSay, gridDoubts, marksOfTotals } from './decode/cellGrid';
import { declaredRecipe } from './decode/declared';
import { NO_PARTS, type FileParts } from './decode/source';
import { readTyped, typedRecipe } from './decode/typed';
import type { Decoded } from './decode/decode';

/** A file opened for reading, whatever it is: what it proposes, shows first, decides and doubts. */
export class OpenedFile {
  readonly #head: Uint8Array;
  readonly #whole: boolean;
  readonly #unfolded: Decoded | null;
  /** Columns at hand as they were read last: the first records are shown of them, then all is taken. */
  #last: { readonly recipe: Recipe; readonly reading: DelimitedReading } | null = null;

  /**
   * @param head the first bytes of the delimited text in it
   * @param whole whether they are all of it
   */
  private constructor(head: Uint8Array, whole: boolean, unfolded: Decoded | null) {
    this.#head = head;
    this.#whole = whole;
    this.#unfolded = unfolded;
  }

  /** A file of delimited text, of which the first bytes are known. */
  static delimited(head: Uint8Array, whole: boolean): OpenedFile {
    return new OpenedFile(head, whole, null);
  }

  static unfolded(unfolded: Decoded): OpenedFile {
    const { content } = unfolded;
    const bytes = content.kind === 'text' ? content.bytes : new Uint8Array(0);
    return new OpenedFile(bytes.subarray(0, HEAD_BYTES), bytes.length <= HEAD_BYTES, unfolded);
  }

  get choices(): FileParts {
    return this.#unfolded?.choices ?? NO_PARTS;
  }

  /** The text to be read from its start; null: the file itself, or columns that are at hand. */
  get text(): Uint8Array | null {
    const content = this.#unfolded?.content;
    return content?.kind === 'text' ? content.bytes : null;
  }

  /** A recipe by itself. @throws IntakeError */
  propose(): Recipe {
    const content = this.#unfolded?.content;
    if (this.#unfolded && content?.kind === 'typed')
      return content.declared
        ? declaredRecipe(content.table, this.#unfolded.source, content.declared)
        : typedRecipe(content.table, this.#unfolded.source);
    const layout = content?.kind === 'text' && content.grid ? GRID : {};
    return this.#ofSource(proposeRecipe(this.#head, this.#whole, layout));
  }

  /** A recipe under another layout. @throws IntakeError */
  under(layout: Recipe): Recipe {
    return this.#unfolded?.content.kind === 'typed'
      ? this.propose()
      : this.#ofSource(recipeFor(this.#head, layout, this.#whole));
  }

  /** Columns that need no second look: the file itself says what they are. */
  decided(recipe: Recipe): ReadonlySet<string> {
    const content = this.#unfolded?.content;
    if (content?.kind === 'typed') return new Set(recipe.columns.map(({ id }) => id));
    return content?.grid ? asCellsSay(recipe, content.grid).decided : new Set();
  }

  /** The first records as a recipe reads them. */
  preview(recipe: Recipe, most: number): PreviewCell[][] {
    const typed = this.typed(recipe);
    return typed ? previewOfTable(typed.table, most) : previewOf(recipe, this.#head, most);
  }

  /** All of it by a recipe, where its columns are at hand; null: its text is to be read. */
  typed(recipe: Recipe): DelimitedReading | null {
    const content = this.#unfolded?.content;
    if (content?.kind !== 'typed') return null;
    if (this.#last?.recipe !== recipe)
      this.#last = { recipe, reading: readTyped(content.table, recipe) };
    return this.#last.reading;
  }

  /** What is doubtful about the file besides what its cells tell. */
  doubts(recipe: Recipe): Doubt[] {
    if (!this.#unfolded) return [];
    const { content, doubts } = this.#unfolded;
    const cells = content.kind === 'text' && content.grid ? gridDoubts(recipe, content.grid) : [];
    return [...cells, ...doubts];
  }

  /** Records that a sheet marks as totals, by formulas or bold type. */
  marks(recipe: Recipe): ReadonlyMap<number, TotalMark> {
    const content = this.#unfolded?.content;
    return content?.kind === 'text' && content.grid
      ? marksOfTotals(recipe, content.grid)
      : new Map();
  }

  #ofSource(recipe: Recipe): Recipe {
    if (!this.#unfolded) {
      const { source: _, ...read } = recipe;
      return read;
    }
    const { content, source } = this.#unfolded;
    const read = { ...recipe, source };
    return content.kind === 'text' && content.grid ? asCellsSay(read, content.grid).recipe : read;
  }
}

/** How cells of a grid were written as text. */
const GRID = { delimiter: ',', quote: '"', encoding: 'utf-8' } as const;
