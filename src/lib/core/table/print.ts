import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { inStretches, STRIDE, type Task } from '../task/task';
import { isText, type ScalarColumn, type TextColumn } from './column';
import type { Table } from './table';

/** Cells hashed between two pauses. */
const CELLS = STRIDE >> 2;

type Hash = ReturnType<typeof sha256.create>;

/**
 * A print of a table as it was read (SHA-256, FIPS 180-4): the same for the same columns, types and
 * cells, however the file wrote them; another for any other cell. 64 hexadecimal digits.
 * @example finish(tablePrint(table)) === finish(tablePrint(readAgain))
 */
export function* tablePrint({ length, columns }: Table): Task<string> {
  const hash = sha256.create();
  addText(hash, `${JSON.stringify(length)}\n`);
  for (const column of columns) {
    addText(hash, `${JSON.stringify([column.id, column.name, column.type, column.unit])}\n`);
    yield* isText(column) ? addTexts(hash, column) : addValues(hash, column);
  }
  return bytesToHex(hash.digest());
}

const encoder = new TextEncoder();
const addText = (hash: Hash, text: string): void => void hash.update(encoder.encode(text));

/** Texts are numbered in the order in which they come, whatever the dictionary's. */
function* addTexts(hash: Hash, { codes, dictionary }: TextColumn): Task<void> {
  const numbers = new Int32Array(dictionary.length).fill(-1);
  const met: number[] = [];
  yield* inStretches(
    codes.length,
    (from, to) => {
      const numbered = new Int32Array(to - from);
      for (let i = from; i < to; i++) {
        const code = codes[i];
        if (code >= 0 && numbers[code] < 0) numbers[code] = met.push(code) - 1;
        numbered[i - from] = code < 0 ? -1 : numbers[code];
      }
      hash.update(new Uint8Array(numbered.buffer));
    },
    CELLS,
  );
  // As JSON writes them all at once.
  addText(hash, '[');
  yield* inStretches(
    met.length,
    (from, to) => {
      const texts = met.slice(from, to).map((code) => JSON.stringify(dictionary[code]));
      addText(hash, `${from > 0 ? ',' : ''}${texts.join(',')}`);
    },
    CELLS,
  );
  addText(hash, ']\n');
}

/** One NaN for all that is missing, and no minus before a zero. */
function* addValues(hash: Hash, { values, unread }: ScalarColumn): Task<void> {
  yield* inStretches(
    values.length,
    (from, to) => {
      const plain = values.slice(from, to).map((v) => (v === v ? v + 0 : NaN));
      hash.update(new Uint8Array(plain.buffer));
    },
    CELLS,
  );
  addText(hash, `${JSON.stringify([...unread])}\n`);
}
