import { nanoid } from '@reduxjs/toolkit';
import { useState } from 'react';
import { useStore } from 'react-redux';
import { TextField } from '../shared/TextField';
import { POLISHED_FLOOR } from '@/core/document/kits';
import { kindName } from '@/core/document/soundKinds';
import { MOST_TAG_LETTERS, MOST_TAGS, type Shelved } from '@/core/shelf/shelved';
import { bringIn, exportKit } from '@/storage/setFiles';
import { pickFile } from '@/storage/pickFile';
import { selectSet, selectTrack } from '@/store/selectors';
import { noticed } from '@/store/sessionSlice';
import { shelved, shelvedChanged, unshelved } from '@/store/shelfSlice';
import { kitNamed, kitTaken } from '@/store/soundsSlice';
import { useAppDispatch, useAppSelector, type Store } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';
import { KeyRow } from '../shared/KeyRow';
import { NameField } from '../shared/NameField';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { Words } from '../shared/Words';

/** The kit of the shown track as a whole: its name, kept on the shelf, carried away and brought in. */
export function KitSheet() {
  const dispatch = useAppDispatch();
  const store = useStore() as Store;
  const instrument = useInstrument();
  const { id: track, name: trackName, kit } = useAppSelector(selectTrack);
  const { tempo } = useAppSelector(selectSet);
  const pad = useAppSelector((state) => state.steps.pad);
  const own = useAppSelector((state) => state.shelf.own);
  const [tags, setTags] = useState('');
  const { sound } = kit.pads[pad]!;
  const tagList = () =>
    [...new Set(tags.split(/[,;]+/).map((tag) => tag.trim().toLowerCase().slice(0, MOST_TAG_LETTERS)))]
      .filter((tag) => tag !== '')
      .slice(0, MOST_TAGS);
  const entry = (): Shelved => ({ id: nanoid(), name: kit.name, tags: tagList(), tempo: Math.round(tempo), kit });
  const keep = (kept: Shelved) => {
    dispatch(shelved(kept));
    dispatch(noticed(`“${kept.name}” lies on the shelf now.`));
  };
  return (
    <Sheet title="Kit" about={`All sounds of ${trackName}: name them, keep them on the shelf, carry them away.`}>
      <NameField
        key={kit.name}
        label="Name of the kit"
        name={kit.name}
        onName={(name) => dispatch(kitNamed({ track, name }))}
      />
      <TextField label="Tags, with commas between" aria-label="Tags of the kit" value={tags} onChangeText={setTags} />
      <KeyRow
        keys={[
          { label: 'Save kit', text: 'Save kit', act: () => keep(entry()) },
          {
            label: 'Save sound',
            text: `Save ${sound.name}`,
            act: () =>
              keep({
                id: nanoid(),
                name: sound.name,
                tags: [...new Set([kindName(sound.kind).toLowerCase(), ...tagList()])],
                sound,
              }),
          },
        ]}
      />
      <KeyRow
        keys={[
          { label: 'Export kit', text: 'Export kit', act: () => void exportKit(store, entry()) },
          {
            label: 'Bring in a kit',
            text: 'Bring in',
            act: () =>
              pickFile('.zip,application/zip', (file) => void bringIn(store, file, (set) => instrument.open(set))),
          },
          {
            label: 'Start kit again',
            text: 'Polished Floor again',
            act: () => void dispatch(kitTaken({ track, kit: POLISHED_FLOOR })),
          },
        ]}
      />
      <SheetTitle>Own kits and sounds</SheetTitle>
      {own.length === 0 && <Words>None yet. What you save lies on the shelf, for every set of this device.</Words>}
      {own.map((one) => (
        <OwnEntry key={one.id} entry={one} />
      ))}
    </Sheet>
  );
}

/** One of the player's own: named, carried away, or taken from the shelf. */
function OwnEntry({ entry }: { entry: Shelved }) {
  const dispatch = useAppDispatch();
  const store = useStore() as Store;
  const { id, name } = entry;
  return (
    <>
      <NameField
        key={name}
        label={`Name of ${name}`}
        caption={entry.kit ? 'Kit' : 'Sound'}
        name={name}
        onName={(next) => dispatch(shelvedChanged({ id, name: next }))}
      />
      <KeyRow
        keys={[
          { label: `Export ${name}`, text: 'Export', act: () => void exportKit(store, entry) },
          {
            label: `Take ${name} off the shelf`,
            text: 'Off the shelf',
            act: () => {
              dispatch(unshelved(id));
              dispatch(noticed(`“${name}” is off the shelf. Sets that use it keep it.`));
            },
          },
        ]}
      />
    </>
  );
}
