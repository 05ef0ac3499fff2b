/** Words that ask and join, and say nothing of what is asked: leaving one out changes no answer. */
export const SMALL_WORDS: ReadonlySet<string> = new Set([
  ...['a', 'an', 'the', 'of', 'by', 'per', 'for', 'and', 'with', 'to', 'as', 'in', 'on', 'at'],
  ...['its', 'their', 'our', 'my', 'it', 'that', 'this', 'there', 'is', 'are', 'was', 'were', 'be'],
  ...[
    'show',
    'give',
    'tell',
    'list',
    'me',
    'us',
    'please',
    'want',
    'need',
    'i',
    'we',
    'see',
    'get',
  ],
  ...['what', 'how', 'many', 'much', 'do', 'does', 'did', 'have', 'has', 'new', 'side', 'them'],
]);
