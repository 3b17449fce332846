import { createContext, useContext } from 'react';
import { configureFonts, type MD3Theme } from 'react-native-paper';
// Not from the package's index, which would bring every component along: its Babel plugin does not know these two.
import { MD3DarkTheme, MD3LightTheme } from 'react-native-paper/lib/module/styles/themes';
import { WORDS, WORDS_STRONG, dark, light, type Tokens } from './tokens';
import { grown } from './type';

const TokensContext = createContext<Tokens>(dark);
export const TokensProvider = TokensContext.Provider;

/** The colours of the theme in use. */
export function useTokens(): Tokens {
  return useContext(TokensContext);
}

/** Paper's theme in our colours and typefaces. */
export function paperTheme(t: Tokens): MD3Theme {
  const isDark = t !== light;
  const base = isDark ? MD3DarkTheme : MD3LightTheme;
  const fonts = configureFonts({ config: { fontFamily: WORDS } });
  for (const name of ['labelLarge', 'labelMedium', 'titleMedium', 'titleLarge'] as const) {
    fonts[name] = { ...fonts[name], fontFamily: WORDS_STRONG, letterSpacing: 0.2 };
  }
  fonts.bodyLarge = { ...fonts.bodyLarge, fontSize: 18, letterSpacing: 0.2 };
  fonts.bodyMedium = { ...fonts.bodyMedium, fontSize: grown(17), lineHeight: grown(20), letterSpacing: 0.2 };
  return {
    ...base,
    roundness: 3,
    fonts,
    colors: {
      ...base.colors,
      primary: t.breast,
      onPrimary: t.onBreast,
      secondary: t.cap,
      secondaryContainer: t.breast,
      onSecondaryContainer: t.onBreast,
      tertiary: t.moss,
      error: t.berry,
      onError: t.onBerry,
      background: t.ground,
      onBackground: t.wing,
      surface: t.slate,
      onSurface: t.wing,
      surfaceVariant: t.slate,
      onSurfaceVariant: t.cap,
      outline: t.rule,
      outlineVariant: t.rule,
      inverseSurface: t.wing,
      inverseOnSurface: t.ground,
      inversePrimary: isDark ? '#9C4218' : '#F0A37F',
      elevation: { ...base.colors.elevation, level1: t.slate, level2: t.slate, level3: t.slate },
    },
  };
}
