/**
 * What the bytes 80 to 9F stand for in Windows-1252, by the Encoding Standard; the five that stand for
 * nothing are controls there as well. The bytes before and behind stand for the characters of their
 * number.
 */
export const WINDOWS_1252 = '€\x81‚ƒ„…†‡ˆ‰Š‹Œ\x8dŽ\x8f\x90‘’“”•–—˜™š›œ\x9džŸ';
