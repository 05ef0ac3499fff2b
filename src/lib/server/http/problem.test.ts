import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { BadAsk, BadCondition, EngineError, TallyRefused } from '$lib/core/errors';
import { BadInput, TooLarge } from '../errors';
import { dialectAsked, fileResponse, formAsked } from './forms';
import { answering, bodyOf, bytesOf, formOf, idOf, jsonOf, notFound, problem } from './problem';

const post = (body: BodyInit | null, headers: Record<string, string> = {}): Request =>
  new Request('http://loft/api', {
    method: 'POST',
    body,
    headers,
    ...(body instanceof ReadableStream && { duplex: 'half' }),
  } as RequestInit);

/** A body that comes in parts, and whether it was given up before its end. */
function inParts(parts: readonly string[]): { body: ReadableStream; cancelled: () => boolean } {
  let cancelled = false;
  let at = 0;
  const body = new ReadableStream({
    pull(to) {
      if (at < parts.length) to.enqueue(new TextEncoder().encode(parts[at++]));
      else to.close();
    },
    cancel() {
      cancelled = true;
    },
  });
  return { body, cancelled: () => cancelled };
}

describe('problem details', () => {
  it('say what is wrong, by their type', async () => {
    const response = problem(422, 'Cannot be done', 'There is no such column.', { at: 'sort[0]' });
    expect(response.status).toBe(422);
    expect(response.headers.get('content-type')).toBe('application/problem+json');
    expect(await response.json()).toEqual({
      type: 'about:blank',
      title: 'Cannot be done',
      status: 422,
      detail: 'There is no such column.',
      at: 'sort[0]',
    });
    expect(await notFound('list').json()).toMatchObject({
      status: 404,
      detail: 'There is no such list. It may have been deleted.',
    });
  });

  const thrown = async (error: Error): Promise<{ status: number; detail: string }> =>
    z
      .object({ status: z.int(), detail: z.string() })
      .loose()
      .parse(await (await answering(() => Promise.reject(error))).json());

  it.each([
    [400, new BadInput('The address does not name a number.')],
    [413, new TooLarge(10)],
    [422, new BadCondition('Depot is text.')],
    [422, new TallyRefused('This makes 3 groups.')],
    [422, new EngineError('noTally', 'This tally is no longer in the tray.')],
  ])('are told with status %i', async (status, error) => {
    expect(await thrown(error)).toMatchObject({ status, detail: error.message });
  });

  it('name every fault of an ask by its path', async () => {
    const faults = [
      { path: 'sort[0].column', message: 'There is no column “x”.', remedy: 'Name one.' },
      { path: 'tallies[0]', message: 'It has no measure.', remedy: '' },
    ];
    expect(await thrown(new BadAsk(faults))).toMatchObject({
      status: 422,
      detail: '2 things are wrong in the ask.',
      faults,
    });
    expect(await thrown(new BadAsk(faults.slice(0, 1)))).toMatchObject({
      detail: 'One thing is wrong in the ask.',
    });
  });

  it('say where a body is not as it should be', async () => {
    const schema = z.strictObject({ doc: z.strictObject({ lead: z.string() }) });
    const found = await answering(async () => {
      await bodyOf(post('{"doc":{"lead":3}}'), schema);
      return new Response();
    });
    expect(found.status).toBe(400);
    expect(z.object({ detail: z.string() }).parse(await found.json()).detail).toMatch(
      /^doc\.lead:/,
    );
  });

  it('show nothing of the inside', async () => {
    const found = await thrown(new Error('SQLITE_CORRUPT in /secret/place'));
    expect(found.status).toBe(500);
    expect(JSON.stringify(found)).not.toMatch(/SQLITE|secret/);
  });

  it('are not made of what answers', async () => {
    expect(await (await answering(() => Promise.resolve(new Response('fine')))).text()).toBe(
      'fine',
    );
  });
});

