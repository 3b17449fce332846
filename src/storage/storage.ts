import { createAsyncStorage } from '@react-native-async-storage/async-storage';

/** Where the app keeps what is made on this device. */
export const storage = createAsyncStorage('chaffinch');

export { onStorageLost } from '@/shims/indexedDBStorage';
