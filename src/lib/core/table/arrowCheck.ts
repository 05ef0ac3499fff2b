import { BadArrow } from '../errors';

/** Bytes that begin a message since version 0.15 of the format. */
const CONTINUATION = 0xffffffff;
/** Tables of one message: more columns than any list has. */
const MOST_TABLES = 100_000;

/** Bytes of one unpacked buffer: more than any column of ours. */
const MOST_UNPACKED = 2 ** 31 - 1;

/** Kinds of header, by their numbers in the format's `Message.fbs`. */
const SCHEMA = 1;
const DICTIONARY = 2;
const RECORDS = 3;

/**
 * Checks an Arrow IPC stream from outside before anything is made of it: every offset, length and
 * count lies within its message, so that reading it takes no more room than its bytes. What the
 * columns hold is not looked at here.
 *
 * Follows "IPC Streaming Format" of the Arrow columnar format, and the layout of FlatBuffers.
 * @throws BadArrow
 */
export function checkArrow(bytes: Uint8Array): ArrowFacts {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const facts: Mutable = { records: 0, packed: [] };
  for (let at = 0; at < bytes.length;) {
    if (at + 4 > bytes.length) throw damaged();
    let size = view.getUint32(at, true);
    at += 4;
    if (size === CONTINUATION) {
      if (at + 4 > bytes.length) throw damaged();
      size = view.getUint32(at, true);
      at += 4;
    }
    if (size === 0) break;
    if (at + size > bytes.length) throw damaged();
    const message = new Message(bytes.subarray(at, at + size), facts);
    at += size + message.check(bytes.subarray(at + size));
  }
  return facts;
}

/**
 * The same of a stream that must stand as it is, as tables are kept and sent.
 * @returns how many records it says it holds
 * @throws BadArrow
 */
export function checkPlainArrow(bytes: Uint8Array): number {
  const { records, packed } = checkArrow(bytes);
  if (packed.length) throw new BadArrow('The data is compressed: send it as it is.');
  return records;
}

/** What was found on the way through Arrow data. */
export interface ArrowFacts {
  /** How many records it says it holds. */
  readonly records: number;
  /** What each packed buffer says it comes to, in their order. */
  readonly packed: readonly number[];
}

interface Mutable {
  records: number;
  readonly packed: number[];
}

const damaged = (): BadArrow =>
  new BadArrow('The data is not a whole Arrow IPC stream: a part of it lies outside.');

const FILE_MARK = 'ARROW1';
/** The mark that begins a file, filled up to eight bytes. */
const FILE_HEAD = 8;
/** Behind the footer: its length and the mark again. */
const FILE_END = 4 + FILE_MARK.length;

export const isArrowFile = (bytes: Uint8Array): boolean =>
  new TextDecoder().decode(bytes.subarray(0, FILE_MARK.length)) === FILE_MARK;

/**
 * Checks an Arrow IPC file as `checkArrow` does a stream: its footer, and every message that the footer
 * names. Follows "IPC File Format" of the Arrow columnar format.
 * @throws BadArrow
 */
export function checkArrowFile(bytes: Uint8Array): ArrowFacts {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const end = bytes.length - FILE_END;
  const footer = end > FILE_HEAD ? view.getInt32(end, true) : -1;
  if (footer <= 0 || end - footer < FILE_HEAD) throw damaged();
  const facts: Mutable = { records: 0, packed: [] };
  const found = new Message(bytes.subarray(end - footer, end), facts);
  found.checkFooter(bytes.subarray(0, end - footer));
  return facts;
}

/**
 * Where a message of a file begins, behind the mark that it goes on (not there before version 0.15) and
 * its length. The reader trusts this length, and goes back for ever where it is below nothing.
 */
function messageAt(file: Uint8Array, from: number, size: number): number {
  const view = new DataView(file.buffer, file.byteOffset, file.byteLength);
  const prefix = view.getUint32(from, true) === CONTINUATION ? 8 : 4;
  if (view.getUint32(from + prefix - 4, true) !== size - prefix) throw damaged();
  return from + prefix;
}

/** The description of one message: a FlatBuffer. */
class Message {
  readonly #view: DataView;
  #tables = 0;

