import { Redirect } from 'expo-router';

/** An address that is no place: the pads, as at the start. */
export default function NotFound() {
  return <Redirect href="/pads" />;
}
