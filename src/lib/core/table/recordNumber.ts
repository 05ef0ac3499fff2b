/*
 * Records are counted from 1 wherever a document, an answer or a person names one, as a file's lines
 * are; columns and sets hold them by their place from 0.
 */

/** The number that a record is called by. */
export const recordNumber = (place: number): number => place + 1;

/** The place of a record in its columns. */
export const recordPlace = (number: number): number => number - 1;

/** The places, in a list so long, of those of the numbers that it has. */
export const placesWithin = (numbers: readonly number[], length: number): number[] =>
  numbers.flatMap((number) => (number >= 1 && number <= length ? [recordPlace(number)] : []));