  constructor(
    readonly bytes: Uint8Array,
    readonly facts: Mutable,
  ) {
    this.#view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  }

  /** @param behind bytes behind it @returns how many of them are its body */
  check(behind: Uint8Array): number {
    const message = this.#follow(0);
    const at = this.#fields(message);
    const kind = at(1) ? this.#uint8(at(1)) : 0;
    const header = at(2) ? this.#follow(at(2)) : 0;
    const body = at(3) ? this.#int64(at(3)) : 0;
    if (body < 0 || body > behind.length) throw damaged();
    this.#keyValues(at(4));
    if (!header) throw damaged();
    if (kind === SCHEMA) this.#schema(header);
    else if (kind === DICTIONARY) this.#dictionary(header, behind.subarray(0, body));
    else if (kind === RECORDS)
      this.facts.records += this.#records(header, behind.subarray(0, body));
    else throw new BadArrow('The data holds what is no part of a table.');
    return body;
  }

  /** Fields of `File.fbs`: 1 the schema, 2 and 3 where the dictionaries and the records lie. */
  checkFooter(file: Uint8Array): void {
    const at = this.#fields(this.#follow(0));
    if (!at(1)) throw damaged();
    this.#schema(this.#follow(at(1)));
    for (const blocks of [at(2), at(3)])
      this.#each(blocks, 24, (place) => {
        const from = this.#int64(place);
        const size = this.#int32(place + 8);
        const body = this.#int64(place + 16);
        if (from < 0 || size < 8 || body < 0 || from + size + body > file.length) throw damaged();
        const own = file.subarray(messageAt(file, from, size), from + size);
        new Message(own, this.facts).check(file.subarray(from + size, from + size + body));
      });
  }

  #schema(table: number): void {
    const at = this.#fields(table);
    this.#each(at(1), 4, (place) => this.#field(this.#follow(place), 0));
    this.#keyValues(at(2));
    this.#vector(at(3), 8);
  }

  #field(table: number, depth: number): void {
    if (depth > 8) throw damaged();
    const at = this.#fields(table);
    this.#vector(at(0), 1);
    // Its type and the encoding of its dictionary hold single numbers, and a table at most.
    for (const inner of [at(3), at(4)]) if (inner) this.#fields(this.#follow(inner));
    this.#each(at(5), 4, (place) => this.#field(this.#follow(place), depth + 1));
    this.#keyValues(at(6));
  }

  #keyValues(vector: number): void {
    this.#each(vector, 4, (place) => {
      const at = this.#fields(this.#follow(place));
      this.#vector(at(0), 1);
      this.#vector(at(1), 1);
    });
  }

  #dictionary(table: number, body: Uint8Array): void {
    const at = this.#fields(table);
    if (!at(1)) throw damaged();
    this.#records(this.#follow(at(1)), body);
  }

  #records(table: number, body: Uint8Array): number {
    const at = this.#fields(table);
    const isPacked = at(3) !== 0;
    let room = isPacked ? 0 : body.length;
    this.#each(at(2), 16, (place) => {
      const from = this.#int64(place);
      const size = this.#int64(place + 8);
      if (from < 0 || size < 0 || from + size > body.length) throw damaged();
      if (isPacked) room += this.#unpackedSize(body.subarray(from, from + size));
    });
    const records = this.#length(at(0) ? this.#int64(at(0)) : 0, room);
    this.#each(at(1), 16, (place) => {
      this.#length(this.#int64(place), room);
      this.#length(this.#int64(place + 8), room);
    });
    if (isPacked) this.#fields(this.#follow(at(3)));
    this.#vector(at(4), 8);
    return records;
  }

  /** A packed buffer begins with the size that it comes to; −1: it stands as it is. */
  #unpackedSize(buffer: Uint8Array): number {
    if (buffer.length === 0) return 0;
    if (buffer.length < 8) throw damaged();
    const size = Number(
      new DataView(buffer.buffer, buffer.byteOffset, buffer.length).getBigInt64(0, true),
    );
    if (size === -1) return buffer.length - 8;
    // The library takes what it unpacks as one piece of memory.
    if (size < 0 || size > MOST_UNPACKED) throw damaged();
    this.facts.packed.push(size);
    return size;
  }

  /** Each record takes a bit at least. */
  #length(n: number, body: number): number {
    if (n < 0 || n > 8 * body) throw damaged();
    return n;
  }

  /** Where each field of a table lies; 0 where it has none. */
  #fields(table: number): (n: number) => number {
    if (++this.#tables > MOST_TABLES) throw damaged();
    const places = table - this.#int32(table);
    const size = this.#uint16(places);
    if (size < 4 || places + size > this.bytes.length) throw damaged();
    return (n) => {
      const place = 4 + 2 * n;
      if (place + 2 > size) return 0;
      const offset = this.#uint16(places + place);
      return offset === 0 ? 0 : this.#within(table + offset, 1);
    };
  }

  /** Where a vector's members begin, and how many there are. */
  #vector(place: number, size: number): { from: number; length: number } {
    if (!place) return { from: 0, length: 0 };
    const vector = this.#follow(place);
    const length = this.#uint32(vector);
    this.#within(vector + 4, length * size);
    return { from: vector + 4, length };
  }

  #each(place: number, size: number, look: (place: number) => void): void {
    const { from, length } = this.#vector(place, size);
    for (let k = 0; k < length; k++) look(from + k * size);
  }

  /** Where an offset leads, which counts from its own place. */
  #follow(place: number): number {
    return this.#within(place + this.#uint32(place), 4);
  }

  #within(place: number, size: number): number {
    if (!(place >= 0 && place + size <= this.bytes.length)) throw damaged();
    return place;
  }

  #uint8(place: number): number {
    return this.#view.getUint8(this.#within(place, 1));
  }

  #uint16(place: number): number {
    return this.#view.getUint16(this.#within(place, 2), true);
  }

  #int32(place: number): number {
    return this.#view.getInt32(this.#within(place, 4), true);
  }

  #uint32(place: number): number {
    return this.#view.getUint32(this.#within(place, 4), true);
  }

  /** Exact up to 2^53, and past every limit above that. */
  #int64(place: number): number {
    return Number(this.#view.getBigInt64(this.#within(place, 8), true));
  }
}
