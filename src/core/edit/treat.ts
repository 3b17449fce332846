import type { Loudness } from '../document/loudness';
import { passOf } from '../sequence/soundingHits';
import { AS_PLAYED, type Feel } from '../quantize/feel';
import type { Lane, Pattern } from '../document/pattern';

/** What a treatment holds for: the whole pattern, one pad's lane, or single hits by their ids. */
export type Scope = { kind: 'pattern' } | { kind: 'lane'; pad: number } | { kind: 'hits'; ids: readonly number[] };

/** A treatment to be set: `undefined` takes it away, a missing key leaves it as it is. */
export interface Treatment {
  feel?: Feel | undefined;
  loudness?: Loudness | undefined;
}

/** The pattern with a treatment set or taken away. The struck times and velocities are not touched. */
export function treated(pattern: Pattern, scope: Scope, treatment: Treatment): Pattern {
  switch (scope.kind) {
    case 'pattern':
      return withTreatment(pattern, treatment);
    case 'lane': {
      const old = pattern.lanes?.find((lane) => lane.pad === scope.pad) ?? { pad: scope.pad };
      const lane = withTreatment(old, treatment);
      const others = (pattern.lanes ?? []).filter(({ pad }) => pad !== scope.pad);
      const lanes = [...others, ...(isTreated(lane) ? [lane] : [])].sort((a, b) => a.pad - b.pad);
      return withLanes(pattern, lanes);
    }
    case 'hits': {
      const ids = new Set(scope.ids);
      return { ...pattern, hits: pattern.hits.map((hit) => (ids.has(hit.id) ? withTreatment(hit, treatment) : hit)) };
    }
  }
}

/** Takes away the narrower treatments below a scope, so that its own holds for all of it. */
export function withoutNarrower(pattern: Pattern, scope: Scope, kind: 'feel' | 'loudness'): Pattern {
  if (scope.kind === 'hits') return pattern;
  const none: Treatment = { [kind]: undefined };
  const isBelow = (pad: number) => scope.kind === 'pattern' || scope.pad === pad;
  const hits = pattern.hits.map((hit) => (hit[kind] && isBelow(hit.pad) ? withTreatment(hit, none) : hit));
  if (scope.kind === 'lane') return { ...pattern, hits };
  const lanes = (pattern.lanes ?? []).map((lane) => withTreatment(lane, none)).filter(isTreated);
  return withLanes({ ...pattern, hits }, lanes);
}

/** The pattern as it was played: every hit where and as hard as it was struck, whatever treats it. */
export function withoutTreatment(pattern: Pattern): Pattern {
  const hits = pattern.hits.map((hit) => withTreatment(hit, { feel: AS_PLAYED, loudness: undefined }));
  return withTreatment(withLanes({ ...pattern, hits }, []), { feel: undefined, loudness: undefined });
}

/** How many lanes and hits below a scope have a treatment of their own. */
export function narrower(pattern: Pattern, scope: Scope, kind: 'feel' | 'loudness'): { lanes: number; hits: number } {
  if (scope.kind === 'hits') return { lanes: 0, hits: 0 };
  const hits = pattern.hits.filter((hit) => hit[kind] && (scope.kind === 'pattern' || hit.pad === scope.pad)).length;
  const lanes = scope.kind === 'pattern' ? (pattern.lanes ?? []).filter((lane) => lane[kind]).length : 0;
  return { lanes, hits };
}

/** How many more hits would be covered with a Feel than are now. */
export function newlyCovered(pattern: Pattern, scope: Scope, feel: Feel | undefined): number {
  return Math.max(0, passOf(treated(pattern, scope, { feel })).covered.length - passOf(pattern).covered.length);
}

function withTreatment<T extends Treatment>(owner: T, treatment: Treatment): T {
  // What has none lacks the key: the stored document has no undefined either.
  return Object.fromEntries(Object.entries({ ...owner, ...treatment }).filter(([, value]) => value !== undefined)) as T;
}

function isTreated(lane: Lane): boolean {
  return lane.feel !== undefined || lane.loudness !== undefined;
}

function withLanes(pattern: Pattern, lanes: Lane[]): Pattern {
  const next: Pattern = { ...pattern, lanes };
  if (lanes.length === 0) delete next.lanes;
  return next;
}
