import { useState } from 'react';
import { padsSent } from '@/store/mixSlice';
import { selectSet } from '@/store/selectors';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Choice } from '../shared/Choice';
import { Words } from '../shared/Words';
import { PadChoice } from '../sounds/PadChoice';
import { StripGroup } from '../sounds/StripGroup';
import { useNewGroup } from './useNewGroup';

/** Pads of a track's kit that go to a group of their own: chosen on the board, then sent. */
export function PadWays({ track: id }: { track: number }) {
  const dispatch = useAppDispatch();
  const { tracks, mix } = useAppSelector(selectSet);
  const newGroup = useNewGroup();
  const [chosen, setChosen] = useState<readonly number[]>([]);
  const track = tracks[id];
  if (!track || track.tones) return null;
  const { name, kit, padsTo = [] } = track;
  const groups = mix?.groups ?? [];
  const wayOf = (pad: number) => padsTo.find((way) => way.pad === pad)?.group;
  const captions = new Map(kit.pads.map((_, pad) => [pad, groups.find((group) => group.id === wayOf(pad))?.name]));
  const ways = new Set(chosen.map(wayOf));
  const [way] = ways;
  const options = [
    { value: 'track', name: `Along with ${name}` },
    ...groups.map((group) => ({ value: String(group.id), name: group.name })),
    ...(newGroup ? [{ value: 'new', name: 'A new group' }] : []),
  ];
  const send = (value: string) => {
    const to = value === 'track' ? null : value === 'new' ? newGroup!() : Number(value);
    dispatch(padsSent({ track: id, pads: [...chosen], to }));
    setChosen([]);
  };
  return (
    <StripGroup name="Pads apart" of={name}>
      <Words>
        Choose pads, and where they go: to a group of their own they pass by all of this but {name}’s level and mutes.
      </Words>
      <PadChoice
        label="Pad apart"
        pads={kit.pads}
        chosen={chosen}
        captions={captions}
        onToggle={(pad) => setChosen(chosen.includes(pad) ? chosen.filter((one) => one !== pad) : [...chosen, pad])}
      />
      {chosen.length > 0 && (
        <Choice
          label="Pads go to"
          caption={chosen.length === 1 ? 'The chosen pad goes' : `The ${chosen.length} chosen pads go`}
          value={ways.size > 1 ? 'Several ways' : way === undefined ? 'track' : String(way)}
          options={options}
          onChoose={send}
        />
      )}
    </StripGroup>
  );
}
