import { strFromU8, strToU8, unzipSync, zipSync, type Unzipped, type Zippable } from 'fflate';
import { readSet, writeSet, type ReadSet } from '@/core/document/readSet';
import { isSampleId } from '@/core/document/sample';
import { tracksOf, type OpenSet } from '@/core/document/set';
import { sampleOf, type Sound } from '@/core/document/sound';
import { sampleWavData, wavFacts, writeSampleWav } from '@/core/formats/sampleWav';
import { isPlain } from '@/core/plain';
import type { Sample } from '@/core/sample/levels';
import { fromPcm24 } from '@/core/sample/pcm';
import type { Shelved } from '@/core/shelf/shelved';
import { checkShelved } from '@/core/shelf/shelvedSchema';

/** Version of the bundle's own form: which files it has. The set within says its version itself. */
const BUNDLE_SCHEMA = 1;
const MANIFEST = 'manifest.json';
const SET = 'set.json';
const KIT = 'kit.json';
/** Recordings lie in this folder, each a WAV file that has the name of what it holds. */
const SAMPLES = 'samples/';
/** No bundle that hands could have made unpacks to more bytes. */
const MAX_BYTES = 100_000_000;

/** What a bundle says of its files: their SHA-256, in hexadecimal. */
interface Manifest {
  bundle: typeof BUNDLE_SCHEMA;
  /** The name of the set or kit. */
  name: string;
  files: Record<string, string>;
}

/**
 * A set as one file for another device: a zip of texts that people can read, and a manifest with their SHA-256 (the package that
 * unpacks it does not look at the zip's own checksums).
 */
export function makeBundle(open: OpenSet, samples: readonly Sample[] = []): Promise<Blob> {
  const sounds = tracksOf(open.set).flatMap(({ kit }) => kit.pads.map(({ sound }) => sound));
  return pack(open.set.name, { [SET]: JSON.parse(writeSet(open)) }, samples, sounds);
}

/** A kit or a sound as a file of the same form. */
export function makeKitFile(shelved: Shelved, samples: readonly Sample[] = []): Promise<Blob> {
  const sounds = shelved.sound ? [shelved.sound] : (shelved.kit?.pads ?? []).map(({ sound }) => sound);
  return pack(shelved.name, { [KIT]: shelved }, samples, sounds);
}

/** @param sounds where they cut their recordings is written into these as cue points, for other programs */
async function pack(
  name: string,
  documents: Record<string, unknown>,
  samples: readonly Sample[],
  sounds: readonly Sound[],
): Promise<Blob> {
  const cutsOf = (id: string) => sounds.find(({ source, cuts }) => cuts && sampleOf(source) === id)?.cuts;
  const files = Object.fromEntries([
    ...Object.entries(documents).map(
      ([file, plain]) => [file, strToU8(`${JSON.stringify(plain, null, 1)}\n`)] as const,
    ),
    ...samples.map((sample) => [`${SAMPLES}${sample.id}.wav`, writeSampleWav(sample, cutsOf(sample.id))] as const),
  ]);
  const sums = await Promise.all(
    Object.entries(files).map(async ([file, bytes]) => [file, await sha256(bytes)] as const),
  );
  const manifest: Manifest = { bundle: BUNDLE_SCHEMA, name, files: Object.fromEntries(sums) };
  const zip: Zippable = { [MANIFEST]: strToU8(`${JSON.stringify(manifest, null, 1)}\n`) };
  // Sound hardly becomes smaller, and takes long to try.
  for (const [file, bytes] of Object.entries(files)) zip[file] = [bytes, { level: file.endsWith('.wav') ? 0 : 6 }];
  return new Blob([Uint8Array.from(zipSync(zip))], { type: 'application/zip' });
}

/** What lies in a bundle besides its recordings. */
type Packed = ReadSet | { shelved: Shelved };

/** Reads a bundle: the set, or the kit, or what is wrong with it in a sentence; and its recordings. Never throws. */
export async function readBundle(bytes: Uint8Array): Promise<Packed & { samples?: Sample[] }> {
  let files: Unzipped;
  try {
    let size = 0;
    files = unzipSync(bytes, { filter: ({ originalSize }) => (size += originalSize) <= MAX_BYTES });
    if (size > MAX_BYTES) return { error: `It unpacks to ${Math.round(size / 1e6)} MB, more than a set can be.` };
  } catch (error) {
    return { error: `The zip is damaged (${error instanceof Error ? error.message : String(error)}).` };
  }
  const manifest = readManifest(files[MANIFEST]);
  if ('error' in manifest) return manifest;
  for (const [name, sum] of Object.entries(manifest.files)) {
    const file = files[name];
    if (!file) return { error: `“${name}” is missing in the bundle.` };
    if ((await sha256(file)) !== sum) return { error: `“${name}” in the bundle is damaged: its checksum is another.` };
  }
  const named = (name: string) => (name in manifest.files ? files[name] : undefined);
  const [set, kit] = [named(SET), named(KIT)];
  const all = Object.keys(manifest.files).flatMap((name) => readSample(name, files[name]!) ?? []);
  const samples = all.length > 0 ? { samples: all } : {};
  if (set) return { ...readSet(strFromU8(set)), ...samples };
  return kit ? { ...readKit(strFromU8(kit)), ...samples } : { error: 'There is no set and no kit in the bundle.' };
}

/** A recording; null: it is none. */
function readSample(name: string, bytes: Uint8Array): Sample | null {
  const id = name.startsWith(SAMPLES) ? name.slice(SAMPLES.length).replace(/\.wav$/, '') : '';
  const facts = isSampleId(id) ? wavFacts(bytes) : null;
  if (!facts || 'error' in facts || facts.channels > 2) return null;
  return { id, ...fromPcm24(sampleWavData(bytes), facts.channels) };
}

function readKit(text: string): { shelved: Shelved } | { error: string } {
  try {
    const checked = checkShelved(JSON.parse(text));
    return 'problem' in checked ? { error: checked.problem } : { shelved: checked.value };
  } catch {
    return { error: 'The kit in the bundle is cut off (the text cannot be read as JSON).' };
  }
}

function readManifest(bytes: Uint8Array | undefined): Manifest | { error: string } {
  if (!bytes) return { error: 'It is a zip, but no bundle of Chaffinch: it has no manifest.' };
  try {
    const plain: unknown = JSON.parse(strFromU8(bytes));
    if (isPlain(plain) && typeof plain.bundle === 'number' && plain.bundle > BUNDLE_SCHEMA) {
      return { error: `It was made by a newer Chaffinch (bundle ${plain.bundle}; this one reads ${BUNDLE_SCHEMA}).` };
    }
    if (isPlain(plain) && plain.bundle === BUNDLE_SCHEMA && isPlain(plain.files)) return plain as unknown as Manifest;
  } catch {
    // said below
  }
  return { error: 'The manifest of the bundle cannot be read.' };
}

async function sha256(bytes: Uint8Array): Promise<string> {
  const sum = await crypto.subtle.digest('SHA-256', Uint8Array.from(bytes));
  return [...new Uint8Array(sum)].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}
