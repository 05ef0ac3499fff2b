/**
 * Documents of version 1 named a percentile measure's per cent as a share: `p: 0.9`. Since version 2
 * every percentile is named by per cent: `percent: 90`.
 */
export function percentForShares(part: unknown): unknown {
  if (Array.isArray(part)) return part.map(percentForShares);
  if (typeof part !== 'object' || part === null) return part;
  const out: Record<string, unknown> = {};
  const isMeasure = 'kind' in part && (part.kind === 'percentile' || part.kind === 'trimmedMean');
  for (const [key, value] of Object.entries(part))
    if (isMeasure && key === 'p' && typeof value === 'number')
      out.percent = Number((value * 100).toPrecision(12));
    else out[key] = percentForShares(value);
  return out;
}

/** An ask of any version as one of the newest; what is no ask stays as it is. */
export function upgradeAsk(document: unknown): unknown {
  if (typeof document !== 'object' || document === null || Array.isArray(document)) return document;
  if ('version' in document && document.version !== 1) return document;
  return { ...Object(percentForShares(document)), version: 2 };
}
