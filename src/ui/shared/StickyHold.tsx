import { useRef, type ComponentProps } from 'react';
import { HoldButton } from './HoldButton';

/** Let go sooner than this, it sticks. */
const TAP_MS = 300;

interface Props extends Omit<ComponentProps<typeof HoldButton>, 'on' | 'onHold'> {
  on: boolean;
  onSet: (on: boolean) => void;
}

/** What holds while it is held, and after a short touch until it is touched again: for one hand alone. */
export function StickyHold({ on, onSet, ...button }: Props) {
  const down = useRef({ at: 0, stuck: false });
  return (
    <HoldButton
      {...button}
      on={on}
      onHold={(held) => {
        const now = performance.now();
        if (held) {
          down.current = { at: now, stuck: on };
          onSet(true);
        } else if (down.current.stuck || now - down.current.at > TAP_MS) onSet(false);
      }}
    />
  );
}
