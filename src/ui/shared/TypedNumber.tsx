import { useState, type Ref } from 'react';
import { TextInput, type StyleProp, type TextStyle } from 'react-native';

interface Props {
  ref: Ref<TextInput>;
  /** Accessible name. */
  label: string;
  value: number;
  min: number;
  max: number;
  /** The value as shown and typed. */
  text: string;
  /** The value in words for assistive technology. */
  valueText: string | undefined;
  /** Takes typed text, once it is left or Enter is pressed and only if it was changed. */
  onType: (text: string) => void;
  /** One step up or down with the arrow keys, ten with Page keys. */
  onStep: (steps: number) => void;
  /** Presses are handled by the text and do not reach the element beneath it. */
  ownPress?: boolean;
  style: StyleProp<TextStyle>;
}

const STEPS: Record<string, number> = { ArrowUp: 1, ArrowDown: -1, PageUp: 10, PageDown: -10 };

/** A number as an editable text: typed, stepped with keys, reset with Escape. The parent decides its looks and adds other gestures. */
export function TypedNumber({ ref, label, value, min, max, text, valueText, onType, onStep, ownPress, style }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const commit = () => {
    if (typed !== null && typed !== text) onType(typed);
    setTyped(null);
  };
  return (
    <TextInput
      ref={ref}
      role="spinbutton"
      aria-label={label}
      aria-valuenow={value}
      aria-valuemin={min}
      aria-valuemax={max}
      aria-valuetext={valueText}
      inputMode="decimal"
      autoComplete="off"
      value={typed ?? text}
      onFocus={(event) => {
        // At once, for who types fast; and again once the press has put the caret somewhere. Not if something was typed by then: it would be
        // replaced by what is typed next, as `selectTextOnFocus` has it. Nor if the number was left by then: choosing its text takes the focus back.
        const element = elementOf(event);
        element?.select?.();
        setTimeout(() => {
          const isFocused = element?.ownerDocument?.activeElement === element;
          if (isFocused && element?.value === text) element.select?.();
        });
        setTyped(text);
      }}
      onChangeText={setTyped}
      onBlur={commit}
      onSubmitEditing={(event) => {
        // Blur commits the text; committing here too would apply it twice.
        const element = elementOf(event);
        if (element?.blur) element.blur();
        else commit();
      }}
      onKeyPress={(event) => {
        const { key } = event.nativeEvent;
        if (key === 'Escape') {
          setTyped(null);
          elementOf(event)?.blur?.();
        }
        const steps = STEPS[key];
        if (steps === undefined) return;
        event.preventDefault();
        setTyped(null);
        onStep(steps);
      }}
      {...(ownPress && { onPointerDown: (event: { stopPropagation: () => void }) => event.stopPropagation() })}
      style={style}
    />
  );
}

/** The page's own element, where there is a page. */
function elementOf(event: { target?: unknown } | undefined): Partial<HTMLInputElement> | undefined {
  return event?.target as Partial<HTMLInputElement> | undefined;
}
