import { createAsyncStorage } from '@react-native-async-storage/async-storage';
import { SampleStore } from './samples';

/** Where the app keeps what is made on this device. */
export const storage = createAsyncStorage('chaffinch');
export const samples = new SampleStore(storage);

export { onStorageLost } from '@/shims/indexedDBStorage';
