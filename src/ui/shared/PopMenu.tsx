import { Fragment, useRef, useState, type ComponentProps } from 'react';
import { StyleSheet, View } from 'react-native';
import { Divider, Menu } from 'react-native-paper';
import type { IconName } from '../theme/icons';
import { grown } from '../theme/type';
import { giveFocusBack, lastPress } from '../shell/focus';
import { ControlButton } from './ControlButton';

export interface PopMenuItem {
  title: string;
  icon?: IconName;
  /** The one of a choice that holds now. */
  chosen?: boolean;
  /** A dividing rule is drawn above this item. */
  ruled?: boolean;
  act: () => void;
}

interface Props extends Omit<ComponentProps<typeof ControlButton>, 'onPress' | 'expanded'> {
  /** Asked for when it opens, if it is a function. */
  items: readonly PopMenuItem[] | (() => readonly PopMenuItem[]);
  /** Takes its share of the room in a row. */
  grow?: boolean;
}

/** A key that opens a menu below itself. The menu exists only while it is open, so that it never takes the focus unasked. */
export function PopMenu({ items, grow, ...button }: Props) {
  const [anchor, setAnchor] = useState<{ x: number; y: number } | null>(null);
  const box = useRef<View>(null);
  const opener = useRef(lastPress());
  const menu = useRef<View>(null);
  const isOpen = anchor !== null;
  const close = () => {
    setAnchor(null);
    giveFocusBack(opener.current, menu.current as unknown as Element | null);
  };
  return (
    <View ref={box} style={{ flexShrink: 1, flexGrow: grow ? 1 : 0 }}>
      <ControlButton
        {...button}
        expanded={isOpen}
        onPress={() => {
          const { left, bottom } = (box.current as unknown as HTMLElement).getBoundingClientRect();
          opener.current = lastPress();
          setAnchor({ x: left, y: bottom + 4 });
        }}
      />
      {anchor && (
        <Menu visible anchor={anchor} onDismiss={close}>
          <View role="region" aria-label={button.label}>
            <View ref={menu} role="menu" aria-label={button.label}>
              {(typeof items === 'function' ? items() : items).map(({ title, icon, chosen, ruled, act }) => (
                <Fragment key={title}>
                  {ruled && <Divider />}
                  <Menu.Item
                    title={title}
                    leadingIcon={icon}
                    trailingIcon={chosen ? 'check' : undefined}
                    style={styles.item}
                    containerStyle={styles.row}
                    contentStyle={{
                      maxWidth: grown(WORDS_WIDTH[Number(icon !== undefined) + Number(chosen === true)]!),
                    }}
                    titleStyle={styles.title}
                    onPress={() => {
                      close();
                      act();
                    }}
                  />
                </Fragment>
              ))}
            </View>
          </View>
        </Menu>
      )}
    </View>
  );
}

/** Greatest width of an item's words beside no icon, one and two, px on a phone. */
const WORDS_WIDTH = [268, 232, 208] as const;

// Measures of the package, which grow with the room.
const styles = StyleSheet.create({
  item: { height: grown(48), maxWidth: grown(280) },
  row: { alignItems: 'center' },
  title: { fontSize: grown(18), lineHeight: grown(24) },
});