describe('what a request carries', () => {
  it('numbers in addresses are digits alone', () => {
    expect([idOf('0'), idOf('42')]).toEqual([0, 42]);
    for (const text of ['', '-1', '1.5', '1e3', ' 1', '1'.repeat(16), 'one'])
      expect(() => idOf(text)).toThrow(BadInput);
  });

  it('JSON is read within its limit', async () => {
    expect(await jsonOf(post('{"a":[1]}'), 9)).toEqual({ a: [1] });
    await expect(jsonOf(post('{"a":[1]}'), 8)).rejects.toBeInstanceOf(TooLarge);
    await expect(jsonOf(post('{"a":'), 100)).rejects.toBeInstanceOf(BadInput);
    await expect(jsonOf(post(null), 100)).rejects.toBeInstanceOf(BadInput);
  });

  it('bytes are put together from their parts', async () => {
    const { body } = inParts(['Skerry ', 'Bank', '', ' £']);
    expect(new TextDecoder().decode(await bytesOf(post(body), 100))).toBe('Skerry Bank £');
    expect(await bytesOf(new Request('http://loft/api'), 10)).toHaveLength(0);
  });

  it('what is too large is given up on the way, whatever it says of its length', async () => {
    const { body, cancelled } = inParts(['12345', '67890', '!', 'never']);
    await expect(bytesOf(post(body), 10)).rejects.toBeInstanceOf(TooLarge);
    expect(cancelled()).toBe(true);
    const said = inParts(['1']);
    const request = post(said.body, { 'content-length': '11' });
    await expect(bytesOf(request, 10)).rejects.toBeInstanceOf(TooLarge);
  });

  it('a form is read; what is none, or too large, is an empty one', async () => {
    const form = new FormData();
    form.set('file', new File(['Route;Fares\n'], 'fares.csv'));
    const read = await formOf(post(form), 10_000);
    const file = read.get('file');
    expect(file instanceof File && [file.name, await file.text()]).toEqual([
      'fares.csv',
      'Route;Fares\n',
    ]);
    expect([...(await formOf(post(form), 20))]).toEqual([]);
    expect([...(await formOf(post('{}', { 'content-type': 'application/json' }), 100))]).toEqual(
      [],
    );
  });
});

describe('the form that is asked for', () => {
  const asked = (query: string, accept = '') => {
    const url = new URL(`http://loft/api/x${query}`);
    return formAsked(new Request(url, { headers: accept ? { accept } : {} }), url);
  };

  it('is named in the query before the header', () => {
    expect(asked('?as=csv', 'application/json')).toBe('csv');
    expect(asked('', 'text/csv')).toBe('csv');
    expect(asked('', 'application/json')).toBe('json');
    expect(asked('', 'image/png')).toBeNull();
    expect(() => asked('?as=pdf')).toThrow(/“as” is one of csv/);
  });

  it('delimited text has its own ways of writing, each of the ways there are', () => {
    const dialect = (query: string) => dialectAsked(new URL(`http://loft/api/x${query}`));
    expect(dialect('?delimiter=semicolon&decimal=comma')).toMatchObject({
      values: 'full',
      delimiter: 'semicolon',
      decimal: 'comma',
    });
    expect(dialect('')).toMatchObject({ delimiter: 'comma', decimal: 'point' });
    expect(() => dialect('?delimiter=pipe-dream')).toThrow(/“delimiter” one of/);
  });

  it('files are saved under a name, pages shown with nothing that runs', async () => {
    const bytes = new TextEncoder().encode('a;b\n');
    const csv = fileResponse(bytes, 'csv', 'fares', {
      values: 'full',
      delimiter: 'semicolon',
      decimal: 'comma',
      encoding: 'windows-1252',
    });
    expect(csv.headers.get('content-disposition')).toBe('attachment; filename="fares.csv"');
    expect(csv.headers.get('content-type')).toBe('text/csv; charset=windows-1252');
    expect(await csv.text()).toBe('a;b\n');
    const page = fileResponse(bytes, 'html', 'fares');
    expect(page.headers.get('content-disposition')).toBeNull();
    expect(page.headers.get('content-type')).toBe('text/html; charset=utf-8');
    expect(page.headers.get('content-security-policy')).toContain("default-src 'none'");
    expect(fileResponse(bytes, 'json', 'x').headers.get('content-disposition')).toBeNull();
  });
});
