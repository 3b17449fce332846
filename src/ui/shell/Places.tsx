import { Link, usePathname } from 'expo-router';
import { PLACES } from '@/store/settingsSlice';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { Meant } from '../guide/Meant';
import { WingBars } from '../shared/WingBars';
import { headPlaces, PLACE_SCREENS, placeAt } from './placeScreens';
import { SecondPane } from './SecondPane';
import { RAIL_WIDTH, useRoom } from '../theme/room';
import { useTokens } from '../theme/theme';
import { TOUCH, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';

/** Navigation between the places: along the bottom, down the side, or within the head (see `placesIn`). */
export function Places({ where }: { where: 'bottom' | 'rail' | 'head' }) {
  const tokens = useTokens();
  const here = usePathname();
  const wide = useRoom().layout === 'wide';
  return (
    <View
      role="navigation"
      aria-label="Places"
      style={[styles[where], where !== 'head' && { backgroundColor: tokens.slate }]}
    >
      {(where === 'head' ? headPlaces(placeAt(here)) : PLACES)
        .map((place) => PLACE_SCREENS[place])
        .map(({ name, href }) => (
          <Link
            key={name}
            href={href}
            aria-current={here === href ? 'page' : undefined}
            style={where === 'head' ? styles.narrowLink : styles.link}
          >
            <View style={styles.place}>
              <Meant name={name} />
              <View style={styles.sign}>{here === href && <WingBars color={tokens.breast} height={12} />}</View>
              <Text
                style={[
                  styles.name,
                  where === 'head' && styles.narrow,
                  { color: here === href ? tokens.wing : tokens.cap },
                ]}
              >
                {name}
              </Text>
            </View>
          </Link>
        ))}
      {wide && <SecondPane />}
    </View>
  );
}

const styles = StyleSheet.create({
  bottom: { flexDirection: 'row', height: 56 },
  rail: { width: grown(RAIL_WIDTH), paddingTop: 4, gap: 4, paddingHorizontal: 2 },
  head: { flexDirection: 'row' },
  link: { flexGrow: 1, flexBasis: 0, minWidth: 50, maxHeight: 64, textDecorationLine: 'none' },
  /** In the head, beside the transport. */
  narrowLink: { flexGrow: 1, flexBasis: 0, minWidth: TOUCH, maxHeight: 64, textDecorationLine: 'none' },
  narrow: { fontSize: 15 },
  place: { minHeight: TOUCH + 8, alignItems: 'center', justifyContent: 'center', width: '100%', flexGrow: 1 },
  sign: { height: 16, justifyContent: 'center' },
  name: { fontFamily: WORDS_STRONG, fontSize: grown(17), lineHeight: grown(22) },
});
