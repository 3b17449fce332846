import type { StyleProp, ViewStyle } from 'react-native';
import type { Target } from '@/core/midi/target';
import { PopMenu } from './PopMenu';

interface Props<T extends string> {
  label: string;
  caption?: string;
  value: T;
  options: readonly { value: T; name: string }[];
  numeric?: boolean;
  onChoose: (value: T) => void;
  grow?: boolean;
  /** What it works, for controllers. */
  maps?: Target;
  style?: StyleProp<ViewStyle>;
}

/** A key that shows one of several values and opens the list of them. */
export function Choice<T extends string>({
  label,
  caption,
  value,
  options,
  numeric,
  onChoose,
  grow,
  maps,
  style,
}: Props<T>) {
  const name = options.find((o) => o.value === value)?.name ?? value;
  const items = options.map((option) => ({
    title: option.name,
    chosen: option.value === value,
    act: () => onChoose(option.value),
  }));
  return (
    <PopMenu
      label={label}
      caption={caption}
      text={name}
      numeric={numeric}
      description={name}
      grow={grow}
      maps={maps}
      style={style}
      items={items}
    />
  );
}
