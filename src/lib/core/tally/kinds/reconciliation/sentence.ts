import { givenNumber } from '../../../table/format';
import type { ColumnType } from '../../../table/column';
import type { Names } from '../../kind/kind';
import { begun, replacedAt, type Part, type Slot } from '../../sentence/sentence';
import { optionalParts, type Option } from '../../sentence/optionalParts';
import { groupParts } from '../../series/seriesSlots';
import {
  choiceSlot,
  columnSlot,
  listSlot,
  measureSlot,
  numberSlot,
  scopeSlot,
  toggleSlot,
} from '../../sentence/slots';
import { groupWords, measurePhrase } from '../../sentence/words';
import type { ReconciliationSpec } from './spec';

const ANY: readonly ColumnType[] = ['text', 'number', 'date', 'datetime', 'time', 'yesno'];

/** `Sum of Fares taken for each Route against sum of Target of Targets, within 5 %.` */
export function reconciliationSentence(
  spec: ReconciliationSpec,
  names: Names,
): Part<ReconciliationSpec>[] {
  const { against, meets, tolerance } = spec;
  // Columns of the other list go by their own names.
  const own: Names = new Map();
  const there = measureSlot<ReconciliationSpec>(
    'against',
    against ?? spec.measure,
    against ? own : names,
    (measure) => ({ ...spec, against: measure ?? undefined }),
    { needed: true },
  );
  return begun<ReconciliationSpec>([
    measureSlot<ReconciliationSpec>(
      'measure',
      spec.measure,
      names,
      (measure) => (measure ? { ...spec, measure } : spec),
      { needed: true },
    ),
    ...groupParts<ReconciliationSpec>('by', spec.by, names, [spec.measure], (by) =>
      by.length ? { ...spec, by, meets: meets?.slice(0, by.length) } : spec,
    ),
    ' against ',
    {
      ...there,
      ofList: spec.with,
      ...(against === undefined && { words: `the same ${measurePhrase(spec.measure, names)}` }),
    },
    ' of ',
    listSlot<ReconciliationSpec>(
      'with',
      'The other list',
      spec.with,
      // Its columns are others than those of the list before.
      (list) => ({ ...spec, with: list, against: undefined, meets: undefined }),
      { lists: true },
    ),
    ...optionalParts<ReconciliationSpec>([
      ...meetOptions(spec, names),
      {
        slot: numberSlot<ReconciliationSpec>(
          'tolerance.most',
          tolerance.in === 'percent'
            ? `${givenNumber(tolerance.most)} %`
            : tolerance.most === 0
              ? 'a tolerance'
              : givenNumber(tolerance.most),
          tolerance.most,
          { least: 0, most: Number.MAX_SAFE_INTEGER, needed: true, name: 'Tolerance' },
          (most) => ({ ...spec, tolerance: { ...tolerance, most: most ?? 0 } }),
        ),
        usual: tolerance.most === 0,
        before: ', within ',
      },
      {
        slot: choiceSlot<ReconciliationSpec, 'amount' | 'percent'>(
          'tolerance.in',
          'Tolerance in',
          tolerance.in,
          [
            { value: 'amount', label: 'as an amount' },
            { value: 'percent', label: 'in per cent of the other' },
          ],
          (next) => ({ ...spec, tolerance: { ...tolerance, in: next } }),
        ),
        // The tolerance itself says it: `5 %`.
        usual: true,
      },
      {
        slot: toggleSlot<ReconciliationSpec>(
          'apart',
          'those that agree in one line',
          spec.apart,
          (apart) => ({ ...spec, apart }),
        ),
        usual: !spec.apart,
      },
      {
        slot: choiceSlot<ReconciliationSpec, ReconciliationSpec['order']>(
          'order',
          'Order',
          spec.order,
          [
            { value: 'size', label: 'the furthest apart first' },
            { value: 'label', label: 'in label order' },
          ],
          (order) => ({ ...spec, order }),
        ),
        usual: spec.order === 'size',
      },
      scopeSlot<ReconciliationSpec>(spec.scope, (scope) => ({ ...spec, scope })),
    ]),
  ]);
}

/** Which column of the other list each key meets; those of the same names go without saying. */
function meetOptions(spec: ReconciliationSpec, names: Names): Option<ReconciliationSpec>[] {
  const refs = spec.by.map((key, k) => spec.meets?.[k] ?? names.get(key.column) ?? key.column);
  return spec.by.map((key, k): Option<ReconciliationSpec> => {
    const usual = refs[k] === (names.get(key.column) ?? key.column);
    const slot: Slot<ReconciliationSpec> = columnSlot<ReconciliationSpec>(
      `meets[${k}]`,
      refs[k],
      names,
      ANY,
      (ref) => (ref === null ? spec : { ...spec, meets: replacedAt(refs, k, ref) }),
      { needed: true },
    );
    return {
      slot: {
        ...slot,
        ofList: spec.with,
        name: `Meets ${groupWords(key, names)}`,
        words: usual ? `${groupWords(key, names)} met by ${refs[k]}` : refs[k],
      },
      usual,
      before: `, ${groupWords(key, names)} met by `,
    };
  });
}
