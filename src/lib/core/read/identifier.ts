/** Words in a head that name what is counted by nobody: told by themselves, or only with more evidence. */
const SURE =
  /\b(id|ids|uuid|code|codes|account|acct|iban|phone|telephone|tel|mobile|fax|postcode|postal|zip|sku|isbn|ean|barcode|serial|ref|reference|cost cent(?:re|er)|version)\b/i;
const PERHAPS =
  /\b(no|nr|number|invoice|order|parcel|ticket|booking|customer|employee|member|batch|policy|key)\b/i;
/** Heads that count or measure all the same. */
const COUNTS =
  /\b(number of|no of|nr of|count|total|amount|sum|value|price|qty|quantity|rate|length)\b/i;

/** Names of another form than digits: 1.1 and 1.10 are two versions, a telephone number begins with a plus. */
const OWN_FORMS: readonly { readonly heads: RegExp; readonly form: RegExp }[] = [
  { heads: /\bversion\b/i, form: /^v?\d+(\.\d+)*$/i },
  { heads: /\b(phone|telephone|tel|mobile|fax)\b/i, form: /^\+?[\d\s()./-]+$/ },
];

/** Values that are looked at for a numbering that runs on. */
const RUN = 20;

/** A head as words: `vesselId` and `vessel_id` as `vessel Id`, `vessel id`. */
const wordsOf = (head: string): string =>
  head.replace(/([a-z])([A-Z])/g, '$1 $2').replace(/[_\-./#]+/g, ' ');

/** Why a column of whole numbers looks like names rather than quantities; none where it does not. */
export function identifierEvidence(head: string, texts: readonly string[]): string[] {
  const words = wordsOf(head);
  const ownForm = OWN_FORMS.find(({ heads }) => heads.test(words))?.form;
  if (texts.length === 0) return [];
  if (ownForm && texts.every((t) => ownForm.test(t))) return [`its name, “${head}”`];
  if (!texts.every((t) => /^\d+$/.test(t) || isCode(t))) return [];
  const why: string[] = [];
  const counts = COUNTS.test(words);
  if (!counts && (SURE.test(words) || PERHAPS.test(words))) why.push(`its name, “${head}”`);
  if (texts.some((t) => /^0\d/.test(t))) why.push('leading zeros');
  if (texts.some(isCode)) why.push('a letter among the digits');
  const lengths = new Set(texts.map((t) => t.length));
  if (lengths.size === 1 && texts.length >= 5 && texts[0].length >= 5) why.push('one fixed length');
  if (texts.length >= RUN && runsOn(texts)) why.push('a numbering that runs on');
  return why;
}

/** Whether a head names what is counted by nobody, by itself: an account, a code, a telephone. */
export const isNamedIdentifier = (head: string): boolean =>
  SURE.test(wordsOf(head)) && !COUNTS.test(wordsOf(head));

/** Whether a number would not be written so: a zero in front, or an E between plain digits. */
export const isCodeLike = (text: string): boolean => /^0\d+$/.test(text) || isCode(text);

/** Digits, a letter E and digits, with no sign and no decimals: a code, not a power of ten. */
const isCode = (text: string): boolean => /^\d+[eE]\d+$/.test(text);

/** Nine of ten values are one more than the one before. */
function runsOn(texts: readonly string[]): boolean {
  let steps = 0;
  for (let k = 1; k < texts.length; k++) if (Number(texts[k]) - Number(texts[k - 1]) === 1) steps++;
  return steps >= 0.9 * (texts.length - 1);
}

/**
 * Whether that is enough to keep a column as it stands, as text that is never added up: a name that
 * says so by itself, or one of several signs beside a name that may; zeros and letters that a number
 * would lose.
 */
export function isIdentifier(head: string, texts: readonly string[]): boolean {
  const why = identifierEvidence(head, texts);
  if (why.length === 0) return false;
  const named = why[0].startsWith('its name');
  if (why.includes('a letter among the digits') || why.includes('leading zeros')) return true;
  return named && (SURE.test(wordsOf(head)) || why.length > 1);
}
