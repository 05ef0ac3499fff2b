import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { isText } from './column';
import type { Table } from './table';

/**
 * A print of a table as it was read (SHA-256, FIPS 180-4): the same for the same columns, types and
 * cells, however the file wrote them; another for any other cell. 64 hexadecimal digits.
 * @example tablePrint(table) === tablePrint(readAgain)
 */
export function tablePrint({ length, columns }: Table): string {
  const hash = sha256.create();
  const words = (value: unknown): void => {
    hash.update(new TextEncoder().encode(`${JSON.stringify(value)}\n`));
  };
  words(length);
  for (const column of columns) {
    words([column.id, column.name, column.type, column.unit]);
    if (isText(column)) {
      // Texts are numbered in the order in which they come, whatever the dictionary's.
      const order = new Map<number, number>();
      const codes = column.codes.map((code) => {
        if (code < 0) return -1;
        const known = order.get(code) ?? order.size;
        order.set(code, known);
        return known;
      });
      hash.update(new Uint8Array(codes.buffer));
      words([...order.keys()].map((code) => column.dictionary[code]));
    } else {
      // One NaN for all that is missing, and no minus before a zero.
      const values = column.values.map((v) => (v === v ? v + 0 : NaN));
      hash.update(new Uint8Array(values.buffer, values.byteOffset, values.byteLength));
      words([...column.unread]);
    }
  }
  return bytesToHex(hash.digest());
}
