// Of React Native what Expo Router uses. It asks for the whole, as CommonJS does, and pickers, switches and lists that nothing here shows would come
// along: see metro.config.js.
export {
  ActivityIndicator,
  Animated,
  I18nManager,
  Image,
  Platform,
  Pressable,
  ScrollView,
  StyleSheet,
  Text,
  TextInput,
  View,
  useColorScheme,
} from 'react-native';
